import { describe, expect, it } from 'vitest'
import type { Schemas } from '../../api/client'
import {
  PHASES,
  calm,
  correctionOf,
  itemFrom,
  leavesUnsaid,
  mindedOn,
  newDraft,
  saidFrom,
  withScore,
  withSign,
} from './model'

const used = { variation: 'figure_four.block_end', setup: {}, dose_s: 40 }
const ITEM: Schemas['ItemOut'] = {
  id: 'a',
  date: '2026-11-24',
  variation: used.variation,
  short: '',
  side: 'left',
  setup_words: '',
  dose_s: 40,
  dose: '40 s',
  held_s: 38,
  before: 0,
  during: 6,
  after: null,
  kind: 'pinching',
  place: 'groin',
  signs: ['grimace'],
  note: 'n',
  settled: null,
  asked: false,
  tolerance: 'flare',
}

describe('a log on the mat', () => {
  it('asks during first, and cannot be sent before it is known', () => {
    expect(PHASES[0]).toBe('during')
    expect(itemFrom(newDraft(), used, 'left', null)).toBeNull()
    const { draft, next } = withScore(newDraft(), 'during', 3)
    expect(next).toBe('after')
    expect(itemFrom(draft, used, 'left', null)?.during).toBe(3)
  })

  it('sends nothing nobody said', () => {
    const { draft } = withScore(newDraft(), 'during', 3)
    const item = itemFrom(draft, used, 'right', null)
    expect(Object.keys(item ?? {}).sort()).toEqual(
      ['dose_s', 'during', 'id', 'note', 'setup_used', 'side', 'variation'].sort(),
    )
    expect(leavesUnsaid(draft)).toBe(true)
  })

  it('says kind, place and nothing seen in one touch', () => {
    const { draft } = withScore(calm(newDraft()), 'during', 1)
    expect(leavesUnsaid(draft)).toBe(false)
    expect(itemFrom(draft, used, 'right', null)).toMatchObject({ kind: 'calm', place: 'wanted', signs: [] })
  })

  it('tells looked and seen nothing from not looked', () => {
    expect(newDraft().signs).toBeNull()
    const seen = withSign(newDraft(), 'wobble')
    expect(seen.signs).toEqual(['wobble'])
    expect(withSign(seen, 'wobble').signs).toEqual([])
  })

  it('keeps its id when it is sent again, and carries the seconds really held', () => {
    const { draft } = withScore(newDraft(), 'during', 3)
    expect(itemFrom(draft, used, 'right', 5)?.id).toBe(itemFrom(draft, used, 'right', 5)?.id)
    expect(itemFrom(draft, used, 'right', 5)).toMatchObject({ dose_s: 40, held_s: 5 })
  })
})

describe('a correction', () => {
  it('has a new id, everything that was said, and no rung of its own', () => {
    const draft = correctionOf(ITEM)
    expect(draft.id).not.toBe('a')
    const said = saidFrom(draft, ITEM.held_s)
    expect(said).toMatchObject({ before: 0, during: 6, kind: 'pinching', place: 'groin', held_s: 38 })
    expect(said).not.toHaveProperty('after')
    expect(said).not.toHaveProperty('variation')
  })
})

describe('what is minded beside the mat', () => {
  const note = (side: 'left' | 'right' | null, weight: 'fact' | 'limit' | 'ask' | 'promise') => ({
    side,
    weight,
    text: `${weight} ${side ?? 'whole'}`,
    entry_id: null,
  })

  it('is what limits and what is to be asked, of the sides that are meant', () => {
    const notes = [note('left', 'limit'), note('right', 'ask'), note(null, 'limit'), note('left', 'promise')]
    expect(mindedOn(notes, ['left', null])).toEqual(['limit left', 'limit whole'])
    expect(mindedOn(notes, ['right'])).toEqual(['ask right'])
  })
})

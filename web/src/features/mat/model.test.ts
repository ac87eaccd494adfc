import { describe, expect, it } from 'vitest'
import { correctionOf, itemFrom, newDraft, withScore } from './model'

const used = { variation: 'figure_four.block_end', setup: {}, dose_s: 40 }

describe('a log on the mat', () => {
  it('cannot be sent before the discomfort during the hold is known', () => {
    expect(itemFrom(newDraft(), used, 'left')).toBeNull()
  })

  it('asks the phases one after the other and stays at the last', () => {
    const first = withScore(newDraft(), 'before', 1)
    expect(first.next).toBe('during')
    const last = withScore(first.draft, 'after', 2)
    expect(last.next).toBe('after')
    expect(last.draft.scores).toEqual({ before: 1, during: null, after: 2 })
  })

  it('keeps its id when it is sent again', () => {
    const { draft } = withScore(newDraft(), 'during', 3)
    expect(itemFrom(draft, used, 'right')?.id).toBe(itemFrom(draft, used, 'right')?.id)
  })

  it('corrects under a new id and names what it replaces', () => {
    const item = {
      id: 'a',
      date: '2026-11-24',
      variation: used.variation,
      short: '',
      side: 'left' as const,
      setup_words: '',
      dose_s: 40,
      before: 0,
      during: 2,
      after: 1,
      kind: 'stretch' as const,
      place: 'wanted' as const,
      signs: [],
      note: 'n',
      settled: null,
      tolerance: 'pending' as const,
    }
    const draft = correctionOf(item)
    expect(draft.replaces).toBe('a')
    expect(draft.id).not.toBe('a')
    expect(draft.scores).toEqual({ before: 0, during: 2, after: 1 })
  })
})

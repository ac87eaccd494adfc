import { describe, expect, it } from 'vitest'
import { UNFINISHED } from '../../common/forms/DateField'
import { draftFrom, entryFrom, kindOf, kindsFor, ticked, unreadableFacts } from './model'

describe('a draft of a record', () => {
  it('is no record while the side is missing', () => {
    expect(entryFrom({ kind: 'knee_pain', side: '', facts: { site: 'front' } })).toBeNull()
  })

  it('leaves out what was not answered', () => {
    const entry = entryFrom({
      kind: 'hip_replacement',
      side: 'left',
      facts: { approach: 'posterior', date: '' },
    })
    expect(entry?.facts).toEqual({ approach: 'posterior' })
  })

  it('leaves out answers whose question no longer applies', () => {
    const entry = entryFrom({
      kind: 'knee_pain',
      side: 'left',
      facts: { operated: 'no', operation_date: '2020-01-01' },
    })
    expect(entry?.facts).toEqual({ operated: 'no' })
  })

  it('reads numbers with a comma', () => {
    const entry = entryFrom({
      kind: 'hip_replacement',
      side: 'left',
      facts: { leg_length_difference_cm: '1,5' },
    })
    expect(entry?.facts).toEqual({ leg_length_difference_cm: 1.5 })
  })

  it('is no record while a figure or a date in it cannot be read', () => {
    const hip = (facts: Record<string, string>) => ({ kind: 'hip_replacement', side: 'left', facts }) as const
    for (const text of ['about 70', '70 cm', '7O']) {
      const draft = hip({ surgeon_bend_deg: text, approach: 'posterior' })
      expect(entryFrom(draft), text).toBeNull()
      expect(unreadableFacts(draft)).toEqual([{ name: 'surgeon_bend_deg', type: 'number' }])
    }
    expect(entryFrom(hip({ surgeon_bend_deg: '70°' }))?.facts).toEqual({ surgeon_bend_deg: 70 })
    expect(unreadableFacts(hip({ date: UNFINISHED }))).toEqual([{ name: 'date', type: 'date' }])
    const broken = JSON.stringify([{ bone: 'wrist', date: UNFINISHED, low_energy: 'yes' }])
    expect(entryFrom({ kind: 'bones', side: '', facts: { fractures: broken } })).toBeNull()
  })

  it('comes back unchanged from what was recorded', () => {
    const entry = entryFrom({ kind: 'hip_replacement', side: 'right', facts: { approach: 'lateral' } })
    if (entry === null) throw new Error('this draft is complete')
    expect(entryFrom(draftFrom({ ...entry, facts: entry.facts as Record<string, unknown> }))).toEqual(entry)
  })
})

describe('a record that cannot be read', () => {
  const shown = (kind: unknown) => ({ kind: 'unreadable' as const, side: null, facts: { kind } })

  it('still says what it is of, where it does', () => {
    expect(kindOf(shown('hip_replacement'))).toBe('hip_replacement')
    expect(kindOf({ kind: 'bones', facts: {} })).toBe('bones')
    for (const kind of ['shoulder', 'toString', undefined, 3]) expect(kindOf(shown(kind))).toBeNull()
  })

  it('is no draft of anything: it is entered anew', () => {
    expect(draftFrom(shown('knee_pain')).kind).toBe('')
  })
})

describe('records of the whole body', () => {
  it('are offered without a side and sent without one', () => {
    expect(kindsFor(null)).toEqual(['pregnancy', 'bones', 'low_back'])
    expect(kindsFor('left')).not.toContain('bones')
    const entry = entryFrom({ kind: 'pregnancy', side: '', facts: { due_date: '2027-03-01', ticks: 'none' } })
    expect(entry).toEqual({ kind: 'pregnancy', facts: { due_date: '2027-03-01', ticks: ['none'] } })
  })

  it('keep "none of these" apart from every tick', () => {
    expect(ticked('none', 'bleeding')).toBe('bleeding')
    expect(ticked('bleeding,triplets', 'none')).toBe('none')
    expect(ticked('bleeding,triplets', 'bleeding')).toBe('triplets')
  })

  it('tell no fracture from a question not asked', () => {
    const facts = (fractures: string) => entryFrom({ kind: 'bones', side: '', facts: { fractures } })?.facts
    expect(facts('')).toEqual({})
    expect(facts('[]')).toEqual({ fractures: [] })
  })

  it('bring fractures back for correcting', () => {
    const recorded = {
      kind: 'bones' as const,
      side: null,
      facts: { fractures: [{ bone: 'wrist' as const, date: null, low_energy: 'yes' as const }] },
    }
    const again = entryFrom(draftFrom(recorded as never))
    expect(again?.facts).toEqual({ fractures: [{ bone: 'wrist', low_energy: 'yes' }] })
  })
})

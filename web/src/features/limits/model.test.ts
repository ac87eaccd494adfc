import { describe, expect, it } from 'vitest'
import { draftFrom, entryFrom } from './model'

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

  it('comes back unchanged from what was recorded', () => {
    const entry = entryFrom({ kind: 'hip_replacement', side: 'right', facts: { approach: 'lateral' } })
    if (entry === null) throw new Error('this draft is complete')
    expect(entryFrom(draftFrom(entry))).toEqual(entry)
  })
})

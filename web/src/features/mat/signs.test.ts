import { describe, expect, it } from 'vitest'
import { isTold, saidOn, touched } from './signs'

const check = (asked_on: string | null, answered: string[]) => ({
  entry_id: 'e', label: '', side: null, signs: {}, asked_on, answered,
}) // prettier-ignore

describe('signs that belong to a doctor', () => {
  it('are asked anew on every day', () => {
    expect(saidOn('2026-11-28', check('2026-11-27', ['none']))).toEqual([])
    expect(isTold([check('2026-11-27', ['fever'])], '2026-11-28')).toBe(false)
    expect(isTold([check('2026-11-28', ['fever'])], '2026-11-28')).toBe(true)
    expect(isTold([check('2026-11-28', ['none'])], '2026-11-28')).toBe(false)
  })

  it('are added and taken away one by one; none of them stands alone', () => {
    expect(touched(['none'], 'fever')).toEqual(['fever'])
    expect(touched(['fever'], 'locked')).toEqual(['fever', 'locked'])
    expect(touched(['fever'], 'fever')).toEqual(['none'])
    expect(touched(['fever', 'locked'], 'none')).toEqual(['none'])
  })
})

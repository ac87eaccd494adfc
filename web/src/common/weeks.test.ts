import { describe, expect, it } from 'vitest'
import { daysBetween, weeksOf } from './weeks'

describe('the strip of weeks', () => {
  it('counts days over the end of summer time, a leap day and a new year', () => {
    expect(daysBetween('2026-10-24', '2026-10-26')).toBe(2)
    expect(daysBetween('2028-02-28', '2028-03-01')).toBe(2)
    expect(daysBetween('2027-02-28', '2027-03-01')).toBe(1)
    expect(daysBetween('2026-12-31', '2027-01-01')).toBe(1)
  })

  it('has a mark every seventh day, both ends in it', () => {
    expect(weeksOf('2028-02-20', '2028-04-02')).toEqual([
      '2028-02-20',
      '2028-02-27',
      '2028-03-05',
      '2028-03-12',
      '2028-03-19',
      '2028-03-26',
      '2028-04-02',
    ])
  })
})

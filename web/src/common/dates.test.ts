import { afterEach, describe, expect, it } from 'vitest'
import { longDate, shortDate } from './dates'
import { inches, practiceManner, writeIn } from './practice'

const usual = practiceManner()
const writing = (date_format: typeof usual.date_format) => {
  writeIn({ ...usual, date_format, today: '2026-11-28' })
}

afterEach(() => {
  writeIn(usual)
})

describe('dates', () => {
  it.each([
    ['day_month_year', '24 Nov', 'Tue, 24 Nov 2026'],
    ['month_day_year', 'Nov 24', 'Tue, Nov 24, 2026'],
    ['year_month_day', '2026-11-24', 'Tue 2026-11-24'],
  ] as const)('are written with %s', (format, short, long) => {
    writing(format)
    expect([shortDate('2026-11-24'), longDate('2026-11-24')]).toEqual([short, long])
  })

  it('have their year where it is another', () => {
    writing('day_month_year')
    expect(shortDate('2025-12-31')).toBe('31 Dec 2025')
    expect(shortDate('2026-12-31')).toBe('31 Dec')
  })
})

describe('inches', () => {
  it.each([
    [0, '0'],
    [2.54, '1'],
    [49, '19.3'],
    [-4, '-1.6'],
  ])('of %d cm', (cm, said) => {
    expect(inches(cm)).toBe(said)
  })
})

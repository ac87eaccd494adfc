import { describe, expect, it } from 'vitest'
import { isUnreadable, numberIn, readNumber } from './numbers'

describe('a typed number', () => {
  it('is read with decimal comma or point', () => {
    for (const text of ['2,5', '2.5', ' 2,5 ', '+2.5']) expect(numberIn(text, 'plain')).toBe(2.5)
    expect(numberIn(',5', 'plain')).toBe(0.5)
  })

  it('is read with any minus sign', () => {
    for (const minus of ['-', '−', '–', '—', '‐', '‑', '－']) {
      expect(numberIn(`${minus}2,5`, 'plain')).toBe(-2.5)
      expect(numberIn(`${minus} 2,5`, 'plain')).toBe(-2.5)
    }
  })

  it('may carry its unit', () => {
    for (const text of ['70°', '70 °', '70 deg', '70 Degrees', '70º']) expect(numberIn(text, 'deg')).toBe(70)
    expect(numberIn('45 s', 's')).toBe(45)
    expect(numberIn('62 kg', 'kg')).toBe(62)
    expect(numberIn('85 %', 'percent')).toBe(85)
  })

  it('is turned into the field’s unit where that is certain', () => {
    expect(readNumber('1,70 m', 'cm')).toEqual({ value: 170, converted: true })
    expect(readNumber('45 mm', 'cm')).toEqual({ value: 4.5, converted: true })
    for (const text of ["5'6", '5’6”', '5 ft 6 in', '5\' 6"', '5′6″']) {
      expect(readNumber(text, 'cm')).toEqual({ value: 167.64, converted: true })
    }
    expect(numberIn("5'", 'cm')).toBeCloseTo(152.4)
    expect(numberIn('150 lb', 'kg')).toBeCloseTo(68.04, 1)
    expect(numberIn('1,5 min', 's')).toBe(90)
    expect(readNumber('170', 'cm')?.converted).toBe(false)
  })

  it('is refused as anything else, and never guessed at', () => {
    for (const [text, unit] of [
      ['about 60', 'deg'],
      ['70 cm', 'deg'],
      ['70°', 'cm'],
      ['1.234,5', 'cm'],
      ['1m74', 'cm'],
      ["5'13", 'cm'],
      ['60-70', 'deg'],
      ['--5', 'plain'],
      ['1e3', 'plain'],
      ['Infinity', 'plain'],
      ['0x10', 'plain'],
      ['-', 'plain'],
    ] as const) {
      expect(readNumber(text, unit), text).toBeNull()
      expect(isUnreadable(text, unit), text).toBe(true)
    }
  })

  it('is not missed in an empty field', () => {
    expect(isUnreadable('  ', 'cm')).toBe(false)
    expect(numberIn('', 'cm')).toBeUndefined()
  })
})

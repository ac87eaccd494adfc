import { INCH_CM, practiceManner } from '../practice'

/** What a typed number is meant in. */
export type Unit = 'deg' | 'cm' | 'kg' | 's' | 'percent' | 'plain'

/** Words that may follow a number, and what one of them is in the field's own unit. */
const WORDS: Record<Unit, Record<string, number>> = {
  deg: { '°': 1, deg: 1, degree: 1, degrees: 1 },
  cm: {
    cm: 1,
    mm: 0.1,
    m: 100,
    in: 2.54,
    inch: 2.54,
    inches: 2.54,
    '"': 2.54,
    ft: 30.48,
    feet: 30.48,
    "'": 30.48,
  },
  kg: { kg: 1, kgs: 1, g: 0.001, lb: 0.453592, lbs: 0.453592, st: 6.350293, stone: 6.350293 },
  s: { s: 1, sec: 1, secs: 1, second: 1, seconds: 1, min: 60, minute: 60, minutes: 60 },
  percent: { '%': 1, percent: 1 },
  plain: {},
}

const NUMBER = String.raw`[+-]?(?:\d+(?:[.,]\d+)?|[.,]\d+)`
const WITH_UNIT = new RegExp(`^(${NUMBER})\\s*(\\D.*)?$`)
const FEET_AND_INCHES = /^(\d+)\s*(?:'|ft|feet)\s*(\d+(?:[.,]\d+)?)\s*(?:"|''|in|inch|inches)?$/

export interface Typed {
  value: number
  /** Whether it was typed in another unit than the field's. */
  converted: boolean
}

/** One spelling for the many ways minus signs, primes and blanks are typed. */
function plainly(text: string): string {
  return text
    .replace(/\u00ba/g, '°')
    .normalize('NFKC')
    .replace(/[\u2212\u2010-\u2015]/g, '-')
    .replace(/[\u2018\u2019\u2032\u02bc]/g, "'")
    .replace(/[\u201c\u201d\u2033]/g, '"')
    .replace(/\s+/g, ' ')
    .replace(/^([+-]) /, '$1')
    .trim()
    .toLowerCase()
}

const decimal = (text: string) => Number(text.replace(',', '.'))
const tidy = (value: number) => Math.round(value * 1000) / 1000

type Units = ReturnType<typeof practiceManner>['units']

/** What a bare number is meant in, where a practice does not write the field's own unit. */
const IMPERIAL: Partial<Record<Unit, number>> = { cm: INCH_CM, kg: 0.453592 }

/** What of a field's unit a bare number is. */
function bareFactor(unit: Unit, units: Units): number {
  return units === 'imperial' ? (IMPERIAL[unit] ?? 1) : 1
}

/**
 * A typed number in its field's unit: decimal comma or point, any minus sign, the unit itself or one that can be turned
 * into it (`5'6`, `1,70 m`, `70°`). Without a unit it is meant in what the practice writes. `null` for anything else: it
 * is never guessed at.
 */
export function readNumber(text: string, unit: Unit, units: Units = practiceManner().units): Typed | null {
  const plain = plainly(text)
  const feet = unit === 'cm' ? FEET_AND_INCHES.exec(plain) : null
  if (feet !== null) {
    const inches = decimal(feet[2] ?? '0')
    return inches < 12
      ? { value: tidy(30.48 * decimal(feet[1] ?? '0') + 2.54 * inches), converted: true }
      : null
  }
  const found = WITH_UNIT.exec(plain)
  if (found === null) return null
  const word = (found[2] ?? '').trim().replace(/\.$/, '')
  const bare = bareFactor(unit, units)
  const factor = word === '' ? bare : WORDS[unit][word]
  if (factor === undefined) return null
  return { value: tidy(factor * decimal(found[1] ?? '')), converted: factor !== bare }
}

/** Whether a field holds something that is no number in its unit. Empty is not typed, and so not wrong. */
export function isUnreadable(text: string, unit: Unit): boolean {
  return text.trim() !== '' && readNumber(text, unit) === null
}

/** The number typed, or `undefined` for an empty field. Call only what is not `isUnreadable`. */
export function numberIn(text: string, unit: Unit): number | undefined {
  return readNumber(text, unit)?.value
}

/** A stored number as one would type it: with its unit where a bare number would be meant in another. */
export function asTyped(value: number, unit: Unit): string {
  return bareFactor(unit, practiceManner().units) === 1 ? value.toString() : `${value.toString()} ${unit}`
}

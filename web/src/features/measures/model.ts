import type { Schemas, Side } from '../../api/client'
import { numberIn, type Unit } from '../../common/forms/numbers'

export type Method = Exclude<Schemas['ReadingIn']['method'], ''>

/** A tape reading turned into degrees: what it gave, its error, and the lengths behind it. */
export interface TapeReading {
  text: string
  error: number
  conditions: Record<string, number>
}

/** What is typed and not yet stored: text by `stature`, `weight` … or `quantity.side`. */
export interface ReadingsDraft {
  date: string
  method: Method
  pelvisHeld: boolean
  lowBack: Schemas['ReadingIn']['note']
  typed: Record<string, string>
  tape: Record<string, TapeReading>
}

export const EMPTY_DRAFT: ReadingsDraft = {
  date: '',
  method: 'goniometer',
  pelvisHeld: false,
  lowBack: '',
  typed: {},
  tape: {},
}

/** The reading the look at the low back belongs to. */
export const LOOK_WITH = 'sitting_seat'

const BODY_UNITS: Record<string, Unit> = { weight: 'kg' }

/** What a field is measured in: joints in degrees, the body in centimetres and kilograms. */
export function unitOfField(field: string): Unit {
  return field.includes('.') ? 'deg' : (BODY_UNITS[field] ?? 'cm')
}

/** Readings to send, and a message for every field that is no number. */
export function readingsFrom(draft: ReadingsDraft, notANumber: (unit: Unit) => string) {
  const readings: Schemas['ReadingIn'][] = []
  const problems: Record<string, string> = {}
  for (const [field, text] of Object.entries(draft.typed)) {
    if (text.trim() === '') continue
    const unit = unitOfField(field)
    const value = numberIn(text, unit)
    if (value === undefined) {
      problems[field] = notANumber(unit)
      continue
    }
    const [quantity, side] = field.split('.')
    const tape = draft.tape[field]
    const taped = tape?.text === text ? tape : undefined
    readings.push({
      quantity: quantity as Schemas['ReadingIn']['quantity'],
      ...(side === undefined ? {} : { side: side as Side }),
      value,
      method: side === undefined ? '' : taped === undefined ? draft.method : 'tape',
      ...(taped?.error === undefined ? {} : { error: taped.error }),
      conditions: taped?.conditions ?? {},
      pelvis_held: side !== undefined && draft.pelvisHeld ? 'yes' : 'unknown',
      note: quantity === LOOK_WITH ? draft.lowBack : '',
    })
  }
  return { readings, problems }
}

/** Lengths typed for the soles-together look, as numbers; `null` while one is missing. */
export function tapeFrom(side: Side, typed: Record<string, string>): Schemas['TapeIn'] | null {
  const [knee, foot, seat] = [`knee.${side}`, 'foot', 'seat'].map((name) => numberIn(typed[name] ?? '', 'cm'))
  if (knee === undefined || foot === undefined || seat === undefined) return null
  return { side, knee_height_cm: knee, foot_distance_cm: foot, seat_height_cm: seat }
}

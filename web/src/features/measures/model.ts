import type { Schemas, Side } from '../../api/client'

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

/** A typed number; a comma counts as the decimal point. `null` for what is no number. */
export function numberFrom(text: string): number | null {
  const cleaned = text.trim().replace(',', '.')
  if (cleaned === '' || !/^-?\d+(\.\d+)?$/.test(cleaned)) return null
  return Number(cleaned)
}

/** Readings to send, and a message for every field that is no number. */
export function readingsFrom(draft: ReadingsDraft, notANumber: string) {
  const readings: Schemas['ReadingIn'][] = []
  const problems: Record<string, string> = {}
  for (const [field, text] of Object.entries(draft.typed)) {
    if (text.trim() === '') continue
    const value = numberFrom(text)
    if (value === null) {
      problems[field] = notANumber
      continue
    }
    const [quantity, side] = field.split('.')
    const tape = draft.tape[field]
    const taped = tape?.text === text ? tape : undefined
    readings.push({
      quantity: quantity as Schemas['ReadingIn']['quantity'],
      side: (side ?? null) as Schemas['ReadingIn']['side'],
      value,
      method: side === undefined ? '' : taped === undefined ? draft.method : 'tape',
      error: taped?.error ?? null,
      conditions: taped?.conditions ?? {},
      pelvis_held: side !== undefined && draft.pelvisHeld ? 'yes' : 'unknown',
      note: quantity === LOOK_WITH ? draft.lowBack : '',
    })
  }
  return { readings, problems }
}

/** Lengths typed for the soles-together look, as numbers; `null` while one is missing. */
export function tapeFrom(side: Side, typed: Record<string, string>): Schemas['TapeIn'] | null {
  const knee = numberFrom(typed[`knee.${side}`] ?? '')
  const foot = numberFrom(typed['foot'] ?? '')
  const seat = numberFrom(typed['seat'] ?? '')
  if (knee === null || foot === null || seat === null) return null
  return { side, knee_height_cm: knee, foot_distance_cm: foot, seat_height_cm: seat }
}

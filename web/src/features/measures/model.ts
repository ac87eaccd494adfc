import type { Schemas, Side } from '../../api/client'
import { numberIn, type Unit } from '../../common/forms/numbers'
import type { Bound } from '../../common/readings'

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
const LOOK_WITH = 'sitting_seat'

const BODY_UNITS: Record<string, Unit> = { weight: 'kg', one_leg_stand: 's' }

/** The field of the third test before lotus on one side; what is typed is its result's number. */
export const MOVES_AS_ONE = 'test.moves_as_one'

/** What the third test came to, in the order its numbers count. */
export const RESULTS = ['not_passed', 'passed', 'not_tried'] as const

/** A shape seen beyond the model's bound, and on which sides. */
export interface SeenShape {
  bound: Bound
  sides: Side[]
  date: string
}

/** The back is one, whichever leg asked it of it. */
const OF_THE_MIDDLE: ReadonlySet<Bound> = new Set<Bound>(['back_rounds', 'back_hollows'])

/** The shapes seen on the mat that nobody has taken back, the newest first. */
export function seenShapes(seen: Schemas['MeasuresOut']['seen']): SeenShape[] {
  return Object.entries(seen)
    .filter(([quantity]) => quantity.startsWith('seen.'))
    .flatMap(([quantity, readings]) => {
      const bound = quantity.slice('seen.'.length) as Bound
      const shapes = (['left', 'right'] as const).flatMap((side): SeenShape[] => {
        const latest = readings[side]?.[0]
        return latest?.value === 1 ? [{ bound, sides: [side], date: latest.date }] : []
      })
      const [first] = shapes
      if (first === undefined || !OF_THE_MIDDLE.has(bound)) return shapes
      return [{ ...first, sides: shapes.flatMap((shape) => shape.sides) }]
    })
    .sort((a, b) => b.date.localeCompare(a.date))
}

/** What a field is measured in: joints in degrees, the body in centimetres, kilograms and seconds. */
export function unitOfField(field: string): Unit {
  if (field.startsWith(MOVES_AS_ONE)) return 'plain'
  return field.includes('.') ? 'deg' : (BODY_UNITS[field] ?? 'cm')
}

/** What a field is a reading of, and on which side where it has one. */
function whatOf(field: string): [string, Side | undefined] {
  const at = field.lastIndexOf('.')
  return at < 0 ? [field, undefined] : [field.slice(0, at), field.slice(at + 1) as Side]
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
    const [quantity, side] = whatOf(field)
    const seen = quantity === MOVES_AS_ONE
    const tape = draft.tape[field]
    const taped = tape?.text === text ? tape : undefined
    readings.push({
      quantity: quantity as Schemas['ReadingIn']['quantity'],
      ...(side === undefined ? {} : { side }),
      value,
      method: side === undefined || seen ? '' : taped === undefined ? draft.method : 'tape',
      ...(taped?.error === undefined ? {} : { error: taped.error }),
      conditions: taped?.conditions ?? {},
      pelvis_held: side !== undefined && !seen && draft.pelvisHeld ? 'yes' : 'unknown',
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

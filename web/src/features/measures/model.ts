import type { Schemas } from '../../api/client'

export type Method = Exclude<Schemas['ReadingIn']['method'], ''>

/** What is typed and not yet stored: text by `stature`, `weight` or `quantity.side`. */
export interface ReadingsDraft {
  date: string
  method: Method
  typed: Record<string, string>
}

export const EMPTY_DRAFT: ReadingsDraft = { date: '', method: 'goniometer', typed: {} }

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
    readings.push({
      quantity: quantity as Schemas['ReadingIn']['quantity'],
      side: (side ?? null) as Schemas['ReadingIn']['side'],
      value,
      method: side === undefined ? '' : draft.method,
    })
  }
  return { readings, problems }
}

import type { TFunction } from 'i18next'
import type { Schemas } from '../api/client'

export type Settings = Schemas['SettingsOut']

/** How a practice writes things: what numbers and dates are shown and typed in. */
type Manner = Pick<Settings, 'units' | 'date_format' | 'first_day_of_week' | 'today'>

const USUAL: Manner = {
  units: 'metric',
  date_format: 'day_month_year',
  first_day_of_week: 1,
  today: '',
}

let manner = USUAL

/** The manner of the practice that is open. */
export function practiceManner(): Manner {
  return manner
}

/** Write in a practice's manner from here on; what is shown already is to be shown anew. */
export function writeIn(next: Manner): void {
  manner = next
}

export const INCH_CM = 2.54

/** A length as the practice writes it. */
export function length(t: TFunction, cm: number, digits = 0): string {
  return manner.units === 'metric'
    ? t('common.amount.cm', { value: cm.toFixed(digits) })
    : t('common.amount.in', { value: inches(cm) })
}

/** A length in inches to the tenth, without what is not there: `19.3`, `20`. */
export function inches(cm: number): string {
  return (Math.round((cm / INCH_CM) * 10) / 10).toString()
}

import type { TFunction } from 'i18next'
import { type Unit, UNIT_SIGN } from './numbers'

/** What is said of a field that holds no number in its unit. */
export function notANumber(t: TFunction, unit: Unit): string {
  const sign = UNIT_SIGN[unit]
  return sign === '' ? t('common.notANumber') : t('common.notANumberIn', { unit: sign })
}

import type { TFunction } from 'i18next'
import { practiceManner } from '../practice'
import type { Unit } from './numbers'

/** How a unit is written beside its field; nothing for bare numbers. */
export function signOf(t: TFunction, unit: Unit, metric = practiceManner().units === 'metric'): string {
  if (unit === 'plain') return ''
  if (!metric && unit === 'cm') return t('common.sign.in')
  if (!metric && unit === 'kg') return t('common.sign.lb')
  return t(`common.sign.${unit}`)
}

/** What is said of a field that holds no number in its unit. */
export function notANumber(t: TFunction, unit: Unit): string {
  return unit === 'plain'
    ? t('common.notANumber')
    : t('common.notANumberIn', { unit: t(`common.unit.${unit}`) })
}

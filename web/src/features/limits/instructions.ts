import type { TFunction } from 'i18next'
import type { Schemas } from '../../api/client'
import { isUnreadable, numberIn, type Unit } from '../../common/forms/numbers'
import { length } from '../../common/practice'

type Figure = Schemas['FigureOut']

/** Figures as they are typed, by `keyOf`. */
export type FiguresDraft = Partial<Record<string, string>>

/** What tells one figure from another. */
export function keyOf({ rule, readout }: Pick<Figure, 'rule' | 'readout'>): string {
  return `${rule} ${readout}`
}

const isShare = ({ unit }: Figure) => unit.endsWith('share')

/** What a figure is typed in: shares as percent of the whole, one without a unit of its own bare. */
export function typedIn(figure: Figure): Unit {
  if (figure.unit === 'deg' || figure.unit === 'cm') return figure.unit
  return isShare(figure) || figure.unit === 'percent' ? 'percent' : 'plain'
}

const tidy = (value: number) => Math.round(value * 1000) / 1000

/** The figures typed so far, as they are sent; what is empty stays the rule's own. */
export function figuresFrom(figures: readonly Figure[], typed: FiguresDraft): Schemas['FigureIn'][] {
  return figures.flatMap((figure) => {
    const value = numberIn(typed[keyOf(figure)] ?? '', typedIn(figure))
    if (value === undefined) return []
    const { rule, readout } = figure
    return [{ rule, readout, value: isShare(figure) ? tidy(value / 100) : value }]
  })
}

/** Figures in which something stands that is no number. */
export function unreadableFigures(figures: readonly Figure[], typed: FiguresDraft): readonly Figure[] {
  return figures.filter((figure) => isUnreadable(typed[keyOf(figure)] ?? '', typedIn(figure)))
}

/** A figure with its unit, as it holds today. */
export function inUnit(t: TFunction, figure: Figure): string {
  const { value, unit } = figure
  if (unit === 'cm') return length(t, value)
  if (unit === 'deg') return `${tidy(value).toString()}°`
  if (typedIn(figure) === 'plain') return tidy(value).toString()
  return `${tidy(isShare(figure) ? value * 100 : value).toString()} %`
}

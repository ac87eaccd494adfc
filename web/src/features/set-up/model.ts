import type { TFunction } from 'i18next'
import type { Lane, Schemas, Side } from '../../api/client'

type Grid = Schemas['GridOut']
type Axis = Schemas['AxisOut']
type Verdict = Schemas['Verdict']

/** Position in the dense grid of a set-up given by its index on every axis (last axis fastest). */
export function densePosition(shape: readonly number[], indices: readonly number[]): number {
  return shape.reduce(
    (position, length, axis) => position * length + Math.min(indices[axis] ?? 0, length - 1),
    0,
  )
}

/** The verdict of one set-up from the grid; `null` when the room cannot build it. */
export function verdictAt(grid: Grid, indices: readonly number[]): Verdict | null {
  return grid.letters[grid.verdicts[densePosition(grid.shape, indices)] ?? ''] ?? null
}

/** A figure of one set-up, rounded to whole units; nothing where the room cannot build it. */
function figureAt(
  grid: Grid,
  figures: Schemas['FiguresOut'],
  indices: readonly number[],
): number | undefined {
  const size = grid.shape.reduce((product, length) => product * length, 1)
  const wide = figures.at.length / size
  const from = wide * densePosition(grid.shape, indices)
  let place = 0
  for (let at = from; at < from + wide; at++) {
    const digit = grid.figure_letters.indexOf(figures.at.charAt(at))
    if (digit < 0) return undefined
    place = place * grid.figure_letters.length + digit
  }
  return figures.values[place]
}

/** A read-out of one set-up from the grid. */
export function columnAt(grid: Grid, column: string, indices: readonly number[]): number | undefined {
  const figures = grid.columns[column]
  return figures && figureAt(grid, figures, indices)
}

/** How much of the client's range one set-up keeps to work in, per cent. */
export function purposeAt(grid: Grid, indices: readonly number[]): number | undefined {
  return grid.purpose ? figureAt(grid, grid.purpose, indices) : undefined
}

/**
 * The next index on one axis in a direction that this room can build together with the rest; `null` at
 * the end.
 */
export function stepTo(
  axes: readonly Axis[],
  grid: Grid,
  indices: readonly number[],
  axis: number,
  by: 1 | -1,
): number | null {
  const length = axes[axis]?.choices.length ?? 0
  for (let index = (indices[axis] ?? 0) + by; index >= 0 && index < length; index += by) {
    if (verdictWith(grid, indices, axis, index) !== null) return index
  }
  return null
}

/** The verdict at a set-up with one axis moved; `null` for what cannot be built. */
export function verdictWith(grid: Grid, indices: readonly number[], axis: number, index: number) {
  return verdictAt(
    grid,
    indices.map((each, k) => (k === axis ? index : each)),
  )
}

/** The index on one axis whose figure is nearest to one typed, of those this room can build together with the rest. */
export function nearestTo(
  axes: readonly Axis[],
  grid: Grid,
  indices: readonly number[],
  axis: number,
  wanted: number,
): number {
  const away = (index: number) => Math.abs((axes[axis]?.choices[index]?.number ?? Infinity) - wanted)
  return (axes[axis]?.choices ?? [])
    .map((_, index) => index)
    .filter((index) => verdictWith(grid, indices, axis, index) !== null)
    .reduce((best, index) => (away(index) < away(best) ? index : best), indices[axis] ?? 0)
}

/** The set-up to send for a choice on every axis. */
export function setupFrom(
  axes: readonly Axis[],
  indices: readonly number[],
): Record<string, Schemas['SlotValue']> {
  const entries = axes.flatMap((axis, k) => {
    const choice = axis.choices[indices[k] ?? 0]
    return choice === undefined ? [] : [[axis.name, choice.value] as const]
  })
  return Object.fromEntries(entries)
}

/**
 * The choice on every axis that a set-up stands for; what this room no longer has falls to an axis's
 * first choice. `undefined` for no set-up.
 */
export function indicesOf(
  axes: readonly Axis[],
  setup: Record<string, Schemas['SlotValue']> | undefined,
): number[] | undefined {
  if (setup === undefined) return undefined
  return axes.map((axis) => {
    const wanted = setup[axis.name]
    const same = axis.choices.findIndex(
      ({ value }) =>
        value.stack === wanted?.stack &&
        value.choice === wanted?.choice &&
        (value.stack != null || value.number === wanted?.number),
    )
    return Math.max(0, same)
  })
}

/** A dose the rung has, in seconds: the wanted one, else the nearest below it, else the first. */
export function doseFrom(doses: readonly Schemas['DoseOut'][], wanted: number | undefined): number {
  const least = doses[0]?.seconds ?? 0
  if (wanted === undefined) return least
  return Math.max(least, ...doses.map((dose) => dose.seconds).filter((seconds) => seconds <= wanted))
}

/** What the rulers run to: one scale for all angles, so that bars can be compared. */
const RULER_DEG = 150

/** Where a value stands on a ruler, in per cent of its length. */
export function onRuler(value: number, full = RULER_DEG): number {
  return Math.max(0, Math.min(100, (100 * value) / full))
}

type RulerUnit = 'deg' | 'percent'

/** The unit a ruler is shown in. */
export function rulerUnit(unit: Schemas['RulerOut']['unit']): RulerUnit {
  return unit === 'percent' ? 'percent' : 'deg'
}

/** A boundary as it was set. */
export function exact(t: TFunction, value: number, unit: RulerUnit): string {
  return t(`common.amount.${unit}`, { value: value.toFixed(0) })
}

/** Whether a value is past its boundary: above one that may not be passed, below one that must be kept. */
export function isBeyond(value: number, boundary: number, atLeast: boolean): boolean {
  return atLeast ? value < boundary : value > boundary
}

/** What of a ruler decides how a value on it is read. */
type Scale = Pick<Schemas['RulerOut'], 'boundary' | 'opposite' | 'unit' | 'at_least' | 'rounded_to'>

/** A value beside its boundary, never rounded to the other side of it. */
export function against(t: TFunction, value: number, scale: Omit<Scale, 'opposite'>): string {
  const { boundary, at_least: atLeast, rounded_to: step } = scale
  const unit = rulerUnit(scale.unit)
  const rounded = Math.round(value / step) * step
  if (boundary !== null && isBeyond(rounded, boundary, atLeast) !== isBeyond(value, boundary, atLeast)) {
    const under = isBeyond(value, boundary, atLeast) === atLeast
    return t(under ? 'common.justUnder' : 'common.justOver', { value: exact(t, boundary, unit) })
  }
  return t(`common.amount.${unit}`, { value: rounded.toString() })
}

/**
 * Whether a demand goes the other way by as much as is shown: it has a name of its own there, and the
 * upper limit of this way does not speak of it.
 */
export function goesOtherWay(
  value: number,
  { opposite, rounded_to: step }: Pick<Scale, 'opposite' | 'rounded_to'>,
): boolean {
  return opposite !== null && Math.round(value / step) < 0
}

/** A demand as it is read beside its ruler. */
export function reading(t: TFunction, value: number, ruler: Scale): string {
  return goesOtherWay(value, ruler)
    ? `${ruler.opposite ?? ''} ${against(t, -value, { ...ruler, boundary: null })}`
    : against(t, value, ruler)
}

type Planned = NonNullable<Schemas['SetupOut']['planned']>

/** What is planned of a rung on a side: as the last answer of the mat has it, else as the rung came. */
export function plannedNow(
  rung: Pick<Schemas['SetupOut'], 'variation' | 'planned'>,
  mat: Schemas['MatOut'] | undefined,
  side: Side,
): Pick<Planned, 'setup' | 'dose_s'> | null {
  if (mat === undefined) return rung.planned
  const parts = mat.families.map((family) => family[side])
  return parts.find((part) => part?.variation === rung.variation) ?? null
}

/** Of a lane for both the left stands for it. */
export const sideOf = (lane: Lane): Side => (lane === 'right' ? 'right' : 'left')

/** Whether what is shown is what today's plan has, something else of a planned rung, or of one that is not planned. */
export function savedAs(
  planned: Pick<Planned, 'setup' | 'dose_s'> | null,
  axes: readonly Axis[],
  indices: readonly number[],
  dose_s: number,
): 'saved' | 'otherwise' | 'looked' {
  if (planned === null) return 'looked'
  const there = indicesOf(axes, planned.setup)
  const same = there?.every((index, place) => index === indices[place]) ?? false
  return same && planned.dose_s === dose_s ? 'saved' : 'otherwise'
}

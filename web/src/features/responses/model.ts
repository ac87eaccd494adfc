import type { Lane, Schemas } from '../../api/client'

type Point = Schemas['ResponsePoint']

/** The drawing's own units; the page scales it. */
export const CHART = { top: 10, bars: 110, gap: 26, stairs: 96, marks: 22 } as const
export const HEIGHT = CHART.top + CHART.bars + CHART.gap + CHART.stairs + 2 * CHART.marks

/** An average letter of the drawing's words, and the widest of its dates, px. */
const LETTER = 6.2
const DATE = 46
/** Room for the scale, and to the right of the last hold. */
const SCALE = 78
const END = 12

/** Where the holds stand, from the left edge of the drawing, px. */
export interface Frame {
  from: number
  to: number
}

/** The frame of a drawing of a width, px: beside it the longest name of a rung has room. */
export function frameOf(width: number, names: readonly string[]): Frame {
  const longest = Math.max(0, ...names.map((name) => name.length))
  return { from: Math.max(SCALE, Math.ceil(longest * LETTER + 10)), to: width - END }
}

/** Middle of the column of one hold. Holds stand side by side in their order, not to a scale of days. */
export function columnOf({ from, to }: Frame, index: number, count: number): number {
  return from + ((to - from) * (index + 0.5)) / Math.max(count, 1)
}

/** Whether a hold has its date beneath it: the last has, and before it as many as have room. */
export function isDated({ from, to }: Frame, index: number, count: number): boolean {
  const every = Math.ceil((DATE * count) / Math.max(to - from, 1))
  return (count - 1 - index) % every === 0
}

/** Height of a discomfort of 0–10 above the foot of the bars. */
export function discomfortHeight(score: number): number {
  return (CHART.bars * score) / 10
}

/** Where a rung stands: most held up on top, so that less support descends. */
export function rungHeight(rung: number, rungs: number): number {
  const top = CHART.top + CHART.bars + CHART.gap
  return top + (CHART.stairs * (rung + 0.5)) / Math.max(rungs, 1)
}

/** The staircase through every hold: level over a column, stepping between columns. */
export function staircase(frame: Frame, points: readonly Pick<Point, 'rung'>[], rungs: number): string {
  const half = (frame.to - frame.from) / (2 * Math.max(points.length, 1))
  return points
    .map((point, index) => {
      const x = columnOf(frame, index, points.length)
      const y = rungHeight(point.rung, rungs)
      return `${index === 0 ? 'M' : 'L'}${(x - half).toFixed(1)} ${y.toFixed(1)}H${(x + half).toFixed(1)}`
    })
    .join('')
}

/** One hold in the table, with its place among those of its side. */
export interface Line {
  side: Lane
  point: Point
  order: number
}

/** Both sides' holds for the table, newest first. */
export function tableRows(family: Pick<Schemas['ResponseFamily'], 'left' | 'right' | 'shared'>): Line[] {
  const left = family.left.points.map((point, order): Line => ({ side: 'left', point, order }))
  const right = family.right.points.map((point, order): Line => ({ side: 'right', point, order }))
  if (!family.shared) return newestFirst([...left, ...right])
  // One hold of both legs stands on both sides and is told once; what was once said of one side alone stays its own.
  const alone = right.filter((row) => !left.some((each) => saysTheSame(each.point, row.point)))
  const paired = left.map((row): Line => ({
    ...row,
    side: right.some((each) => saysTheSame(each.point, row.point)) ? 'both' : row.side,
  }))
  return newestFirst([...paired, ...alone])
}

function saysTheSame(a: Point, b: Point): boolean {
  return (
    a.date === b.date &&
    a.short === b.short &&
    a.during === b.during &&
    a.after === b.after &&
    a.kind === b.kind &&
    a.place === b.place
  )
}

function newestFirst<Row extends { side: Lane; point: Point; order: number }>(rows: Row[]): Row[] {
  return rows.sort(
    (a, b) => b.point.date.localeCompare(a.point.date) || a.side.localeCompare(b.side) || b.order - a.order,
  )
}

/** Holds of earlier days of whose next morning nobody has told, oldest first; of a shape both legs share once. */
export function openMornings(families: readonly Schemas['ResponseFamily'][], today: string) {
  const of = (lane: Schemas['ResponseLane'], side: Lane) =>
    lane.points
      .filter(({ settled, date }) => settled === null && date < today)
      .map(({ id, short, date }) => ({ id, short, date, side }))
  return families
    .flatMap(({ shared, left, right }) =>
      shared ? of(left, 'both') : [...of(left, 'left'), ...of(right, 'right')],
    )
    .sort((a, b) => a.date.localeCompare(b.date))
}

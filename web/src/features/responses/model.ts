import type { Lane, Schemas } from '../../api/client'

type Point = Schemas['ResponsePoint']

/** The drawing's own units; the page scales it. */
export const CHART = {
  width: 460,
  left: 78,
  right: 12,
  top: 10,
  bars: 110,
  gap: 26,
  stairs: 96,
  marks: 22,
} as const
export const HEIGHT = CHART.top + CHART.bars + CHART.gap + CHART.stairs + 2 * CHART.marks

/** An average letter of the drawing's words. */
const LETTER = 6.2

/** What the drawing is wider on the left than its own margin, so that the longest name of a rung has room. */
export function roomBeside(names: readonly string[]): number {
  const longest = Math.max(0, ...names.map((name) => name.length))
  return Math.max(0, Math.ceil(longest * LETTER + 10 - CHART.left))
}

/** Middle of the column of one hold. Holds stand side by side in their order, not to a scale of days. */
export function columnOf(index: number, count: number): number {
  const inner = CHART.width - CHART.left - CHART.right
  return CHART.left + (inner * (index + 0.5)) / Math.max(count, 1)
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
export function staircase(points: readonly Pick<Point, 'rung'>[], rungs: number): string {
  const half = (CHART.width - CHART.left - CHART.right) / (2 * Math.max(points.length, 1))
  return points
    .map((point, index) => {
      const x = columnOf(index, points.length)
      const y = rungHeight(point.rung, rungs)
      return `${index === 0 ? 'M' : 'L'}${(x - half).toFixed(1)} ${y.toFixed(1)}H${(x + half).toFixed(1)}`
    })
    .join('')
}

/** One hold in the table, with its place among those of its side. */
interface Line {
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

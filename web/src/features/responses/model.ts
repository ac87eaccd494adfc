import type { Lane, Schemas } from '../../api/client'

type Point = Schemas['ResponsePoint']

/** The drawing's own units; the page scales it. */
export const CHART = { top: 10, bars: 110, gap: 26, stairs: 96, support: 60, marks: 22 } as const

/** Height of a whole drawing, with or without the heights of support. */
export function heightOf(supported: boolean): number {
  return footOf(supported) + 2 * CHART.marks
}

/** Where the stairs end and the marks beneath begin. */
export function footOf(supported: boolean): number {
  return CHART.top + CHART.bars + CHART.gap + CHART.stairs + (supported ? CHART.support : 0)
}

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

/** The first and the last day that both sides of a ladder are drawn between. */
export interface Span {
  first: string
  last: string
}

const DAY_MS = 86_400_000
/** Holds stand at least so far apart, px, where the drawing has room for it. */
const APART = 16

export function spanOf(lanes: readonly { points: readonly Pick<Point, 'date'>[] }[]): Span {
  const dates = lanes.flatMap(({ points }) => points.map(({ date }) => date)).sort()
  return { first: dates[0] ?? '', last: dates.at(-1) ?? '' }
}

/** Where every hold stands, px: to a scale of days, and no nearer to each other than can be told apart. */
export function columnsOf({ from, to }: Frame, points: readonly Pick<Point, 'date'>[], span: Span): number[] {
  const [first, last] = [from + APART, to - APART]
  const days = (date: string) => (Date.parse(date) - Date.parse(span.first)) / DAY_MS
  const whole = days(span.last)
  const found = points.map(({ date }) =>
    whole > 0 ? first + ((last - first) * days(date)) / whole : (first + last) / 2,
  )
  const apart = Math.min(APART, (last - first) / Math.max(points.length - 1, 1))
  for (let i = 1; i < found.length; i++) found[i] = Math.max(found[i] ?? 0, (found[i - 1] ?? 0) + apart)
  // What was pushed past the end pushes back.
  for (let i = found.length - 1, end = last; i >= 0; i--, end = (found[i + 1] ?? 0) - apart)
    found[i] = Math.min(found[i] ?? 0, end)
  return found
}

/** How wide a bar is that has its neighbours so near, px. */
export function barOf(columns: readonly number[]): number {
  const gaps = columns.slice(1).map((column, index) => column - (columns[index] ?? 0))
  return Math.max(2, Math.min(26, 0.7 * Math.min(...gaps, 37)))
}

/** Which holds have their date beneath them: the last has, and before it those that have room. */
export function datedOf(columns: readonly number[]): Set<number> {
  const dated = new Set<number>()
  let next = Infinity
  for (let i = columns.length - 1; i >= 0; i--) {
    const column = columns[i] ?? 0
    if (next - column >= DATE) {
      dated.add(i)
      next = column
    }
  }
  return dated
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

/** A staircase through heights: level at a hold, stepping halfway to the next; where a hold has none it goes on after it. */
export function staircase(
  { from, to }: Frame,
  columns: readonly number[],
  heights: readonly (number | null)[],
): string {
  return columns
    .map((x, index) => {
      const y = heights[index] ?? null
      if (y === null) return ''
      const start = index === 0 ? from : (x + (columns[index - 1] ?? x)) / 2
      const end = index === columns.length - 1 ? to : (x + (columns[index + 1] ?? x)) / 2
      const joins = index > 0 && (heights[index - 1] ?? null) !== null
      return `${joins ? 'L' : 'M'}${start.toFixed(1)} ${y.toFixed(1)}H${end.toFixed(1)}`
    })
    .join('')
}

/** Heights of support at each hold, what it is, and which way of them there is less. */
export interface Supports {
  /** Empty where it is the seat. */
  what: string
  heights: (number | null)[]
  less: 'up' | 'down'
}

/** How high the body was held up at each hold: by what it leaned on last, or by the seat where there was nothing else. */
export function supportsOf(
  points: readonly Pick<Point, 'support_cm' | 'support' | 'seat_cm' | 'less_support'>[],
): Supports | null {
  const leaned = points.findLast(({ support_cm }) => support_cm !== null)
  if (leaned !== undefined) {
    // Heights of another support are not on its stair.
    const heights = points.map(({ support, support_cm }) => (support === leaned.support ? support_cm : null))
    return { what: leaned.support, heights, less: leaned.less_support ?? 'down' }
  }
  const heights = points.map(({ seat_cm }) => seat_cm)
  return heights.some((height) => height !== null) ? { what: '', heights, less: 'down' } : null
}

/** Where a height of support is drawn: the most support on top, so that less of it descends. */
export function supportHeight(
  height: number,
  heights: readonly (number | null)[],
  less: 'up' | 'down',
): number {
  const known = heights.filter((each) => each !== null)
  const [low, high] = [Math.min(...known), Math.max(...known)]
  const top = CHART.top + CHART.bars + CHART.gap + CHART.stairs + 16
  const room = CHART.support - 26
  if (high === low) return top + room / 2
  const lacking = (less === 'down' ? high - height : height - low) / (high - low)
  return top + room * lacking
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
      .map(({ id, short, date, asked }) => ({ id, short, date, asked, side }))
  return families
    .flatMap(({ shared, left, right }) =>
      shared ? of(left, 'both') : [...of(left, 'left'), ...of(right, 'right')],
    )
    .sort((a, b) => a.date.localeCompare(b.date))
}

import { describe, expect, it } from 'vitest'
import type { Schemas } from '../../api/client'
import {
  barOf,
  CHART,
  columnsOf,
  datedOf,
  discomfortHeight,
  frameOf,
  openMornings,
  rungHeight,
  spanOf,
  staircase,
  supportHeight,
  supportsOf,
  tableRows,
} from './model'

const point = (date: string, rung: number) => ({ date, rung, id: date }) as Schemas['ResponsePoint']
const lane = (side: 'left' | 'right', points: Schemas['ResponsePoint'][]) =>
  ({ side, points }) as Schemas['ResponseLane']

describe('the chart of responses', () => {
  const frame = frameOf(400, ['free', 'on end'])

  const onDays = (...days: number[]) =>
    days.map((day) => ({ date: new Date(Date.UTC(2026, 0, 1 + day)).toISOString().slice(0, 10) }))
  const drawn = (...days: number[]) => {
    const points = onDays(...days)
    return columnsOf(frame, points, spanOf([{ points }]))
  }

  it('stands holds to a scale of days, inside the drawing', () => {
    const [first = 0, second = 0, third = 0] = drawn(0, 7, 28)
    expect((third - first) / (second - first)).toBeCloseTo(4)
    expect(first).toBeGreaterThan(frame.from)
    expect(third).toBeLessThan(frame.to)
    expect(frame.to).toBeLessThan(400)
  })

  it('has one scale for both sides', () => {
    const [left, right] = [onDays(0, 14), onDays(7, 21)]
    const span = spanOf([{ points: left }, { points: right }])
    const [, leftLast = 0] = columnsOf(frame, left, span)
    const [rightFirst = 0] = columnsOf(frame, right, span)
    expect(rightFirst).toBeLessThan(leftLast)
    expect(columnsOf(frame, onDays(14), span)[0]).toBeCloseTo(leftLast)
  })

  it('keeps holds of one day apart, in order and inside, however many there are', () => {
    for (const days of [
      [0, 0, 30, 30, 30],
      Array.from({ length: 60 }, (_, day) => (day < 30 ? 0 : day)),
      [3],
      [5, 5],
    ]) {
      const columns = drawn(...days)
      const gaps = columns.slice(1).map((column, index) => column - (columns[index] ?? 0))
      for (const gap of gaps) expect(gap).toBeGreaterThan(2.9)
      for (const column of columns) {
        expect(column).toBeGreaterThan(frame.from)
        expect(column).toBeLessThan(frame.to)
      }
      for (const gap of gaps) expect(barOf(columns)).toBeLessThan(gap)
    }
  })

  it('dates as many holds as have room, the last among them', () => {
    expect([...datedOf(drawn(0, 20, 40, 60))].sort()).toEqual([0, 1, 2, 3])
    const columns = drawn(...Array.from({ length: 60 }, (_, day) => day))
    const dated = [...datedOf(columns)].sort((a, b) => a - b)
    expect(dated).toContain(59)
    const [first = 0, second = 0] = dated
    expect((columns[second] ?? 0) - (columns[first] ?? 0)).toBeGreaterThanOrEqual(46)
  })

  it('fills the bars at ten and is flat at none', () => {
    expect(discomfortHeight(0)).toBe(0)
    expect(discomfortHeight(10)).toBe(CHART.bars)
  })

  it('has room for the longest name of a rung', () => {
    expect(frame.from).toBe(78)
    const long = 'high, chair in front, strap'
    expect(frameOf(400, ['free', long]).from).toBeGreaterThan(6 * long.length)
  })

  it('descends as support lessens', () => {
    expect(rungHeight(3, 6)).toBeGreaterThan(rungHeight(2, 6))
    expect(staircase(frame, [100, 200], [10, 20])).toBe(
      `M${frame.from.toFixed(1)} 10.0H150.0L150.0 20.0H${frame.to.toFixed(1)}`,
    )
  })

  it('breaks the stair where nothing held the body up', () => {
    expect(staircase(frame, [100, 200, 300], [10, null, 20]).match(/M/g)).toHaveLength(2)
  })

  it('draws higher support higher, by what was leaned on or else by the seat', () => {
    const seated = (seat_cm: number | null) => ({
      support_cm: null,
      support: '',
      seat_cm,
      less_support: null,
    })
    const held = { support_cm: 12, support: 'Foot block', seat_cm: 45, less_support: 'up' as const }
    expect(supportsOf([seated(45), held])).toEqual({ what: 'Foot block', heights: [null, 12], less: 'up' })
    const before = { ...held, support_cm: 23, support: 'Under the knee', less_support: 'down' as const }
    expect(supportsOf([before, held])).toEqual({ what: 'Foot block', heights: [null, 12], less: 'up' })
    expect(supportsOf([seated(45), seated(50)])).toEqual({ what: '', heights: [45, 50], less: 'down' })
    expect(supportsOf([seated(null)])).toBeNull()
    expect(supportHeight(45, [45, 50], 'down')).toBeGreaterThan(supportHeight(50, [45, 50], 'down'))
    // A block under the foot takes more the higher it is.
    expect(supportHeight(23, [15, 23], 'up')).toBeGreaterThan(supportHeight(15, [15, 23], 'up'))
    expect(supportHeight(45, [45, null], 'down')).toBeLessThan(
      CHART.top + CHART.bars + CHART.gap + CHART.stairs + CHART.support,
    )
  })
})

describe('the table of responses', () => {
  it('shows the newest first and left before right on one day', () => {
    const rows = tableRows({
      shared: false,
      left: lane('left', [point('2026-11-01', 1), point('2026-11-08', 2)]),
      right: lane('right', [point('2026-11-08', 0)]),
    })
    expect(rows.map((row) => `${row.point.date} ${row.side}`)).toEqual([
      '2026-11-08 left',
      '2026-11-08 right',
      '2026-11-01 left',
    ])
  })

  it('tells a hold of both legs once, and what was said of one side alone as its own', () => {
    const rows = tableRows({
      shared: true,
      left: lane('left', [point('2026-11-08', 2)]),
      right: lane('right', [point('2026-11-01', 3), point('2026-11-08', 2)]),
    })
    expect(rows.map((row) => `${row.point.date} ${row.side}`)).toEqual([
      '2026-11-08 both',
      '2026-11-01 right',
    ])
  })
})

describe('mornings nobody has told of', () => {
  const held = (id: string, date: string, settled: boolean | null) =>
    ({ id, date, settled, short: id }) as Schemas['ResponsePoint']
  const family = (shared: boolean, left: Schemas['ResponsePoint'][], right: Schemas['ResponsePoint'][]) =>
    ({ shared, left: lane('left', left), right: lane('right', right) }) as Schemas['ResponseFamily']

  it('are those of earlier days that are open, oldest first', () => {
    const one = family(
      false,
      [held('a', '2026-11-08', null), held('b', '2026-11-10', null)],
      [held('c', '2026-11-01', null), held('d', '2026-11-08', true)],
    )
    expect(openMornings([one], '2026-11-10').map(({ id, side }) => [id, side])).toEqual([
      ['c', 'right'],
      ['a', 'left'],
    ])
  })

  it('are asked about once where both legs share a shape', () => {
    const shared = family(true, [held('a', '2026-11-08', null)], [held('a2', '2026-11-08', null)])
    expect(openMornings([shared], '2026-11-10').map(({ id, side }) => [id, side])).toEqual([['a', 'both']])
  })
})

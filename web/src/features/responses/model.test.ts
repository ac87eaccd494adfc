import { describe, expect, it } from 'vitest'
import type { Schemas } from '../../api/client'
import {
  CHART,
  columnOf,
  discomfortHeight,
  frameOf,
  isDated,
  openMornings,
  rungHeight,
  staircase,
  tableRows,
} from './model'

const point = (date: string, rung: number) => ({ date, rung, id: date }) as Schemas['ResponsePoint']
const lane = (side: 'left' | 'right', points: Schemas['ResponsePoint'][]) =>
  ({ side, points }) as Schemas['ResponseLane']

describe('the chart of responses', () => {
  const frame = frameOf(400, ['free', 'on end'])

  it('keeps every hold inside the drawing and in order', () => {
    const columns = [0, 1, 2].map((index) => columnOf(frame, index, 3))
    expect(columns).toEqual([...columns].sort((a, b) => a - b))
    expect(columns[0]).toBeGreaterThan(frame.from)
    expect(columns[2]).toBeLessThan(frame.to)
    expect(frame.to).toBeLessThan(400)
  })

  it('dates as many holds as have room, the last among them', () => {
    const dated = (count: number) =>
      Array.from({ length: count }, (_, index) => index).filter((index) => isDated(frame, index, count))
    expect(dated(4)).toEqual([0, 1, 2, 3])
    expect(dated(60)).toContain(59)
    const [first = 0, second = 0] = dated(60)
    expect(columnOf(frame, second, 60) - columnOf(frame, first, 60)).toBeGreaterThanOrEqual(46)
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
    expect(staircase(frame, [{ rung: 0 }, { rung: 1 }], 6).match(/H/g)).toHaveLength(2)
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

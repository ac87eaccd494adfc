import { describe, expect, it } from 'vitest'
import type { Schemas } from '../../api/client'
import { CHART, columnOf, discomfortHeight, roomBeside, rungHeight, staircase, tableRows } from './model'

const point = (date: string, rung: number) => ({ date, rung, id: date }) as Schemas['ResponsePoint']
const lane = (side: 'left' | 'right', points: Schemas['ResponsePoint'][]) =>
  ({ side, points }) as Schemas['ResponseLane']

describe('the chart of responses', () => {
  it('keeps every hold inside the drawing and in order', () => {
    const columns = [0, 1, 2].map((index) => columnOf(index, 3))
    expect(columns).toEqual([...columns].sort((a, b) => a - b))
    expect(columns[0]).toBeGreaterThan(CHART.left)
    expect(columns[2]).toBeLessThan(CHART.width - CHART.right)
  })

  it('fills the bars at ten and is flat at none', () => {
    expect(discomfortHeight(0)).toBe(0)
    expect(discomfortHeight(10)).toBe(CHART.bars)
  })

  it('has room for the longest name of a rung', () => {
    expect(roomBeside(['free', 'on end'])).toBe(0)
    const long = 'high, chair in front, strap'
    expect(CHART.left + roomBeside(['free', long])).toBeGreaterThan(6 * long.length)
  })

  it('descends as support lessens', () => {
    expect(rungHeight(3, 6)).toBeGreaterThan(rungHeight(2, 6))
    expect(staircase([{ rung: 0 }, { rung: 1 }], 6).match(/H/g)).toHaveLength(2)
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

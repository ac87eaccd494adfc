import i18next from 'i18next'
import { describe, expect, it } from 'vitest'
import { start } from '../../common/i18n/start'
import {
  against,
  columnAt,
  densePosition,
  doseFrom,
  goesOtherWay,
  isBeyond,
  indicesOf,
  nearestTo,
  onRuler,
  purposeAt,
  reading,
  setupFrom,
  stepTo,
  verdictAt,
} from './model'

start('en')
const t = i18next.t

const grid = {
  shape: [2, 3],
  letters: { c: 'clear', s: 'with_setup', q: 'check_first', x: 'leave_out' } as const,
  verdicts: 'c.sxqs',
  figure_letters: 'ab',
  purpose: { values: [70, 84], at: 'a.baba' },
  purpose_band: [70, 95],
  columns: { wide: { values: [-3, 0, 12], at: 'aa..abbaaaab' } },
}
const scale = (boundary: number, at_least = false) =>
  ({ boundary, at_least, unit: 'deg', rounded_to: 5 }) as const
const share = (boundary: number) => ({ boundary, at_least: false, unit: 'percent', rounded_to: 1 }) as const
const axis = (name: string, numbers: number[]) => ({
  name,
  label: name,
  side: null,
  kind: 'stack' as const,
  less_support: 'down' as const,
  choices: numbers.map((number) => ({ label: '', number, value: { stack: null, number, choice: null } })),
})
const axes = [axis('seat', [45, 49]), axis('block', [0, 10, 15])]

describe('the grid of set-ups', () => {
  it('runs fastest along its last axis', () => {
    expect(densePosition([2, 3], [1, 2])).toBe(5)
    expect(verdictAt(grid, [0, 0])).toBe('clear')
    expect(verdictAt(grid, [1, 1])).toBe('check_first')
  })

  it('treats an axis of one as fixed, whatever is chosen on it', () => {
    expect(densePosition([2, 1], [1, 1])).toBe(1)
  })

  it('has a figure for what can be built, in as many letters as there are figures for', () => {
    expect([0, 1, 2].map((block) => purposeAt(grid, [0, block]))).toEqual([70, undefined, 84])
    expect([0, 1, 2].map((block) => columnAt(grid, 'wide', [0, block]))).toEqual([-3, undefined, 0])
    expect(columnAt(grid, 'wide', [1, 0])).toBe(12)
    expect(columnAt(grid, 'unknown', [1, 0])).toBeUndefined()
    expect(purposeAt({ ...grid, purpose: null }, [0, 0])).toBeUndefined()
  })

  it('steps over what the room cannot build', () => {
    expect(stepTo(axes, grid, [0, 0], 1, 1)).toBe(2)
    expect(stepTo(axes, grid, [0, 0], 1, -1)).toBeNull()
    expect(stepTo(axes, grid, [1, 0], 1, 1)).toBe(1)
  })

  it('takes the nearest figure that can be built with the rest', () => {
    expect(nearestTo(axes, grid, [1, 0], 1, 12)).toBe(1)
    expect(nearestTo(axes, grid, [0, 0], 1, 9)).toBe(2)
    expect(nearestTo(axes, grid, [1, 0], 1, 99)).toBe(2)
  })

  it('sends the value of every choice', () => {
    expect(setupFrom(axes, [1, 2])['block']?.number).toBe(15)
  })
})

describe('what was chosen and kept', () => {
  it('is found again on axes that changed in between', () => {
    const kept = setupFrom(axes, [1, 1])
    const grown = [axis('seat', [43, 45, 49]), axis('block', [10, 15])]
    expect(indicesOf(grown, kept)).toEqual([2, 0])
    expect(indicesOf(axes, undefined)).toBeUndefined()
  })

  it('falls to the first choice where the room has it no longer', () => {
    expect(indicesOf([axis('seat', [43, 45])], setupFrom(axes, [1, 0]))).toEqual([0])
  })

  it('is held for a dose the rung has', () => {
    const doses = [25, 50, 75].map((seconds) => ({ seconds, words: '' }))
    expect(doseFrom(doses, 50)).toBe(50)
    expect(doseFrom(doses, 60)).toBe(50)
    expect(doseFrom(doses, 10)).toBe(25)
    expect(doseFrom(doses, undefined)).toBe(25)
  })
})

describe('a ruler', () => {
  it('never rounds a value across its boundary', () => {
    expect(against(t, 91, scale(90))).toBe('just over 90°')
    expect(against(t, 88, scale(87))).toBe('90°')
    expect(against(t, 86, scale(86.5))).toBe('85°')
    expect(against(t, 89, scale(89.5))).toBe('just under 90°')
  })

  it('takes a boundary that must be kept the other way round', () => {
    expect(against(t, 4, scale(5, true))).toBe('just under 5°')
    expect(against(t, 6, scale(5, true))).toBe('5°')
    expect(against(t, 2, scale(5, true))).toBe('0°')
    expect([isBeyond(4, 5, true), isBeyond(5, 5, true), isBeyond(6, 5, true)]).toEqual([true, false, false])
    expect([isBeyond(4, 5, false), isBeyond(5, 5, false), isBeyond(6, 5, false)]).toEqual([
      false,
      false,
      true,
    ])
  })

  it('reads shares to one per cent', () => {
    expect(against(t, 97.4, share(100))).toBe('97 %')
    expect(against(t, 100.2, share(100))).toBe('just over 100 %')
  })

  it('names what goes the other way and leaves out the limit of this way', () => {
    const back = { ...scale(15), opposite: 'hollowing' }
    expect(reading(t, -38, back)).toBe('hollowing 40°')
    expect(goesOtherWay(-38, back)).toBe(true)
    // Less than is shown is none.
    expect(reading(t, -1, back)).toBe('0°')
    expect(reading(t, 12, back)).toBe('10°')
    expect(reading(t, -38, { ...back, opposite: null })).toBe('-40°')
  })

  it('stays on its scale', () => {
    expect(onRuler(-4)).toBe(0)
    expect(onRuler(75)).toBe(50)
    expect(onRuler(400)).toBe(100)
  })
})

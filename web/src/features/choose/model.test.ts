import { describe, expect, it } from 'vitest'
import type { Schemas } from '../../api/client'
import {
  ANY,
  countOf,
  type Family,
  type Filters,
  fits,
  inOrder,
  isOpen,
  type Ladder,
  lastOf,
  levelsOf,
  type Rung,
} from './model'

const rung = (more: Partial<Rung> = {}) =>
  ({
    variation: 'a.one',
    verdict: 'clear',
    level: 'seated',
    seconds: 60,
    drawn: true,
    last: null,
    here: false,
    offered: false,
    ...more,
  }) as Rung

const ladder = (
  left: Rung[],
  right: Rung[] = left,
  more: Partial<Ladder> & { action?: Schemas['DecisionOut']['action'] } = {},
) => {
  const lane = (rungs: Rung[]) => ({ rungs, decision: { action: more.action ?? 'not_tried' } })
  return {
    family: 'a',
    shared: false,
    rungs: left,
    left: lane(left),
    right: lane(right),
    ...more,
  } as unknown as Ladder
}

const only = (filters: Partial<Filters>): Filters => ({ ...ANY, ...filters })
const line = (family: string, last: string | null = null) => ({ family, name: family, last }) as Family

describe('what is open', () => {
  it('is open by the limits, on a ladder that does not rest', () => {
    expect(isOpen(rung(), 'stay')).toBe(true)
    expect(isOpen(rung({ verdict: 'with_eye' }), 'not_tried')).toBe(true)
    expect(isOpen(rung({ verdict: 'check_first' }), 'stay')).toBe(false)
    expect(isOpen(rung({ verdict: 'leave_out' }), 'stay')).toBe(false)
    expect(isOpen(rung(), 'leave_out')).toBe(false)
  })

  it('is counted on both sides, and once where both legs share it', () => {
    const rungs = [rung(), rung({ verdict: 'leave_out' })]
    expect(countOf(ladder(rungs), ANY)).toBe(2)
    expect(countOf(ladder(rungs, rungs, { shared: true }), ANY)).toBe(1)
    expect(countOf(ladder(rungs), only({ open: false }))).toBe(4)
    expect(countOf(ladder(rungs, rungs, { action: 'leave_out' }), ANY)).toBe(0)
  })
})

describe('what the list is narrowed to', () => {
  it('leaves what is done on a chair, off the floor, and with what the room has', () => {
    expect(fits(rung({ level: 'standing' }), 2, only({ chair: true }))).toBe(false)
    expect(fits(rung({ level: 'seated' }), 2, only({ chair: true }))).toBe(true)
    for (const level of ['floor', 'lying'] as const)
      expect(fits(rung({ level }), 2, only({ noFloor: true }))).toBe(false)
    expect(fits(rung({ level: 'bed' }), 2, only({ noFloor: true }))).toBe(true)
    expect(fits(rung({ drawn: false }), 2, only({ shelf: true }))).toBe(false)
  })

  it('counts the minutes of both sides, the last one in it', () => {
    expect(fits(rung({ seconds: 60 }), 2, only({ minutes: 2 }))).toBe(true)
    expect(fits(rung({ seconds: 61 }), 2, only({ minutes: 2 }))).toBe(false)
    expect(fits(rung({ seconds: 120 }), 1, only({ minutes: 2 }))).toBe(true)
  })
})

describe('the order of the list', () => {
  const lines = [line('a'), line('b'), line('c', '2026-11-20'), line('d', '2026-11-25')]
  const judged = new Map([
    ['a', ladder([rung({ verdict: 'leave_out' })])],
    ['b', ladder([rung()])],
    ['c', ladder([rung({ verdict: 'leave_out' })])],
    ['d', ladder([rung({ verdict: 'leave_out' })])],
  ])
  const names = (found: Family[]) => found.map(({ family }) => family).join('')

  it('has what was done last first, then what is most open', () => {
    expect(names(inOrder(lines, judged))).toBe('dcba')
  })

  it('moves nothing while some are not judged yet', () => {
    expect(names(inOrder(lines, new Map([...judged].slice(0, 3))))).toBe('dcab')
  })
})

describe('a line', () => {
  it('tells of the last time on any rung of the side', () => {
    const early = { date: '2026-11-01', tolerance: 'calm' } as const
    const late = { date: '2026-11-20', tolerance: 'watch' } as const
    const rungs = [rung({ last: early }), rung({ last: late }), rung()]
    expect(lastOf(ladder(rungs).left)).toEqual(late)
    expect(lastOf(ladder([rung()]).left)).toBeNull()
  })

  it('says where it is done: by what is open, or by everything where nothing is', () => {
    const closed = rung({ verdict: 'leave_out', level: 'floor' })
    expect(levelsOf(ladder([rung(), closed]))).toEqual(['seated'])
    expect(levelsOf(ladder([closed]))).toEqual(['floor'])
  })
})

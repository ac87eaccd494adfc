import { describe, expect, it } from 'vitest'
import type { Schemas } from '../api/client'
import { familiesFrom, rungsFrom, startingRung } from './ladders'

type Decision = Partial<Schemas['DecisionOut']>

function ladder(decision: Decision, verdicts: [Schemas['Verdict'], number][]): Schemas['LadderOut'] {
  const rungs = verdicts.map(([verdict, cautions], index) => ({
    variation: `f.${index.toString()}`,
    verdict,
    cautions,
  }))
  const lane = { decision: { action: 'stay', step: null, here: null, ...decision }, rungs }
  return { left: lane, right: lane } as unknown as Schemas['LadderOut']
}

const step = (variation: string) => ({ variation }) as Schemas['StepOut']

describe('where a side starts today', () => {
  const three: [Schemas['Verdict'], number][] = [
    ['clear', 0],
    ['with_setup', 0],
    ['clear', 2],
  ]

  it('is the offered step', () => {
    expect(startingRung(ladder({ action: 'offer', step: step('f.2'), here: 'f.1' }, three), 'left')).toBe(
      'f.2',
    )
  })

  it('is where it stands when nothing else was decided', () => {
    expect(startingRung(ladder({ here: 'f.0' }, three), 'left')).toBe('f.0')
  })

  it('is the furthest rung without a caution for somebody new', () => {
    expect(startingRung(ladder({ action: 'not_tried' }, three), 'right')).toBe('f.1')
  })

  it('is never a rung that is closed today', () => {
    const closed: [Schemas['Verdict'], number][] = [
      ['clear', 0],
      ['leave_out', 0],
    ]
    expect(startingRung(ladder({ here: 'f.1' }, closed), 'left')).toBe('f.0')
  })

  it('is the most held up rung after two flares', () => {
    expect(startingRung(ladder({ action: 'leave_out', here: 'f.2' }, three), 'left')).toBe('f.0')
  })
})

describe('which rungs are set up', () => {
  const named = (family: string, action: Decision['action']) => {
    const one = ladder({ action }, [['clear', 0]])
    const rename = (lane: Schemas['LaneOut']) => ({
      ...lane,
      rungs: lane.rungs.map((rung) => ({ ...rung, variation: `${family}.0` })),
    })
    return {
      ...one,
      family,
      rungs: [{ id: `${family}.0` }],
      left: rename(one.left),
      right: rename(one.right),
    }
  }
  const both = [named('fold', 'not_tried'), named('four', 'stay')] as unknown as Schemas['LadderOut'][]
  const lines = [
    { family: 'fold', last: null },
    { family: 'four', last: '2026-11-20' },
  ] as unknown as Schemas['FamilyLine'][]

  const chosen = (address: string) => {
    const search = new URLSearchParams(address)
    return rungsFrom(both, familiesFrom(lines, search), search)
  }

  it('are those of the ladder that was worked on', () => {
    expect(chosen('')).toEqual({ left: 'four.0', right: 'four.0' })
  })

  it('are those of the address, the other side on the same ladder', () => {
    expect(chosen('right=fold.0')).toEqual({ left: 'fold.0', right: 'fold.0' })
    expect(chosen('left=fold.0')).toEqual({ left: 'fold.0', right: 'fold.0' })
  })

  it('come from the ladder their own side names, and from the other’s only where theirs names none', () => {
    const opened = (address: string) => familiesFrom(lines, new URLSearchParams(address))
    expect(opened('left=fold.0&right=four.0')).toEqual({ left: 'fold', right: 'four' })
    expect(opened('left=four.0&right=fold.0')).toEqual({ left: 'four', right: 'fold' })
    expect(opened('left=fold.')).toEqual({ left: 'fold', right: 'fold' })
    expect(opened('')).toEqual({ left: 'four', right: 'four' })
  })

  it('may come from two ladders', () => {
    expect(chosen('left=four.0&right=fold.0')).toEqual({ left: 'four.0', right: 'fold.0' })
  })
})

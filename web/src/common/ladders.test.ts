import { describe, expect, it } from 'vitest'
import type { Schemas } from '../api/client'
import { startingRung } from './ladders'

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

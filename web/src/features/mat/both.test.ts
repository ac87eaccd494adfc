import { describe, expect, it } from 'vitest'
import { isTried, keptOf, newTrial, trialFrom } from './both'

const REST = { stack: null, number: null, choice: 'at_rest' }
const DRAWN = { stack: null, number: null, choice: 'drawn_up' }
const way = { slot: 'foot', setup: { foot: DRAWN } }
const felt = (a: number | null, b: number | null) => ({ ...newTrial(way), felt: { a, b } })

describe('both ways', () => {
  it('keeps the calmer, and between equals what is planned', () => {
    expect(keptOf(felt(3, 1))).toBe('b')
    expect(keptOf(felt(1, 3))).toBe('a')
    expect(keptOf(felt(2, 2))).toBe('a')
    expect(keptOf(felt(0, 0))).toBe('a')
  })

  it('keeps nothing before both were felt, whatever was chosen', () => {
    expect(keptOf(felt(3, null))).toBeNull()
    expect(keptOf({ ...felt(null, 1), chosen: 'b' })).toBeNull()
    expect(trialFrom(felt(null, 0), { variation: 'x' }, {}, 'left')).toBeNull()
  })

  it('lets the therapist keep the other one', () => {
    expect(keptOf({ ...felt(3, 1), chosen: 'a' })).toBe('a')
  })

  it('sends the set-up of the first and the value of the other', () => {
    const trying = felt(3, 1)
    expect(trialFrom(trying, { variation: 'x' }, { foot: REST }, 'right')).toEqual({
      id: trying.id,
      variation: 'x',
      side: 'right',
      slot: 'foot',
      setup: { foot: REST },
      other: DRAWN,
      felt_a: 3,
      felt_b: 1,
      kept: 'b',
    })
  })

  it('tells the ways of one slot apart by their values', () => {
    const higher = { slot: 'hands', setup: { hands: { stack: null, number: 15, choice: null } } }
    const lower = { slot: 'hands', setup: { hands: { stack: null, number: 5, choice: null } } }
    expect(isTried(newTrial(higher), higher)).toBe(true)
    expect(isTried(newTrial(higher), lower)).toBe(false)
  })
})

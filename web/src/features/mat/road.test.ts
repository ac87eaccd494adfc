import { describe, expect, it } from 'vitest'
import type { Schemas } from '../../api/client'
import { firstOpen, isDone, isThere, nextOf, past, secondsLeft } from './road'

type Family = Schemas['MatFamily']
/** Rounds logged of rounds planned; nothing where a side is not planned. */
type Rounds = [number, number] | null

function part(rounds: Rounds): Schemas['MatSide'] | null {
  if (rounds === null) return null
  return { rounds: rounds[1], logged_today: Array.from({ length: rounds[0] }) } as Schemas['MatSide']
}

function family(name: string, left: Rounds, right: Rounds = null, shared = false): Family {
  return { family: name, name, shared, seconds: 60, left: part(left), right: part(right) }
}

const at = (name: string, lane: 'left' | 'right' | 'both') => ({ family: name, lane })

describe('the road beside the mat', () => {
  it('goes left, right, and on to the next pose', () => {
    expect(nextOf([family('a', [1, 1], [0, 1])], at('a', 'left'))).toEqual(at('a', 'right'))
    const two = [family('a', [1, 1], [1, 1]), family('b', [0, 1], null, true)]
    expect(nextOf(two, at('a', 'right'))).toEqual(at('b', 'both'))
    expect(nextOf([family('a', [1, 1], [1, 1])], at('a', 'right'))).toBe('summary')
  })

  it('goes in turn while there are rounds, and round again where one side has more', () => {
    expect(nextOf([family('a', [1, 2], [0, 2])], at('a', 'left'))).toEqual(at('a', 'right'))
    expect(nextOf([family('a', [1, 2], [1, 2])], at('a', 'right'))).toEqual(at('a', 'left'))
    expect(nextOf([family('a', [1, 3], [1, 1])], at('a', 'left'))).toEqual(at('a', 'left'))
    expect(nextOf([family('a', [1, 2], null, true)], at('a', 'both'))).toEqual(at('a', 'both'))
  })

  it('leaves out a side that is not planned', () => {
    const poses = [family('a', [1, 1]), family('b', null, [0, 1])]
    expect(nextOf(poses, at('a', 'left'))).toEqual(at('b', 'right'))
  })

  it('skips a side to the other one, and both to the next pose', () => {
    const poses = [family('a', [0, 1], [0, 1]), family('b', [0, 1], null, true)]
    expect(past(poses, at('a', 'left'))).toEqual(at('a', 'right'))
    expect(past(poses, at('a', 'right'))).toEqual(at('b', 'both'))
    expect(past(poses, at('b', 'both'))).toBe('summary')
    expect(past([family('a', [0, 1], [1, 1])], at('a', 'left'))).toBe('summary')
  })

  it('goes on after a break with the first side that has a round to go', () => {
    expect(firstOpen([family('a', [1, 1], [1, 1]), family('b', [1, 1], [0, 1])])).toEqual(at('b', 'right'))
    expect(firstOpen([family('a', [1, 1], [1, 1])])).toBe('summary')
    expect(isDone(family('a', [1, 1], [0, 1]))).toBe(false)
  })

  it('counts what is left from here on, without what is done', () => {
    const poses = [family('a', [0, 1]), family('b', [1, 1]), family('c', [0, 1])]
    expect(secondsLeft(poses, 'arrival')).toBe(120)
    expect(secondsLeft(poses, at('b', 'left'))).toBe(60)
    expect(secondsLeft(poses, 'summary')).toBe(0)
  })

  it('knows a place that was taken out of the plan', () => {
    expect(isThere([family('a', [0, 1])], at('a', 'left'))).toBe(true)
    expect(isThere([family('a', [0, 1])], at('a', 'right'))).toBe(false)
    expect(isThere([], at('a', 'left'))).toBe(false)
    expect(isThere([], 'summary')).toBe(true)
  })
})

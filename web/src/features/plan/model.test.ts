import { describe, expect, it } from 'vitest'
import type { Schemas } from '../../api/client'
import { bodyOf, editsOf, inOrder, moved, onto, shownPoses, sinceOf } from './model'
import { part, plan, pose } from './testing'

describe('moving', () => {
  it('puts one at another place and leaves the rest in their order', () => {
    expect(moved(['a', 'b', 'c', 'd'], 0, 2)).toEqual(['b', 'c', 'a', 'd'])
    expect(moved(['a', 'b', 'c', 'd'], 3, 0)).toEqual(['d', 'a', 'b', 'c'])
    expect(moved(['a'], 4, 0)).toEqual(['a'])
  })

  it('takes an order and keeps what it does not name at the end', () => {
    const edits = editsOf(plan([pose('a'), pose('b'), pose('c')]))
    expect(inOrder(edits, ['c', 'a']).map(({ family }) => family)).toEqual(['c', 'a', 'b'])
  })
})

describe('what is sent', () => {
  it('names only the sides that are planned', () => {
    const one = pose('a', { right: null, fixed: true })
    expect(bodyOf(4, editsOf(plan([one])))).toEqual({
      version: 4,
      poses: [{ family: 'a', fixed: true, left: { dose_s: 30, rounds: 1 } }],
    })
    expect(bodyOf(4, [], 45)).toEqual({ version: 4, poses: [], minutes: 45 })
  })

  it('goes on top of what somebody else changed: nothing gone comes back, nothing new is lost', () => {
    const mine = editsOf(plan([pose('b'), pose('a')]))
    const theirs = plan([pose('a'), pose('c')])
    expect(onto(mine, theirs).map(({ family }) => family)).toEqual(['a', 'c'])
  })
})

describe('what is shown', () => {
  const stored = plan([pose('a'), pose('b')])

  it('is what is stored while nothing was changed', () => {
    expect(shownPoses(stored, null)).toBe(stored.poses)
  })

  it('is the order, the doses and the sides of what was changed', () => {
    const [a, b] = editsOf(stored)
    if (a === undefined || b === undefined) throw new Error('two poses')
    const shown = shownPoses(stored, [b, { ...a, right: null, left: { dose_s: 40, rounds: 2 } }])
    expect(shown.map(({ family }) => family)).toEqual(['b', 'a'])
    expect(shown[1]?.right).toBeNull()
    expect(shown[1]?.left).toMatchObject({ dose_s: 40, dose: '40 s', rounds: 2 })
  })
})

describe('what differs from last time', () => {
  const of = (left: Partial<Schemas['PlannedPart']> | null, right: Partial<Schemas['PlannedPart']> | null) =>
    sinceOf(
      pose('a', { left: left === null ? null : part(left), right: right === null ? null : part(right) }),
    ).map(({ side, text }) => [side, text])

  it('is said once where both sides say the same', () => {
    expect(of({ since: 'same' }, { since: 'same' })).toEqual([['both', 'same']])
  })

  it('is said of each side where they differ, and of the one there is', () => {
    expect(of({ since: 'same' }, { since: 'longer' })).toEqual([
      ['left', 'same'],
      ['right', 'longer'],
    ])
    expect(of(null, { since: 'longer' })).toEqual([['right', 'longer']])
    expect(of(null, null)).toEqual([])
  })
})

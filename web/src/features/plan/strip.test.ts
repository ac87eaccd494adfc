import { describe, expect, it } from 'vitest'
import type { Schemas } from '../../api/client'
import { stripOf } from './strip'

type Piece = Schemas['PieceOut']
const LEVELS = ['standing', 'seated', 'floor'] as const

function hold(pose: number, start_s: number, end_s: number, own: Partial<Piece> = {}): Piece {
  return { kind: 'hold', start_s, end_s, level: 'seated', pose, side: null, came_from: null, ...own }
}

function change(start_s: number, end_s: number, own: Partial<Piece> = {}): Piece {
  return {
    kind: 'change',
    start_s,
    end_s,
    level: 'seated',
    pose: 0,
    side: null,
    came_from: 'standing',
    ...own,
  }
}

describe('a session as a strip', () => {
  it('fills the width with the time there is, or with the session where that is longer', () => {
    const pieces = [hold(0, 0, 600)]
    expect(stripOf(pieces, LEVELS, 20, 0, 100).blocks[0]).toMatchObject({ x: 0, width: 50 })
    expect(stripOf(pieces, LEVELS, 5, 0, 100)).toMatchObject({ end: 50, blocks: [{ width: 100 }] })
  })

  it('has a block for each hold in its lane, named at the first of a pose', () => {
    const sides = [hold(0, 0, 60, { side: 'left' }), hold(0, 80, 140, { side: 'right' }), hold(1, 200, 260)]
    const { blocks } = stripOf(sides, LEVELS, 10, 0, 600)
    expect(blocks.map(({ pose, lane, first }) => [pose, lane, first])).toEqual([
      [0, 'left', true],
      [0, 'right', false],
      [1, 'both', true],
    ])
    // A name may run on until the next pose begins.
    expect(blocks[0]?.room).toBe(200)
  })

  it('goes from level to level, and marks each way to the floor and up', () => {
    const pieces = [
      change(0, 60, { level: 'floor' }),
      hold(0, 60, 120, { level: 'floor' }),
      change(120, 180, { level: 'standing', came_from: 'floor' }),
    ]
    const { line, trips } = stripOf(pieces, LEVELS, 3, 0, 180)
    expect(line.map(({ level }) => level)).toEqual([0, 2, 2, 0])
    expect(trips).toEqual([
      { x: 60, level: 2, down: true },
      { x: 180, level: 0, down: false },
    ])
  })

  it('has ticks that do not crowd', () => {
    const minutes = (of: number) => stripOf([], LEVELS, of, 0, 900).ticks.map(({ minute }) => minute)
    expect(minutes(20)).toEqual([0, 5, 10, 15, 20])
    expect(minutes(45)).toEqual([0, 10, 20, 30, 40])
    expect(minutes(120)).toEqual([0, 30, 60, 90, 120])
  })
})

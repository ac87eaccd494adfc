import { describe, expect, it } from 'vitest'
import { against, densePosition, onRuler, setupFrom, stepTo, verdictAt } from './model'

const grid = { shape: [2, 3], verdicts: 'c.sxqs', cautions: [], purpose: [], columns: {} }
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

  it('steps over what the room cannot build', () => {
    expect(stepTo(axes, grid, [0, 0], 1, 1)).toBe(2)
    expect(stepTo(axes, grid, [0, 0], 1, -1)).toBeNull()
    expect(stepTo(axes, grid, [1, 0], 1, 1)).toBe(1)
  })

  it('sends the value of every choice', () => {
    expect(setupFrom(axes, [1, 2])['block']?.number).toBe(15)
  })
})

describe('a ruler', () => {
  it('never rounds a value across its boundary', () => {
    expect(against(91, 90)).toBe('just over 90°')
    expect(against(88, 87)).toBe('90°')
    expect(against(86, 86.5)).toBe('85°')
    expect(against(89, 89.5)).toBe('just under 90°')
  })

  it('reads shares to one per cent', () => {
    expect(against(97.4, 100, 'percent')).toBe('97 %')
    expect(against(100.2, 100, 'percent')).toBe('just over 100 %')
  })

  it('stays on its scale', () => {
    expect(onRuler(-4)).toBe(0)
    expect(onRuler(75)).toBe(50)
    expect(onRuler(400)).toBe(100)
  })
})

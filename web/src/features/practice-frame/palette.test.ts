import { describe, expect, it } from 'vitest'
import { type Entry, matching } from './palette'

const entry = (label: string, group: Entry['group'] = 'screens', more?: string): Entry => ({
  id: label,
  group,
  label,
  more,
  run: () => undefined,
})
const names = (entries: Entry[]) => entries.map(({ label }) => label)

describe('what is found', () => {
  const all = [
    entry('Set up'),
    entry('Measures'),
    entry('Bound angle', 'ladders', 'Inner thighs'),
    entry('Up-dog', 'ladders'),
  ]

  it('has every word somewhere, however it is written', () => {
    expect(names(matching(all, 'INNER bound'))).toEqual(['Bound angle'])
    expect(names(matching([entry('Señal')], 'senal'))).toEqual(['Señal'])
    expect(matching(all, 'inner measures')).toEqual([])
  })

  it('is everything while nothing was typed', () => {
    expect(matching(all, '  ')).toHaveLength(4)
  })

  it('begins with what begins so, group by group', () => {
    expect(names(matching([entry('Group up'), entry('Up'), ...all], 'up'))).toEqual([
      'Up',
      'Group up',
      'Set up',
      'Up-dog',
    ])
  })
})

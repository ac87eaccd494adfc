import { describe, expect, it } from 'vitest'
import { EMPTY_DRAFT, numberFrom, readingsFrom } from './model'

describe('typed readings', () => {
  it('are read with point or comma', () => {
    expect(numberFrom('171,5')).toBe(171.5)
    expect(numberFrom(' 62 ')).toBe(62)
  })

  it('are refused when they are no number', () => {
    expect(numberFrom('about 60')).toBeNull()
    const { readings, problems } = readingsFrom({ ...EMPTY_DRAFT, typed: { stature: '1m74' } }, 'no')
    expect(readings).toEqual([])
    expect(problems).toEqual({ stature: 'no' })
  })

  it('carry side and method for joints and neither for the body', () => {
    const { readings } = readingsFrom(
      {
        ...EMPTY_DRAFT,
        method: 'eye',
        typed: { stature: '174', 'hip_flexion.left': '110', 'hip_flexion.right': '' },
      },
      'no',
    )
    expect(readings).toEqual([
      { quantity: 'stature', side: null, value: 174, method: '' },
      { quantity: 'hip_flexion', side: 'left', value: 110, method: 'eye' },
    ])
  })
})

import { describe, expect, it } from 'vitest'
import { EMPTY_DRAFT, numberFrom, readingsFrom, tapeFrom } from './model'

const PLAIN = { error: null, conditions: {}, pelvis_held: 'unknown', note: '' }

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
      { quantity: 'stature', side: null, value: 174, method: '', ...PLAIN },
      { quantity: 'hip_flexion', side: 'left', value: 110, method: 'eye', ...PLAIN },
    ])
  })
})

describe('a tape reading', () => {
  const field = 'open_external_rotation.left'
  const tape = { [field]: { text: '52', error: 2.4, conditions: { knee_height_cm: 20 } } }

  it('goes in with its own error and the lengths behind it', () => {
    const { readings } = readingsFrom({ ...EMPTY_DRAFT, typed: { [field]: '52' }, tape }, 'no')
    expect(readings[0]).toMatchObject({ method: 'tape', error: 2.4, conditions: { knee_height_cm: 20 } })
  })

  it('is forgotten once something else is typed in its place', () => {
    const { readings } = readingsFrom({ ...EMPTY_DRAFT, typed: { [field]: '60' }, tape }, 'no')
    expect(readings[0]).toMatchObject({ method: 'goniometer', error: null, conditions: {} })
  })

  it('waits for every length', () => {
    expect(tapeFrom('left', { 'knee.left': '20', foot: '35' })).toBeNull()
    expect(tapeFrom('left', { 'knee.left': '20', foot: '35', seat: '8,5' })).toEqual({
      side: 'left',
      knee_height_cm: 20,
      foot_distance_cm: 35,
      seat_height_cm: 8.5,
    })
  })
})

describe('a look at the low back', () => {
  it('travels with the seat it was taken on', () => {
    const { readings } = readingsFrom(
      { ...EMPTY_DRAFT, lowBack: 'rounded', typed: { sitting_seat: '10', sitting_plumb_offset: '4' } },
      'no',
    )
    expect(readings.map((reading) => reading.note)).toEqual(['rounded', ''])
  })
})

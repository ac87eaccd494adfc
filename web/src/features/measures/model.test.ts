import { describe, expect, it } from 'vitest'
import { EMPTY_DRAFT, readingsFrom, seenShapes, tapeFrom } from './model'

const PLAIN = { conditions: {}, pelvis_held: 'unknown', note: '' }
const no = (unit: string) => `no ${unit}`

describe('typed readings', () => {
  it('are refused when they are no number, each in its own unit', () => {
    const typed = { stature: '1m74', weight: 'sixty', 'hip_flexion.left': 'about 60', chair_height: '45 cm' }
    const { readings, problems } = readingsFrom({ ...EMPTY_DRAFT, typed }, no)
    expect(readings.map((reading) => reading.value)).toEqual([45])
    expect(problems).toEqual({ stature: 'no cm', weight: 'no kg', 'hip_flexion.left': 'no deg' })
  })

  it('carry side and method for joints and neither for the body', () => {
    const { readings } = readingsFrom(
      {
        ...EMPTY_DRAFT,
        method: 'eye',
        typed: { stature: '174', 'hip_flexion.left': '110', 'hip_flexion.right': '' },
      },
      no,
    )
    expect(readings).toEqual([
      { quantity: 'stature', value: 174, method: '', ...PLAIN },
      { quantity: 'hip_flexion', side: 'left', value: 110, method: 'eye', ...PLAIN },
    ])
  })
})

describe('a tape reading', () => {
  const field = 'open_external_rotation.left'
  const tape = { [field]: { text: '52', error: 2.4, conditions: { knee_height_cm: 20 } } }

  it('goes in with its own error and the lengths behind it', () => {
    const { readings } = readingsFrom({ ...EMPTY_DRAFT, typed: { [field]: '52' }, tape }, no)
    expect(readings[0]).toMatchObject({ method: 'tape', error: 2.4, conditions: { knee_height_cm: 20 } })
  })

  it('is forgotten once something else is typed in its place', () => {
    const { readings } = readingsFrom({ ...EMPTY_DRAFT, typed: { [field]: '60' }, tape }, no)
    expect(readings[0]).toEqual({
      quantity: 'open_external_rotation',
      side: 'left',
      value: 60,
      method: 'goniometer',
      ...PLAIN,
    })
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
      no,
    )
    expect(readings.map((reading) => reading.note)).toEqual(['rounded', ''])
  })
})

describe('what was seen on the mat', () => {
  const look = (value: number, date: string) =>
    ({ value, date, method: '', pelvis_held: 'unknown', note: '' }) as const

  it('stands until it is taken back, the newest first', () => {
    const shapes = seenShapes({
      'test.moves_as_one': { left: [look(1, '2026-06-01')], right: [] },
      'seen.knee_range': {
        left: [look(1, '2026-06-01')],
        right: [look(0, '2026-06-05'), look(1, '2026-06-01')],
      },
      'seen.hip_range': { left: [], right: [look(1, '2026-06-04')] },
    })
    expect(shapes).toEqual([
      { bound: 'hip_range', sides: ['right'], date: '2026-06-04' },
      { bound: 'knee_range', sides: ['left'], date: '2026-06-01' },
    ])
  })

  it('names the back once', () => {
    const both = { left: [look(1, '2026-06-01')], right: [look(1, '2026-06-01')] }
    expect(seenShapes({ 'seen.back_rounds': both })).toEqual([
      { bound: 'back_rounds', sides: ['left', 'right'], date: '2026-06-01' },
    ])
  })
})

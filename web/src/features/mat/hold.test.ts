import { describe, expect, it } from 'vitest'
import { counted, elapsedMs, faceOf, heldSeconds, NO_HOLD, paused, started } from './hold'

describe('a hold against the clock', () => {
  it('runs from its start, keeps what ran before a pause, and goes on', () => {
    const hold = started(NO_HOLD, 1000)
    expect(elapsedMs(hold, 4000)).toBe(3000)
    const rest = paused(hold, 4000)
    expect(elapsedMs(rest, 9000)).toBe(3000)
    expect(elapsedMs(started(rest, 10_000), 12_000)).toBe(5000)
    expect(started(hold, 7000)).toBe(hold)
  })

  it('is no number of seconds while no clock ran', () => {
    expect(heldSeconds(NO_HOLD, 5000)).toBeNull()
    expect(heldSeconds(started(NO_HOLD, 1000), 3600)).toBe(3)
    expect(heldSeconds(paused(started(NO_HOLD, 1000), 3000), 99_000)).toBe(2)
  })

  it('runs from the first repetition that is counted', () => {
    const two = counted(counted(NO_HOLD, 1000), 6000)
    expect(two.count).toBe(2)
    expect(heldSeconds(two, 11_000)).toBe(10)
  })
})

describe('the face of the clock', () => {
  const at = (seconds: number) => paused(started(NO_HOLD, 0), seconds * 1000)

  it('counts seconds past the end, and is full there', () => {
    const dose = { style: 'seconds', amount: 40, sets: 1, seconds: 40 } as const
    expect(faceOf(at(10), 0, dose)).toMatchObject({ figure: '10', share: 0.25, of: 40 })
    expect(faceOf(at(55), 0, dose)).toMatchObject({ figure: '55', share: 1 })
  })

  it('counts whole breaths of this client', () => {
    const dose = { style: 'breaths', amount: 6, sets: 1, seconds: 30 } as const
    expect(faceOf(at(9.9), 0, dose)).toMatchObject({ figure: '1', parts: 6 })
    expect(faceOf(at(10), 0, dose)).toMatchObject({ figure: '2' })
    expect(faceOf(at(30), 0, dose)).toMatchObject({ figure: '6', share: 1 })
  })

  it('shows minutes as a clock does', () => {
    const dose = { style: 'minutes', amount: 3, sets: 1, seconds: 180 } as const
    expect(faceOf(at(65), 0, dose).figure).toBe('1:05')
  })

  it('counts repetitions set by set', () => {
    const dose = { style: 'reps', amount: 10, sets: 3, seconds: 210 } as const
    const face = (count: number) => faceOf({ ...NO_HOLD, count }, 0, dose)
    expect(face(0)).toMatchObject({ figure: '0', set: 1, share: 0 })
    expect(face(10)).toMatchObject({ figure: '10', set: 1 })
    expect(face(11)).toMatchObject({ figure: '1', set: 2 })
    expect(face(30)).toMatchObject({ figure: '10', set: 3, share: 1 })
  })
})

import { describe, expect, it } from 'vitest'
import { elapsedMs, heldSeconds, NO_HOLD, paused, started } from './hold'

describe('a hold against the clock', () => {
  it('goes on when the other lane is touched, and stays with the side it was begun on', () => {
    const running = started(NO_HOLD, 'left', 1000)
    expect(started(running, 'right', 4000)).toEqual(running)
    expect(heldSeconds(running, 'left', 6000)).toBe(5)
    expect(heldSeconds(running, 'right', 6000)).toBeNull()
  })

  it('keeps what ran before a pause and goes on for the same side', () => {
    const stopped = paused(started(NO_HOLD, 'left', 0), 5000)
    expect(elapsedMs(stopped, 60_000)).toBe(5000)
    const again = started(stopped, 'right', 100_000)
    expect(again.side).toBe('left')
    expect(heldSeconds(again, 'left', 102_000)).toBe(7)
  })

  it('was not held where no clock ran', () => {
    expect(heldSeconds(NO_HOLD, 'left', 9000)).toBeNull()
  })

  it('outlives a reload: it is a plain value', () => {
    const running = started(NO_HOLD, 'right', 1000)
    expect(JSON.parse(JSON.stringify(running))).toEqual(running)
  })
})

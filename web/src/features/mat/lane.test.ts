import { describe, expect, it } from 'vitest'
import { kindOfLane, type LaneDraft, laneAfter, type LaneStep, newLane } from './lane'

const BACK = {
  variation: 'figure_four.block_flat',
  short: 'block flat',
  setup: {},
  setup_words: '',
  dose_s: 60,
  dose: '1 minute',
}
const after = (...steps: LaneStep[]) => steps.reduce<LaneDraft>(laneAfter, newLane())

describe('a lane beside the mat', () => {
  it('keeps what was said when one steps back, and asks for another hold there', () => {
    const said = { ...newLane().log, note: 'slower' }
    const lane = after({ did: 'said', log: said }, { did: 'stepped back', to: BACK })
    expect(lane.log).toEqual(said)
    expect(lane.steppedTo).toEqual(BACK)
    expect(lane.another).toBe(true)
  })

  it('steps back once: the second touch stands on the first', () => {
    const lane = after(
      { did: 'stepped back', to: BACK },
      { did: 'stepped back', to: { ...BACK, short: 'another' } },
    )
    expect(lane.steppedTo?.short).toBe('block flat')
    expect(laneAfter(lane, { did: 'stepped forward' }).steppedTo).toBeNull()
  })

  it('begins a hold of its own after one was logged, where one stepped back to', () => {
    const before = after({ did: 'stepped back', to: BACK }, { did: 'was asked' }, { did: 'sent', held: 31 })
    expect(before.log.asked).toBe(true)
    expect(before.log.held).toBe(31)
    const lane = laneAfter(before, { did: 'logged' })
    expect(lane.log.id).not.toBe(before.log.id)
    expect(lane.log.asked).toBe(false)
    expect(lane.log.held).toBeUndefined()
    expect(lane.another).toBe(false)
    expect(lane.steppedTo).toEqual(BACK)
  })

  it('goes round again without losing the place', () => {
    const lane = after({ did: 'stepped back', to: BACK }, { did: 'logged' }, { did: 'went round again' })
    expect(lane.another).toBe(true)
    expect(lane.steppedTo).toEqual(BACK)
  })

  it('holds words from the first thing said to the log', () => {
    const { log } = newLane()
    expect(kindOfLane(newLane())).toBe('picked')
    for (const said of [
      { scores: { ...log.scores, after: 0 } },
      { kind: 'calm' as const },
      { place: 'groin' as const },
      { signs: [] },
      { note: 'x' },
    ]) {
      const lane = after({ did: 'said', log: { ...log, ...said } })
      expect(kindOfLane(lane)).toBe('typed')
      expect(kindOfLane(laneAfter(lane, { did: 'logged' }))).toBe('picked')
    }
  })
})

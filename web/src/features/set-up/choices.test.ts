import { describe, expect, it } from 'vitest'
import { choiceKey, choicesAfter, NOTHING_CHOSEN } from './choices'

const SEAT = { seat: { number: 12 } }

describe('what is chosen on Set up', () => {
  it('is kept by rung and side, and once where both legs share the shape', () => {
    expect(choiceKey('pigeon.chair', 'left', false)).not.toBe(choiceKey('pigeon.chair', 'right', false))
    expect(choiceKey('bound_angle.flat', 'left', true)).toBe(choiceKey('bound_angle.flat', 'right', true))
  })

  it('changes one thing and leaves the others', () => {
    const setup = choicesAfter(NOTHING_CHOSEN, { chose: 'setup', of: 'a:left', setup: SEAT })
    const dose = choicesAfter(setup, { chose: 'dose', of: 'a:left', seconds: 90 })
    expect(dose).toEqual({ 'a:left': { setup: SEAT, dose: 90 } })
  })

  it('never touches the other side, and never what was', () => {
    const left = choicesAfter(NOTHING_CHOSEN, { chose: 'dose', of: 'a:left', seconds: 30 })
    const both = choicesAfter(left, { chose: 'dose', of: 'a:right', seconds: 60 })
    expect(both['a:left']).toEqual({ dose: 30 })
    expect(both['a:right']).toEqual({ dose: 60 })
    expect(left).toEqual({ 'a:left': { dose: 30 } })
    expect(NOTHING_CHOSEN).toEqual({})
  })
})

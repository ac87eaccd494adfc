import { describe, expect, it } from 'vitest'
import { UNFINISHED } from '../../common/forms/unfinished'
import { bodyOf, nextStop, problemsOf, type Typed } from './model'

const typed: Typed = {
  client: { id: 'one', name: 'One' },
  date: '2026-11-28',
  time: '10:15',
  minutes: '45',
  place: ' at the mill ',
  weeks: '4',
}

describe('an appointment as it is typed', () => {
  it('is sent as it was meant', () => {
    expect(problemsOf(typed, false)).toEqual([])
    expect(bodyOf(typed)).toEqual({ date: '2026-11-28', time: '10:15', minutes: 45, place: 'at the mill' })
  })

  it('says every field that is wrong, in their order', () => {
    const wrong = { ...typed, client: null, date: UNFINISHED, time: '', minutes: 'an hour', weeks: '1.5' }
    expect(problemsOf(wrong, false)).toEqual(['client', 'date', 'time', 'minutes', 'weeks'])
    expect(problemsOf({ ...typed, date: '' }, false)).toEqual(['date'])
  })

  it('asks of a change neither whom it is for nor how often', () => {
    expect(problemsOf({ ...typed, client: null, weeks: '' }, true)).toEqual([])
  })

  it('goes to the mat only today, and once something is planned', () => {
    const before = { last_visit: '2026-11-20' }
    expect(nextStop({ planned: 2, ...before }, true)).toBe('mat')
    expect(nextStop({ planned: 2, ...before }, false)).toBe('plan')
    expect(nextStop({ planned: 0, ...before }, true)).toBe('plan')
    expect(nextStop({ planned: 0, last_visit: null }, true)).toBe('choose')
  })
})

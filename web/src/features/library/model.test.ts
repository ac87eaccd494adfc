import { describe, expect, it } from 'vitest'
import { ApiProblem } from '../../api/client'
import {
  byPurpose,
  type Family,
  firstUnreadable,
  fixedAngles,
  linesFrom,
  problemAt,
  savedMeanwhile,
  search,
  withSlot,
} from './model'

const rung = (id: string, name: string, props: string[] = []) => ({
  id,
  name,
  short: name,
  own: false,
  props,
})

const FAMILIES: Family[] = [
  {
    family: 'figure_four',
    name: 'Figure four on a chair',
    sanskrit: 'Ardha kapotāsana',
    about: 'Ankle over the other thigh.',
    found_by: 'hip opener, Ardha kapotāsana, open the outer hip, rest',
    purposes: ['outer_hip', 'rest'],
    rungs: [
      rung('figure_four.a', 'Foot on a block', ['block', 'chair']),
      rung('figure_four.b', 'Foot on the floor'),
    ],
  },
  {
    family: 'bridge',
    name: 'Bridge',
    sanskrit: '',
    about: 'Pelvis lifted.',
    found_by: 'hip lift, strengthen for standing up',
    purposes: ['strength'],
    rungs: [rung('bridge.a', 'Low, a block between the knees', ['block'])],
  },
]

const PURPOSES = [
  { code: 'outer_hip', words: 'open the outer hip' },
  { code: 'strength', words: 'strengthen for standing up' },
  { code: 'squatting', words: 'squat' },
  { code: 'rest', words: 'rest' },
]

const ids = (text: string) => search(FAMILIES, text).flatMap((hit) => hit.rungs.map((each) => each.id))

describe('the list of families', () => {
  it('shows a family under each of its purposes, in the order of the purposes', () => {
    expect(byPurpose(FAMILIES, PURPOSES).map((shelf) => [shelf.purpose.code, shelf.families.length])).toEqual(
      [
        ['outer_hip', 1],
        ['strength', 1],
        ['rest', 1],
      ],
    )
  })
})

describe('the search', () => {
  it('finds rungs by their props and families by name, purpose and Sanskrit without marks', () => {
    expect(ids('block')).toEqual(['figure_four.a', 'bridge.a'])
    expect(ids('KAPOTASANA')).toEqual(['figure_four.a', 'figure_four.b'])
    expect(ids('strengthen')).toEqual(['bridge.a'])
  })

  it('wants every word', () => {
    expect(ids('chair block')).toEqual(['figure_four.a'])
    expect(ids('block trampoline')).toEqual([])
  })
})

describe('adjusting', () => {
  it('changes one slot and leaves the file it came from alone', () => {
    const slot = { type: 'angle' as const, label: 'Lean', from: 0, to: 60, step: 5, plain: 20 }
    const file = { variation: { slots: { lean: slot } } } as never
    const changed = withSlot(file, 'lean', { to: 40 })
    expect(changed.variation.slots['lean']).toEqual({ ...slot, to: 40 })
    expect(slot.to).toBe(60)
    expect(withSlot(file, 'no_such', { to: 1 })).toBe(file)
  })

  it('offers only trunk angles a recipe fixes', () => {
    expect(fixedAngles({ lean_deg: 'lean', turn_deg: 20, roll_deg: 0, base: 'x' })).toEqual([
      ['turn_deg', 20],
    ])
  })

  it('reads cues by the line', () => {
    expect(linesFrom(' Feel the floor. \n\n Breathe.')).toEqual(['Feel the floor.', 'Breathe.'])
  })

  it('finds the figure for which something was typed that is no number', () => {
    const hold = { from: 20, to: { typed: 'a while' }, step: 10, sets: 1 }
    expect(firstUnreadable({ variation: { slots: {}, hold } })).toBe('variation.hold.to')
    expect(firstUnreadable({ variation: { hold: { ...hold, to: 40 } } })).toBeUndefined()
  })

  it('knows when somebody else saved in between', () => {
    const current = { number: 3, file: {} }
    expect(
      savedMeanwhile(new ApiProblem(409, { message: 'x', code: 'stale', fields: [], current }))?.number,
    ).toBe(3)
    expect(savedMeanwhile(new ApiProblem(422, { message: 'x', code: '', fields: [] }))).toBeUndefined()
    expect(savedMeanwhile(null)).toBeUndefined()
  })

  it('finds what the server says of a field or of what lies inside it', () => {
    const problems = { 'variation.cues.2': 'unknown', 'variation.slots.lean.from': 'above' }
    expect(problemAt(problems, 'variation.cues')).toBe('unknown')
    expect(problemAt(problems, 'variation.slots.lean')).toBe('above')
    expect(problemAt(problems, 'variation.slots.le')).toBeUndefined()
  })
})

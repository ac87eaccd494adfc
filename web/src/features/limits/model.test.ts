import { describe, expect, it } from 'vitest'
import { UNFINISHED } from '../../common/forms/unfinished'
import { askedNow, formOf, formsFrom, kindsFor } from './forms'
import { draftFrom, entryFrom, formOfEntry, newRow, ticked, unreadableFacts } from './model'

const choice = (title: string, ...codes: string[]) => ({
  title,
  type: 'string',
  oneOf: codes.map((code) => ({ const: code, title: code })),
})
const date = (title: string) => ({ title, type: 'string', format: 'date' })

/** Two kinds as the server describes them: one on a side, one of the whole body. */
const FORMS = formsFrom([
  {
    code: 'ankle',
    name: 'Ankle',
    sides: 'sided',
    place: { x: 40, y: 200 },
    doctor: 'A hot joint.',
    scopes: { loading: 'loading', all: 'everything' },
    offered_scopes: ['loading'],
    facts: {
      'x-order': ['operated', 'operated_on', 'swollen_cm', 'what', 'signs'],
      properties: {
        what: choice('What?', 'sprain', 'break', 'unknown'),
        operated: choice('Operated?', 'yes', 'no', 'unknown'),
        operated_on: { ...date('When?'), 'x-when': [{ fact: 'operated', is: ['yes'] }] },
        swollen_cm: {
          title: 'Swollen by',
          type: 'number',
          'x-unit': 'cm',
          'x-when': [{ fact: 'operated', answered: true }],
        },
        signs: {
          title: 'Any of these?',
          type: 'array',
          items: { oneOf: choice('', 'none', 'numb', 'hot').oneOf },
        },
      },
    },
  },
  {
    code: 'skeleton',
    name: 'Skeleton',
    sides: 'middle',
    place: { x: 50, y: 50 },
    doctor: '',
    scopes: {},
    offered_scopes: [],
    facts: {
      'x-order': ['breaks'],
      properties: {
        breaks: {
          title: 'Breaks',
          type: 'array',
          items: {
            properties: {
              bone: choice('Bone', 'wrist', 'other'),
              on: date('When'),
              small: choice('Small?', 'yes', 'no', 'unknown'),
            },
          },
        },
      },
    },
  },
])
const ankle = (facts: Record<string, string>, side: 'left' | '' = 'left') => ({ kind: 'ankle', side, facts })
const skeleton = (breaks: string) => ({ kind: 'skeleton', side: '' as const, facts: { breaks } })
const form = formOf(FORMS, 'ankle')

describe('a form from its schema', () => {
  it('asks in the order it is told to, and only what applies', () => {
    if (form === undefined) throw new Error('the form is there')
    const names = (facts: Record<string, string>) => askedNow(form, facts).map((each) => each.name)
    expect(names({})).toEqual(['operated', 'what', 'signs'])
    expect(names({ operated: 'no' })).toEqual(['operated', 'swollen_cm', 'what', 'signs'])
    expect(names({ operated: 'yes' })).toEqual(['operated', 'operated_on', 'swollen_cm', 'what', 'signs'])
  })

  it('knows what each question is', () => {
    if (form === undefined) throw new Error('the form is there')
    const all = askedNow(form, { operated: 'yes' })
    expect(all.map((each) => each.type)).toEqual(['choice', 'date', 'number', 'choice', 'ticks'])
    expect(all[2]?.unit).toBe('cm')
  })

  it('starts a new thing of a list with what is not known', () => {
    const whole = formOf(FORMS, 'skeleton')
    if (whole === undefined) throw new Error('the form is there')
    const [breaks] = askedNow(whole, {})
    if (breaks === undefined) throw new Error('it asks about breaks')
    expect(newRow(breaks)).toEqual({ bone: 'wrist', on: '', small: 'unknown' })
  })
})

describe('a draft of a record', () => {
  it('is no record while the side is missing', () => {
    expect(entryFrom(FORMS, ankle({ what: 'sprain' }, ''))).toBeNull()
  })

  it('leaves out what was not answered, and answers whose question no longer applies', () => {
    const facts = { operated: 'no', operated_on: '2020-01-01', what: '' }
    expect(entryFrom(FORMS, ankle(facts))?.facts).toEqual({ operated: 'no' })
  })

  it('reads numbers with a comma', () => {
    const facts = { operated: 'no', swollen_cm: '1,5' }
    expect(entryFrom(FORMS, ankle(facts))?.facts).toEqual({ operated: 'no', swollen_cm: 1.5 })
  })

  it('is no record while a figure or a date in it cannot be read', () => {
    for (const text of ['about 70', '70 deg', '7O']) {
      const draft = ankle({ operated: 'no', swollen_cm: text })
      expect(entryFrom(FORMS, draft), text).toBeNull()
      expect(unreadableFacts(form, draft).map((each) => each.name)).toEqual(['swollen_cm'])
    }
    const undated = ankle({ operated: 'yes', operated_on: UNFINISHED })
    expect(unreadableFacts(form, undated).map(({ name, type }) => [name, type])).toEqual([
      ['operated_on', 'date'],
    ])
    const broken = JSON.stringify([{ bone: 'wrist', on: UNFINISHED, small: 'yes' }])
    expect(entryFrom(FORMS, skeleton(broken))).toBeNull()
  })

  it('comes back unchanged from what was recorded', () => {
    const entry = entryFrom(FORMS, ankle({ what: 'break', signs: 'numb,hot' }))
    if (entry === null) throw new Error('this draft is complete')
    expect(entryFrom(FORMS, draftFrom(FORMS, entry as never))).toEqual(entry)
  })
})

describe('a record that cannot be read', () => {
  const shown = (kind: unknown) => ({ kind: 'unreadable', side: null, facts: { kind } })

  it('still says what it is of, where it does', () => {
    expect(formOfEntry(FORMS, shown('ankle'))?.code).toBe('ankle')
    expect(formOfEntry(FORMS, { kind: 'skeleton', facts: {} })?.code).toBe('skeleton')
    for (const kind of ['shoulder', 'toString', undefined, 3])
      expect(formOfEntry(FORMS, shown(kind))).toBeUndefined()
  })

  it('is no draft of anything: it is entered anew', () => {
    expect(draftFrom(FORMS, shown('ankle')).kind).toBe('')
  })
})

describe('records of the whole body', () => {
  it('are offered without a side and sent without one', () => {
    expect(kindsFor(FORMS, null).map((each) => each.code)).toEqual(['skeleton'])
    expect(kindsFor(FORMS, 'left').map((each) => each.code)).toEqual(['ankle'])
    expect(entryFrom(FORMS, skeleton(''))).toEqual({ kind: 'skeleton', facts: {} })
  })

  it('keep "none of these" apart from every tick', () => {
    expect(ticked('none', 'bleeding')).toBe('bleeding')
    expect(ticked('bleeding,triplets', 'none')).toBe('none')
    expect(ticked('bleeding,triplets', 'bleeding')).toBe('triplets')
  })

  it('tell an empty list from a question not asked', () => {
    expect(entryFrom(FORMS, skeleton(''))?.facts).toEqual({})
    expect(entryFrom(FORMS, skeleton('[]'))?.facts).toEqual({ breaks: [] })
  })

  it('bring a list back for correcting', () => {
    const recorded = {
      kind: 'skeleton',
      side: null,
      facts: { breaks: [{ bone: 'other', on: null, small: 'yes' }] },
    }
    expect(entryFrom(FORMS, draftFrom(FORMS, recorded))?.facts).toEqual({
      breaks: [{ bone: 'other', small: 'yes' }],
    })
  })
})

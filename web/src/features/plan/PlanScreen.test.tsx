import { fireEvent, screen, waitFor, within } from '@testing-library/react'
import { describe, expect, it } from 'vitest'
import type { Schemas } from '../../api/client'
import { button, CLIENT, expectAccessible, open, refusal } from '../../testing/app'
import { part, plan, pose } from './testing'

const ADDRESS = `${CLIENT}/plan`
const API = `/api${CLIENT}/plan`

const three = plan(
  [
    pose('a', {
      left: part({ since: 'same', changed: false }),
      right: part({ since: 'longer: 40 s', why: 'Calm twice.' }),
    }),
    pose('b', { shared: true, right: null }),
    pose('c', { right: null, right_missing: 'Not on this hip.' }),
  ],
  {
    concerns: [
      { code: 'counter', poses: [0], words: 'No counter-pose yet.' },
      { code: 'over', poses: [], words: '5 min too long for 45 min.' },
    ],
    counters: [{ after: 'a', family: 'd', name: 'Pose d', short: 'd' }],
    left_out: [{ family: 'e', name: 'Pose e', reason: 'Left out by you.', open: true }],
    reasons: [{ code: 'stands', poses: [0, 1, 2], words: 'Standing in one go.' }],
  },
)

const row = async (name: string) => within(await screen.findByRole('listitem', { name }))

describe('a plan', () => {
  it('shows both sides, what differs from last time, what to settle and why the order is so', async () => {
    await open(ADDRESS, { [`GET ${API}`]: three })
    const a = await row('Pose a')
    expect(a.getByText('same')).toBeTruthy()
    expect(a.getByText('Calm twice.')).toBeTruthy()
    expect((await row('Pose c')).getByText('Not on this hip.')).toBeTruthy()
    const beside = within(screen.getByRole('complementary', { name: 'Beside the plan' }))
    expect(beside.getByText('5 min too long for 45 min.')).toBeTruthy()
    expect(beside.getByText('1–3')).toBeTruthy()
    await expectAccessible()
  })

  it('stores an order and doses together once they settle, under the version they were made from', async () => {
    const { sentTo } = await open(ADDRESS, {
      [`GET ${API}`]: three,
      [`PUT ${API}`]: (body: Schemas['PlanSave']) =>
        plan(
          body.poses.map(({ family }) => pose(family)),
          { version: 2 },
        ),
    })
    const a = await row('Pose a')
    const b = await row('Pose b')
    // In one go: a slow machine must not let the first of them settle alone.
    const choose = (label: string, option: string) => {
      const list = a.getByLabelText(label)
      const value = within(list).getByRole('option', { name: option }).getAttribute('value')
      fireEvent.change(list, { target: { value } })
    }
    choose('How much: Pose a, left', '40 s')
    choose('How often: Pose a, right', '× 3')
    fireEvent.click(a.getByRole('button', { name: 'fix' }))
    fireEvent.click(b.getByRole('button', { name: /leave out/ }))
    expect(screen.queryByRole('listitem', { name: 'Pose b' })).toBeNull()
    await waitFor(() => {
      expect(sentTo('PUT', '/plan')).toHaveLength(1)
    })
    expect(sentTo('PUT', '/plan')[0]?.body).toEqual({
      version: 1,
      poses: [
        { family: 'a', fixed: true, left: { dose_s: 40, rounds: 1 }, right: { dose_s: 30, rounds: 3 } },
        { family: 'c', fixed: false, left: { dose_s: 30, rounds: 1 } },
      ],
    })
  })

  it('asks for an order, takes it and says so', async () => {
    const { user, sentTo } = await open(ADDRESS, {
      [`GET ${API}`]: three,
      [`GET ${API}/order`]: { families: ['c', 'a', 'b'], reasons: [], changes: true },
      [`PUT ${API}`]: three,
    })
    await user.click(await button('Suggest an order'))
    expect(await screen.findByText('Put in order; what is fixed stayed.')).toBeTruthy()
    await waitFor(() => {
      expect(sentTo('PUT', '/plan')).toHaveLength(1)
    })
    const body = sentTo('PUT', '/plan')[0]?.body as Schemas['PlanSave']
    expect(body.poses.map(({ family }) => family)).toEqual(['c', 'a', 'b'])
  })

  it('says that no better order was found', async () => {
    const { user } = await open(ADDRESS, {
      [`GET ${API}`]: three,
      [`GET ${API}/order`]: { families: ['a', 'b', 'c'], reasons: [], changes: false },
    })
    await user.click(await button('Suggest an order'))
    expect(await screen.findByText('This order is as good as any that was found.')).toBeTruthy()
  })

  it('adds a counter-pose after its pose, puts back, adds a side, and goes back to last time', async () => {
    const { user, sentTo } = await open(ADDRESS, {
      [`GET ${API}`]: plan([...three.poses, pose('f', { right: null })], three),
      [`POST ${API}/poses`]: three,
    })
    await user.click(await button('Add Pose d'))
    await user.click(await button('Put back Pose e'))
    await user.click((await row('Pose a')).getByRole('button', { name: 'as last time instead' }))
    await waitFor(() => {
      expect(sentTo('POST', '/plan/poses').map(({ body }) => body)).toEqual([
        { family: 'd', after: 'a', as_last_time: false },
        { family: 'e', as_last_time: false },
        { family: 'a', as_last_time: true },
      ])
    })
  })

  it('keeps what was changed when somebody else changed the plan, and puts it on top when told', async () => {
    const stale = { ...refusal(409, 'Changed.'), code: 'stale' }
    let tries = 0
    const { user, sentTo } = await open(ADDRESS, {
      [`GET ${API}`]: () => (tries === 0 ? three : plan([pose('c'), pose('a')], { version: 7 })),
      [`PUT ${API}`]: () => {
        tries += 1
        return tries === 1 ? stale : three
      },
    })
    await user.click((await row('Pose a')).getByRole('button', { name: 'fix' }))
    await user.click(await button('Put mine on top'))
    await waitFor(() => {
      expect(sentTo('PUT', '/plan')).toHaveLength(2)
    })
    const again = sentTo('PUT', '/plan')[1]?.body as Schemas['PlanSave']
    expect(again.version).toBe(7)
    expect(again.poses.map(({ family, fixed }) => [family, fixed])).toEqual([
      ['a', true],
      ['c', false],
    ])
  })
})

describe('adding poses by name', () => {
  const families = [
    { family: 'a', name: 'Pose a' },
    { family: 'g', name: 'Pose g' },
  ]

  it('goes on from field to field, and takes the focus from nothing else', async () => {
    const { user, sentTo } = await open(ADDRESS, {
      [`GET ${API}`]: plan([], { version: 0 }),
      [`GET /api${CLIENT}/families`]: families,
      [`POST ${API}/poses`]: three,
      [`PUT ${API}`]: three,
    })
    const field = () => screen.findByRole('combobox', { name: 'Add a pose' })
    await user.type(await field(), 'g')
    await user.click(await screen.findByRole('option', { name: 'Pose g' }))
    expect(sentTo('POST', '/plan/poses')[0]?.body).toEqual({ family: 'g', as_last_time: false })
    const a = await row('Pose a')
    await waitFor(async () => {
      expect(document.activeElement).toBe(await field())
    })
    const dose = a.getByLabelText('How much: Pose a, left')
    dose.focus()
    await user.selectOptions(dose, '40 s')
    await waitFor(() => {
      expect(sentTo('PUT', '/plan')).toHaveLength(1)
    })
    // Once it is stored the field can be typed in again, and stays where it was.
    await waitFor(async () => {
      expect(await field()).toHaveProperty('disabled', false)
    })
    expect(document.activeElement).not.toBe(await field())
  })
})

describe('nothing planned', () => {
  const none = plan([], { version: 0 })

  it('begins with what was done last time', async () => {
    const { user, sentTo } = await open(ADDRESS, { [`GET ${API}`]: none, [`POST ${API}/again`]: three })
    await user.click(await button('Same as 16 Nov'))
    expect(await screen.findByRole('listitem', { name: 'Pose a' })).toBeTruthy()
    expect(sentTo('POST', '/plan/again')[0]?.body).toEqual({})
  })

  it('offers no last time where there was none', async () => {
    await open(ADDRESS, { [`GET ${API}`]: plan([], { version: 0, last_visit: null, last_ladders: 0 }) })
    expect(await screen.findByText('Nothing planned yet')).toBeTruthy()
    expect(screen.queryByRole('button', { name: /Same as/ })).toBeNull()
    await expectAccessible()
  })

  it('begins from a template, and puts one away', async () => {
    const TEMPLATES = '/api/practices/the-practice/templates'
    const { user, sentTo } = await open(ADDRESS, {
      [`GET ${API}`]: none,
      [`GET ${TEMPLATES}`]: [
        { id: 't1', name: 'Hips', families: ['Figure-four', 'Rest'] },
        { id: 't2', name: 'Backs', families: ['Table'] },
      ],
      [`DELETE ${TEMPLATES}/t2`]: [],
      [`POST ${API}/again`]: three,
    })
    await user.click(await button('Templates'))
    const dialog = within(await screen.findByRole('dialog', { name: 'Orders to plan from' }))
    const backs = within(await dialog.findByRole('group', { name: 'Backs' }))
    await user.click(backs.getByRole('button', { name: 'Put away' }))
    await waitFor(() => {
      expect(sentTo('DELETE', '/templates/t2')).toHaveLength(1)
    })
    await user.click(within(dialog.getByRole('group', { name: 'Hips' })).getByRole('button', { name: 'Use' }))
    await waitFor(() => {
      expect(sentTo('POST', '/plan/again')[0]?.body).toEqual({ template_id: 't1' })
    })
  })

  it('keeps a plan as a template under a name, and says why a name was refused', async () => {
    const TEMPLATES = '/api/practices/the-practice/templates'
    const taken = refusal(422, 'Some fields need another look.', [
      { field: 'name', message: 'Give another.' },
    ])
    const { user } = await open(ADDRESS, {
      [`GET ${API}`]: three,
      [`GET ${TEMPLATES}`]: [],
      [`POST ${TEMPLATES}`]: taken,
    })
    await user.click(await button('Templates'))
    await user.type(await screen.findByLabelText('Keep this plan as'), 'Hips')
    await user.click(await button('Keep'))
    expect(await screen.findByText('Give another.')).toBeTruthy()
    expect(screen.getByLabelText<HTMLInputElement>('Keep this plan as').value).toBe('Hips')
    await expectAccessible()
  })
})

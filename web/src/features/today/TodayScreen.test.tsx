import { screen, waitFor, within } from '@testing-library/react'
import { describe, expect, it } from 'vitest'
import type { Schemas } from '../../api/client'
import recorded from '../../testing/answers.json'
import { button, expectAccessible, open, PRACTICE, refusal } from '../../testing/app'

const session = (id: string, time: string, more: object = {}) => ({
  id,
  client_id: `client-${id}`,
  date: '2026-11-28',
  time: `${time}:00`,
  minutes: 45,
  place: '',
  cancelled: false,
  version: 3,
  following: 0,
  name: `Person ${id}`,
  age: 61,
  occupation: 'cooper',
  left: [],
  middle: [],
  right: [],
  last_visit: '2026-11-25',
  planned: 0,
  logged: 0,
  ...more,
})
const outlook = (more: object = {}) => ({
  since: '2026-11-25',
  changed: [],
  ahead: [],
  mornings: [],
  needs_stature: false,
  ...more,
})
const DAY = `GET /api${PRACTICE}/today`
const OUTLOOK = (id: string) => `GET /api${PRACTICE}/clients/client-${id}/outlook`
const first = session('a', '09:00', { right: ['Hip replaced, week 9'], planned: 2 })
const second = session('b', '10:15', { following: 3, left: ['Knee: kneecap pain'], place: 'at the mill' })
const own = {
  [DAY]: { date: '2026-11-28', today: '2026-11-28', sessions: [first, second] },
  [OUTLOOK('a')]: outlook({
    changed: ['New: Hip replaced'],
    ahead: [{ date: '2026-12-19', lines: ['Ends — Right: hip bend 90°.'] }],
    mornings: [{ item_id: 'hold', date: '2026-11-25', side: 'right', name: 'Figure-four', during: 2 }],
  }),
  [OUTLOOK('b')]: outlook({ since: null, needs_stature: true }),
}
const row = async (name: RegExp) => within(await screen.findByRole('listitem', { name }))

describe('today', () => {
  it('has the day’s people in their order, each side’s records on its side', async () => {
    await open(`${PRACTICE}/today`, own)
    await row(/09:00/)
    expect(screen.getAllByRole('listitem', { name: /Person/ })).toEqual([
      screen.getByRole('listitem', { name: '09:00 Person a' }),
      screen.getByRole('listitem', { name: '10:15 Person b' }),
    ])
    const one = await row(/Person a/)
    expect(one.getByText('Hip replaced, week 9').parentElement?.textContent).toMatch(/^right/)
    expect((await row(/Person b/)).getByText('61 · cooper · at the mill')).toBeTruthy()
    await expectAccessible()
  })

  it('tells what changed, what comes, and of whom nothing is known yet', async () => {
    await open(`${PRACTICE}/today`, own)
    const one = await row(/Person a/)
    expect(await one.findByText('New: Hip replaced')).toBeTruthy()
    expect(one.getByText('Ends — Right: hip bend 90°.', { exact: false }).textContent).toContain(
      '19 Dec 2026',
    )
    const other = await row(/Person b/)
    expect(await other.findByText('First visit')).toBeTruthy()
    expect(other.getByText(/Stature missing/)).toBeTruthy()
    expect(other.queryByText('Nothing changed.')).toBeNull()
    // What is not known is not said to be none.
    expect(other.queryByText('Nothing falls out or opens.')).toBeNull()
  })

  it('goes to the mat once something is planned, before that to the plan, and to choose with somebody new', async () => {
    const others = [
      { ...second, last_visit: null },
      { ...second, id: 'three', name: 'Person c' },
    ]
    await open(`${PRACTICE}/today`, { ...own, [DAY]: { ...own[DAY], sessions: [first, ...others] } })
    const hrefOf = async (name: RegExp, link: string) =>
      (await row(name)).getByRole('link', { name: link }).getAttribute('href')
    expect(await hrefOf(/Person a/, 'To the mat')).toBe(`${PRACTICE}/clients/client-a/mat`)
    expect(await hrefOf(/Person b/, 'Choose')).toBe(`${PRACTICE}/clients/client-b/choose`)
    expect(await hrefOf(/Person c/, 'Plan')).toBe(`${PRACTICE}/clients/client-b/plan`)
  })

  it('plans the same as last time in one touch and goes on to the plan', async () => {
    const { user, router, sentTo } = await open(`${PRACTICE}/today`, {
      ...own,
      [`POST /api${PRACTICE}/clients/client-b/plan/again`]: {},
    })
    await user.click((await row(/Person b/)).getByRole('button', { name: 'Same as last time' }))
    await waitFor(() => {
      expect(router.state.location.pathname).toBe(`${PRACTICE}/clients/client-b/plan`)
    })
    expect(sentTo('POST', '/plan/again')[0]?.body).toEqual({})
  })

  it('takes the answer about the next morning for its hold', async () => {
    const { user, sentTo } = await open(`${PRACTICE}/today`, {
      ...own,
      [`POST /api${PRACTICE}/clients/client-a/items/hold/morning`]: {},
    })
    const one = await row(/Person a/)
    await user.click(await one.findByRole('button', { name: 'not settled' }))
    await waitFor(() => {
      expect(sentTo('POST', '/items/hold/morning')[0]?.body).toEqual({ settled: false })
    })
  })

  it('keeps that somebody was asked and did not answer yet', async () => {
    const { user, sentTo } = await open(`${PRACTICE}/today`, {
      ...own,
      [`POST /api${PRACTICE}/clients/client-a/items/hold/morning`]: {},
    })
    await user.click(await (await row(/Person a/)).findByRole('button', { name: 'no answer yet' }))
    await waitFor(() => {
      expect(sentTo('POST', '/items/hold/morning')[0]?.body).toEqual({})
    })
  })

  it('leads to a new client', async () => {
    const { user } = await open(`${PRACTICE}/today`, own)
    await user.click(await screen.findByRole('link', { name: 'New client' }))
    expect(await screen.findByRole('dialog', { name: 'New client' })).toBeTruthy()
  })

  it('goes from day to day and back to today', async () => {
    const { user, router } = await open(`${PRACTICE}/today`, {
      ...own,
      [`${DAY}?date=2026-11-29`]: { date: '2026-11-29', today: '2026-11-28', sessions: [] },
    })
    await user.click(await button('The day after'))
    expect(await screen.findByText('Nobody is booked on this day')).toBeTruthy()
    expect(router.state.location.search).toBe('?date=2026-11-29')
    await user.click(await button('Today'))
    await row(/Person a/)
    expect(router.state.location.search).toBe('')
  })

  it('books for whom it is chosen, on the day that is shown', async () => {
    const { user, sentTo } = await open(`${PRACTICE}/today`, {
      ...own,
      [`POST /api${PRACTICE}/clients/search`]: [{ id: 'client-z', name: 'Tess Alder' }],
      [`POST /api${PRACTICE}/appointments`]: { ...second, following: 0 },
    })
    await user.click(await button('Book an appointment'))
    const form = within(await screen.findByRole('dialog', {}, { timeout: 8000 }))
    await user.click(form.getByRole('button', { name: 'Save' }))
    expect(form.getByText('Choose whom it is for.')).toBeTruthy()
    expect(form.getByText('Give the time.')).toBeTruthy()
    await user.type(form.getByRole('combobox', { name: 'Client' }), 'Tess')
    await user.click(await screen.findByRole('option', { name: 'Tess Alder' }))
    await user.click(form.getByRole('spinbutton', { name: 'Hours' }))
    await user.keyboard('1430')
    await user.clear(form.getByRole('textbox', { name: 'Weeks in a row' }))
    await user.type(form.getByRole('textbox', { name: 'Weeks in a row' }), '6')
    await user.click(form.getByRole('button', { name: 'Save' }))
    await waitFor(() => {
      expect(sentTo('POST', '/appointments')[0]?.body).toEqual({
        client_id: 'client-z',
        date: '2026-11-28',
        time: '14:30',
        minutes: 45,
        place: '',
        weeks: 6,
      })
    })
    await waitFor(() => {
      expect(screen.queryByRole('dialog')).toBeNull()
    })
  })

  it('changes one with its version, and goes on top of another change only when it was told', async () => {
    const stale = {
      ...refusal(409, 'Somebody saved in between.'),
      code: 'stale',
      current: { date: '2026-11-28', time: '11:00', minutes: 30, place: 'upstairs', version: 7 },
    }
    let refused = true
    const { user, sentTo } = await open(`${PRACTICE}/today`, {
      ...own,
      [`PUT /api${PRACTICE}/appointments/b`]: () => (refused ? stale : second),
    })
    await user.click((await row(/Person b/)).getByRole('button', { name: 'Change' }))
    const form = within(await screen.findByRole('dialog', {}, { timeout: 8000 }))
    expect(form.queryByRole('combobox', { name: 'Client' })).toBeNull()
    await user.clear(form.getByRole('textbox', { name: 'Minutes' }))
    await user.type(form.getByRole('textbox', { name: 'Minutes' }), '60')
    await user.click(form.getByRole('checkbox', { name: 'The 3 that follow, too' }))
    await user.click(form.getByRole('button', { name: 'Save' }))
    expect((await form.findByText(/Somebody changed it/)).textContent).toContain('11:00, 30 min, upstairs')
    const sent = { date: '2026-11-28', time: '10:15', minutes: 60, place: 'at the mill', following: true }
    expect(sentTo('PUT', '/appointments/b')[0]?.body).toEqual({ ...sent, version: 3 })
    // What was typed is still there.
    expect(form.getByRole('textbox', { name: 'Minutes' })).toHaveProperty('value', '60')
    refused = false
    await user.click(form.getByRole('button', { name: 'Save' }))
    await waitFor(() => {
      expect(sentTo('PUT', '/appointments/b')[1]?.body).toEqual({ ...sent, version: 7 })
    })
  })

  it('lets readers look', async () => {
    const me = (recorded as unknown as Record<string, { practices: object[] }>)['GET /api/auth/me']
    await open(`${PRACTICE}/today`, {
      ...own,
      'GET /api/auth/me': { ...me, practices: me?.practices.map((each) => ({ ...each, role: 'reader' })) },
    })
    const one = await row(/Person a/)
    expect(await one.findByText('Ask about the morning after')).toBeTruthy()
    for (const name of ['settled', 'not settled', 'Change', 'Call off'])
      expect(screen.queryByRole('button', { name })).toBeNull()
    expect(screen.queryByRole('button', { name: 'Book an appointment' })).toBeNull()
  })

  it('cancels with those that follow, and brings back the same', async () => {
    const gone = { ...second, cancelled: true, version: 4 } as unknown as Schemas['AppointmentOut']
    const { user, sentTo } = await open(`${PRACTICE}/today`, {
      ...own,
      [`POST /api${PRACTICE}/appointments/b/cancel`]: gone,
      [`POST /api${PRACTICE}/appointments/b/restore`]: second,
    })
    await user.click((await row(/Person b/)).getByRole('button', { name: 'Call off' }))
    await user.click(await button('This and those that follow'))
    expect(await screen.findByText('Called off: 10:15, Person b.')).toBeTruthy()
    expect(sentTo('POST', '/cancel')[0]?.body).toEqual({ version: 3, following: true })
    await user.click(await button('Undo'))
    await waitFor(() => {
      expect(sentTo('POST', '/restore')[0]?.body).toEqual({ version: 4, following: true })
    })
  })

  it('asks of a single one only whether it is meant', async () => {
    const { user } = await open(`${PRACTICE}/today`, own)
    await user.click((await row(/Person a/)).getByRole('button', { name: 'Call off' }))
    const dialog = within(await screen.findByRole('dialog', { name: 'Call off 09:00, Person a?' }))
    expect(dialog.queryByRole('button', { name: 'This and those that follow' })).toBeNull()
    await user.click(dialog.getByRole('button', { name: 'Keep it' }))
    await waitFor(() => {
      expect(screen.queryByRole('dialog')).toBeNull()
    })
  })
})

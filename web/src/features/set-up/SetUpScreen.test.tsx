import { screen, waitFor, within } from '@testing-library/react'
import { describe, expect, it } from 'vitest'
import recorded from '../../testing/answers.json'
import { button, CLIENT, expectAccessible, open } from '../../testing/app'

const ADDRESS = `${CLIENT}/set-up?left=low_lunge.foot_on_chair&right=sit_to_stand.lift_pause`
const SETUPS = `GET /api${CLIENT}/setups`
const NAMES = {
  left: (recorded as Record<string, { name?: string }>)[`${SETUPS}/low_lunge.foot_on_chair/left`]?.name ?? '',
  right:
    (recorded as Record<string, { name?: string }>)[`${SETUPS}/sit_to_stand.lift_pause/right`]?.name ?? '',
}
const lane = (side: string) => screen.findByRole('region', { name: side })
const inLane = async (side: string) => within(await lane(side))

describe('a set-up', () => {
  it('asks for each side’s own, in its lane', async () => {
    const { sent } = await open(ADDRESS)
    await (await inLane('right')).findByText(NAMES.right)
    const asked = sent.map((each) => each.path).filter((path) => path.includes('/setups/'))
    const sideOf = new URLSearchParams(ADDRESS.split('?')[1])
    for (const side of ['left', 'right']) {
      const rung = sideOf.get(side) ?? ''
      expect(asked.filter((path) => path.includes(rung)).every((path) => path.endsWith(`/${side}`))).toBe(
        true,
      )
      expect(asked.some((path) => path.endsWith(`/${rung}/${side}`))).toBe(true)
    }
  })

  it('has a lane for each side and a table of what both ask for', async () => {
    await open(ADDRESS)
    expect(await (await inLane('left')).findByText(NAMES.left)).toBeTruthy()
    expect((await inLane('right')).queryByText(NAMES.left)).toBeNull()
    expect(await (await inLane('right')).findByText(NAMES.right)).toBeTruthy()
    const table = await screen.findByRole('table', { name: 'What the set-up asks for, left and right' })
    const [head, first] = within(table).getAllByRole('row')
    expect(
      within(head as HTMLElement)
        .getAllByRole('columnheader')
        .map((each) => each.textContent),
    ).toEqual(['Left', 'demand', 'Right'])
    expect(within(first as HTMLElement).getAllByRole('cell')).toHaveLength(2)
    await expectAccessible()
  })

  it('that was asked for is let go when the next one is', async () => {
    const path = `POST /api${CLIENT}/setups/low_lunge.foot_on_chair/left`
    let asked = 0
    const first: unknown = (recorded as Record<string, unknown>)[path]
    const never = new Promise(() => undefined)
    const { user, sentTo } = await open(ADDRESS, { [path]: () => (asked++ === 0 ? first : never) })
    const chair = await (await inLane('left')).findByRole('spinbutton')
    const requests = () => sentTo('POST', '/low_lunge.foot_on_chair/left')
    await waitFor(() => {
      expect(requests()).toHaveLength(1)
    })
    const most = Number(chair.getAttribute('aria-valuemax'))
    const key = Number(chair.getAttribute('aria-valuenow')) + 2 <= most ? '{ArrowUp}' : '{ArrowDown}'
    chair.focus()
    await user.keyboard(key + key)
    await waitFor(() => {
      expect(requests()).toHaveLength(3)
    })
    expect(requests().map(({ signal }) => signal.aborted)).toEqual([false, true, false])
  })

  it('is stepped by arrows and buttons, and what was reached is said', async () => {
    const { user, sentTo } = await open(ADDRESS)
    const left = await inLane('left')
    const chair = await left.findByRole('spinbutton')
    const before = chair.getAttribute('aria-valuenow')
    const most = Number(chair.getAttribute('aria-valuemax'))
    chair.focus()
    await user.keyboard(Number(before) < most ? '{ArrowUp}' : '{ArrowDown}')
    await waitFor(() => {
      expect(left.getByRole('spinbutton').getAttribute('aria-valuenow')).not.toBe(before)
    })
    const asked = sentTo('POST', '/low_lunge.foot_on_chair/left').length
    expect(asked).toBeGreaterThan(0)
    expect(left.getAllByRole('status').some((each) => each.textContent !== '')).toBe(true)
  })

  it('takes a typed figure and gives the nearest that can be built', async () => {
    const { user } = await open(ADDRESS)
    const right = await inLane('right')
    const seat = await right.findByRole('spinbutton', { name: /Seat/ })
    await user.click(seat)
    await user.clear(seat)
    await user.type(seat, '52{Enter}')
    await waitFor(() => {
      expect(Math.abs(Number.parseInt((seat as HTMLInputElement).value) - 52)).toBeLessThan(6)
    })
  })

  it('goes to the plan as it stands, with its side and its dose', async () => {
    const { user, sentTo } = await open(ADDRESS, {
      [`POST /api${CLIENT}/mat`]: (body: { variation: string; setup: unknown; dose_s: number }) => ({
        families: [{ left: null, right: body }],
        morning_open: [],
      }),
    })
    const right = await inLane('right')
    expect(await right.findByText('only looked at: not in today’s plan')).toBeTruthy()
    await user.click(await right.findByRole('button', { name: 'Take to the mat' }))
    const [sent] = sentTo('POST', '/mat')
    expect(sent?.body).toMatchObject({ variation: 'sit_to_stand.lift_pause', side: 'right' })
    expect(await right.findByText(/in today’s plan, as shown/)).toBeTruthy()
  })

  it('is seen from where somebody asks', async () => {
    const { user, sentTo } = await open(ADDRESS)
    await (await inLane('left')).findByRole('spinbutton')
    await user.click(await button('the front'))
    await waitFor(() => {
      const views = sentTo('POST', '/left').map((each) => (each.body as { view?: string }).view)
      expect(views).toContain('front')
    })
    expect(screen.getByText(/left is on the right/)).toBeTruthy()
  })

  it('leads to the rungs beside it by buttons and by keys, on the side that is worked on', async () => {
    const { user, router } = await open(ADDRESS)
    const more = await screen.findByRole('region', { name: 'right: what it takes' })
    const back = await within(more).findByRole('button', { name: /^step back: / })
    await user.click(back)
    await waitFor(() => {
      const query = new URLSearchParams(router.state.location.search)
      expect(query.get('right')).not.toBe('sit_to_stand.lift_pause')
      expect(query.get('left')).toBe('low_lunge.foot_on_chair')
    })
  })

  it('has l and r choose the side that brackets step', async () => {
    const { user, router } = await open(ADDRESS)
    await screen.findByRole('region', { name: 'right: what it takes' })
    await (await inLane('right')).findAllByRole('spinbutton')
    await user.keyboard('r')
    await user.keyboard('[[')
    await waitFor(() => {
      expect(new URLSearchParams(router.state.location.search).get('right')).not.toBe(
        'sit_to_stand.lift_pause',
      )
    })
  })

  it('opens what a demand is called and whose limit it meets', async () => {
    const { user } = await open(ADDRESS)
    const table = await screen.findByRole('table', { name: 'What the set-up asks for, left and right' })
    const [first] = within(table).getAllByRole('button')
    expect(first?.getAttribute('aria-expanded')).toBe('false')
    await user.click(first as HTMLElement)
    expect(first?.getAttribute('aria-expanded')).toBe('true')
  })

  it('opens another ladder where its sides stand', async () => {
    const { user, router } = await open(ADDRESS)
    await user.click(await screen.findByRole('combobox', { name: 'Ladder' }))
    await user.click(await screen.findByRole('option', { name: 'Figure-four' }))
    await waitFor(() => {
      expect(router.state.location.search).toContain('figure_four.')
    })
  })

  it('puts the left lane first', async () => {
    await open(ADDRESS)
    const left = await lane('left')
    expect(left.compareDocumentPosition(await lane('right')) & Node.DOCUMENT_POSITION_FOLLOWING).toBeTruthy()
  })

  it('works on the left until somebody says otherwise', async () => {
    const { user, router } = await open(ADDRESS)
    await (await inLane('left')).findAllByRole('spinbutton')
    await screen.findByRole('region', { name: 'left: what it takes' })
    await user.keyboard(']')
    await waitFor(() => {
      const query = new URLSearchParams(router.state.location.search)
      expect(query.get('right')).toBe('sit_to_stand.lift_pause')
      expect(query.get('left')).not.toBe('low_lunge.foot_on_chair')
    })
  })
})

import { screen, waitFor, within } from '@testing-library/react'
import { describe, expect, it } from 'vitest'
import recorded from '../../testing/answers.json'
import { button, expectAccessible, open, PRACTICE, refusal } from '../../testing/app'

const SEARCH = `POST /api${PRACTICE}/clients/search`
interface Line {
  id: string
  name: string
  left: string[]
  middle: string[]
  right: string[]
  last_visit: string | null
}
const clients = (recorded as unknown as Record<string, Line[]>)[SEARCH] as Line[]
const rowOf = (name: string) => screen.findByRole('row', { name: new RegExp(name) })

describe('the clients', () => {
  it('stand in a table, left and right in their columns', async () => {
    await open(`${PRACTICE}/clients`)
    const row = within(await rowOf('Hartley Quill'))
    const cells = row.getAllByRole('gridcell')
    const said = clients.find((each) => each.name === 'Hartley Quill')
    expect(cells.map((cell) => cell.getAttribute('data-field'))).toEqual([
      'name',
      'left',
      'both',
      'right',
      'next_visit',
      'change',
      'last_visit',
    ])
    expect(cells[3]?.textContent).toBe(said?.right.join(''))
    expect(cells[1]?.textContent).toBe('')
    expect(row.getByRole('link', { name: 'Hartley Quill' }).getAttribute('href')).toBe(
      `${PRACTICE}/clients/the-client/choose`,
    )
    await expectAccessible()
  })

  it('begin with their records where there are none', async () => {
    const nobody = {
      ...clients[0],
      id: 'new',
      name: 'Wilmot Sayer',
      left: [],
      middle: [],
      right: [],
      last_visit: null,
    }
    await open(`${PRACTICE}/clients`, { [SEARCH]: [nobody] })
    const row = within(await rowOf('Wilmot Sayer'))
    expect(row.getByRole('link').getAttribute('href')).toBe(`${PRACTICE}/clients/new/limits`)
    expect(row.getByText('nothing recorded')).toBeTruthy()
    expect(row.getByText('not here yet')).toBeTruthy()
  })

  it('are sorted by a column', async () => {
    const { user } = await open(`${PRACTICE}/clients`)
    await rowOf('Hartley Quill')
    const names = () =>
      screen
        .getAllByRole('link')
        .map((each) => each.textContent)
        .filter((name) => clients.some((each) => each.name === name))
    const before = names()
    await user.click(screen.getByRole('columnheader', { name: /client/ }))
    await user.click(screen.getByRole('columnheader', { name: /client/ }))
    await waitFor(() => {
      expect(names()).toEqual([...before].sort().reverse())
    })
  })

  it('are sorted by who comes next, those not booked last', async () => {
    const days = ['2026-12-24', null, '2026-12-01']
    const booked = clients.slice(0, 3).map((each, k) => ({ ...each, next_visit: days[k] }))
    const { user } = await open(`${PRACTICE}/clients`, { [SEARCH]: booked })
    const rows = within(await screen.findByRole('grid'))
    await user.click(rows.getByText('comes next'))
    await waitFor(() => {
      const names = rows.getAllByRole('link').map((each) => each.textContent)
      expect(names).toEqual([booked[2], booked[0], booked[1]].map((each) => each?.name))
    })
  })

  it('are found by what was typed', async () => {
    const { user, sentTo } = await open(`${PRACTICE}/clients`, {
      [SEARCH]: (body: unknown) =>
        clients.filter((each) =>
          each.name.toLowerCase().includes((body as { text: string }).text.toLowerCase()),
        ),
    })
    await user.type(await screen.findByRole('textbox', { name: 'Find by name or occupation' }), 'quill')
    await waitFor(() => {
      expect(sentTo('POST', '/search').at(-1)?.body).toEqual({ text: 'quill', archived: false })
    })
    await user.type(screen.getByRole('textbox', { name: 'Find by name or occupation' }), 'x')
    expect(await screen.findByText('Nobody matches “quillx”.')).toBeTruthy()
  })

  it('are opened by Enter from any cell', async () => {
    const { user, router } = await open(`${PRACTICE}/clients`)
    const row = within(await rowOf('Hartley Quill'))
    await user.click(row.getAllByRole('gridcell')[3] as HTMLElement)
    await waitFor(() => {
      expect(router.state.location.pathname).toBe(`${PRACTICE}/clients/the-client/choose`)
    })
  })

  it('are added, what was typed kept when it is refused', async () => {
    let refused = true
    const { user, router, sentTo } = await open(`${PRACTICE}/clients`, {
      [`POST /api${PRACTICE}/clients`]: () =>
        refused
          ? refusal(422, 'Look again.', [{ field: 'name', message: 'Say a name.' }])
          : { id: 'the-client' },
    })
    await user.click(await button('New client'))
    const form = within(await screen.findByRole('dialog'))
    await user.type(form.getByRole('textbox', { name: /Occupation/ }), 'cooper')
    await user.click(form.getByRole('button', { name: 'Save' }))
    expect(await form.findByText('Say a name.')).toBeTruthy()
    await user.type(form.getByRole('textbox', { name: /Name/ }), 'Wilmot Sayer')
    await user.click(form.getAllByRole('spinbutton')[0] as HTMLElement)
    await user.keyboard('12')
    await user.click(form.getByRole('button', { name: 'Save' }))
    expect(await form.findByText('This date is not finished. Finish it, or clear it.')).toBeTruthy()
    await user.click(form.getAllByRole('spinbutton')[1] as HTMLElement)
    await user.keyboard('041961')
    refused = false
    await user.click(form.getByRole('button', { name: 'Save' }))
    await waitFor(() => {
      expect(router.state.location.pathname).toBe(`${PRACTICE}/clients/the-client/limits`)
    })
    expect(sentTo('POST', '/clients').at(-1)?.body).toMatchObject({
      name: 'Wilmot Sayer',
      occupation: 'cooper',
      birth_date: '1961-04-12',
    })
  })
})

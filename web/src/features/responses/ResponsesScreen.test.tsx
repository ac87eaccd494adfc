import { screen, waitFor, within } from '@testing-library/react'
import { describe, expect, it } from 'vitest'
import recorded from '../../testing/answers.json'
import { button, CLIENT, expectAccessible, open } from '../../testing/app'

interface Lane {
  points: { date: string; short: string }[]
}
const KEY = `GET /api${CLIENT}/responses?most=60`
const families =
  (recorded as unknown as Record<string, { name: string; left: Lane; right: Lane }[]>)[KEY] ?? []
const [first] = families

describe('the responses', () => {
  it('are charts, left and right facing, with their words', async () => {
    await open(`${CLIENT}/responses`)
    for (const side of ['left', 'right'] as const) {
      const chart = await screen.findByRole('img', { name: new RegExp(`^${side}: `) })
      expect(chart.getAttribute('aria-label')).toContain(
        `${side}: ${String(first?.[side].points.length)} holds`,
      )
    }
    await expectAccessible()
  })

  it('are a table of every hold, each with its side', async () => {
    await open(`${CLIENT}/responses`)
    const table = within((await screen.findAllByRole('grid', {}, { timeout: 8000 }))[0] as HTMLElement)
    const rows = table.getAllByRole('row').slice(1)
    const count = (side: 'left' | 'right') => first?.[side].points.length ?? 0
    const sided = (side: string) => rows.filter((row) => within(row).queryByText(side) !== null).length
    expect(sided('left')).toBe(count('left'))
    expect(sided('right')).toBe(count('right'))
  })

  it('are sorted by what was felt, by its number', async () => {
    const { user } = await open(`${CLIENT}/responses`)
    const grid = within((await screen.findAllByRole('grid', {}, { timeout: 8000 }))[0] as HTMLElement)
    const felt = () =>
      grid
        .getAllByRole('gridcell')
        .filter((each) => each.dataset['field'] === 'discomfort')
        .map((each) => Number(each.querySelector('strong')?.textContent))
    await user.click(grid.getByText('before / during / after'))
    await waitFor(() => {
      expect(felt()).toEqual(felt().toSorted((a, b) => a - b))
    })
    expect(felt().length).toBeGreaterThan(1)
  })

  it('have what was written of the visits with them, the earlier ones once asked for', async () => {
    const notes = Array.from({ length: 6 }, (_, visit) => ({
      id: `n${String(visit)}`,
      date: `2026-10-2${String(6 - visit)}`,
      text: `Visit ${String(visit)}.`,
      by: 'Ottoline Marsh',
    }))
    const { user } = await open(`${CLIENT}/responses`, { [`GET /api${CLIENT}/visit-notes`]: notes })
    await screen.findByText(/Visit 3\./)
    expect(screen.queryByText(/Visit 5\./)).toBeNull()
    await user.click(screen.getByRole('button', { name: '2 earlier notes' }))
    expect(screen.getByText(/Visit 5\./)).toBeTruthy()
  })

  it('go out as files', async () => {
    await open(`${CLIENT}/responses`)
    expect((await screen.findByRole('link', { name: 'Save as CSV' })).getAttribute('href')).toBe(
      `/api${CLIENT}/responses.csv`,
    )
    expect(screen.getByRole('link', { name: 'Save client file' }).getAttribute('href')).toBe(
      `/api${CLIENT}/file`,
    )
  })

  it('say so while nothing was logged', async () => {
    await open(`${CLIENT}/responses`, { [KEY]: [] })
    expect(await screen.findByText('Nothing logged yet')).toBeTruthy()
    expect(screen.queryByRole('grid')).toBeNull()
  })

  it('show earlier holds when they are asked for', async () => {
    const many = { ...first, left: { ...first?.left, earlier: true } }
    const { user, sent } = await open(`${CLIENT}/responses`, { [KEY]: [many] })
    const before = sent.filter((each) => each.path.endsWith('/responses')).length
    await user.click(await button('Show earlier holds'))
    await waitFor(() => {
      expect(sent.filter((each) => each.path.endsWith('/responses')).length).toBeGreaterThan(before)
    })
  })

  it('ask about mornings nobody has told of, each answer for its hold', async () => {
    const [one] = families
    const open_ = { ...one?.left.points.at(-1), id: 'a-hold', settled: null, date: '2020-01-01' }
    const asked = [{ ...one, left: { ...one?.left, points: [open_] } }]
    const { user, sentTo } = await open(`${CLIENT}/responses`, {
      [KEY]: asked,
      [`POST /api${CLIENT}/items/a-hold/morning`]: {},
    })
    const mornings = within(await screen.findByRole('region', { name: 'Did it settle by the next morning?' }))
    await user.click(mornings.getByRole('button', { name: 'settled' }))
    await waitFor(() => {
      expect(sentTo('POST', '/a-hold/morning')[0]?.body).toEqual({ settled: true })
    })
  })

  it('take another decision with its reason, and the computed one again', async () => {
    const [one] = families
    const decided = {
      ...one?.left,
      decision: { ...(one?.left as { decision?: object }).decision, own: true },
    }
    const { user, sentTo } = await open(`${CLIENT}/responses`, {
      [KEY]: [{ ...one, left: decided }],
      [`POST /api${CLIENT}/decisions`]: [],
    })
    await user.click((await screen.findAllByRole('button', { name: 'Decide otherwise' }))[0] as HTMLElement)
    const dialog = within(await screen.findByRole('dialog'))
    await user.click(dialog.getByRole('radio', { name: 'Step back' }))
    await user.type(dialog.getByRole('textbox', { name: 'Why' }), 'She travels.')
    await expectAccessible()
    await user.click(dialog.getByRole('button', { name: 'Decide' }))
    await waitFor(() => {
      expect(sentTo('POST', '/decisions')[0]?.body).toMatchObject({
        side: 'left',
        action: 'step_back',
        reason: 'She travels.',
      })
    })
    await waitFor(() => {
      expect(screen.queryByRole('dialog')).toBeNull()
    })
    await user.click((await screen.findAllByRole('button', { name: 'Decide otherwise' }))[0] as HTMLElement)
    await user.click(await button('As it follows from the sessions'))
    await waitFor(() => {
      expect(sentTo('POST', '/decisions')[1]?.body).toMatchObject({ action: 'as_computed', reason: '' })
    })
  })
})

import { screen, waitFor, within } from '@testing-library/react'
import { describe, expect, it } from 'vitest'
import recorded from '../../testing/answers.json'
import { button, expectAccessible, open, PRACTICE, refusal } from '../../testing/app'

const LIBRARY = `/api${PRACTICE}/library`
const ADDRESS = `${PRACTICE}/library/figure_four?rung=figure_four.block_flat`
const answers = recorded as unknown as Record<string, Record<string, unknown>>
const families = () => screen.findByRole('navigation', { name: 'Families' })

describe('the library', () => {
  it('has families by purpose, and one ladder drawn for a side', async () => {
    await open(ADDRESS)
    const list = within(await families())
    expect(list.getAllByRole('link', { name: 'Bound angle' }).length).toBeGreaterThan(1)
    const strip = within(await screen.findByRole('group', { name: /^Rungs of Figure-four/ }))
    expect(strip.getByRole('button', { name: /^block flat/ }).getAttribute('aria-pressed')).toBe('true')
    await expectAccessible()
  })

  it('finds families and rungs by words', async () => {
    const { user } = await open(ADDRESS)
    const list = within(await families())
    await user.type(list.getByRole('searchbox'), 'lying flat')
    await waitFor(() => {
      expect(list.queryByRole('link', { name: 'Bound angle' })).toBeNull()
    })
    expect(list.getAllByRole('link', { name: /lying flat/ }).length).toBeGreaterThan(0)
    await user.type(list.getByRole('searchbox'), 'xyz')
    expect(await list.findByText(/Nothing has/)).toBeTruthy()
  })

  it('draws for the side asked for', async () => {
    const { user, router } = await open(ADDRESS, {
      [`GET ${LIBRARY}/families/figure_four?side=right`]:
        answers[`GET ${LIBRARY}/families/figure_four?side=left`],
      [`GET ${LIBRARY}/variations/figure_four.block_flat?side=right`]:
        answers[`GET ${LIBRARY}/variations/figure_four.block_flat?side=left`],
    })
    await screen.findByRole('group', { name: /^Rungs of/ })
    const side = screen.getByRole('group', { name: 'Side that works' })
    expect(within(side).getByRole('button', { name: 'left' }).getAttribute('aria-pressed')).toBe('true')
    await user.click(within(side).getByRole('button', { name: 'right' }))
    expect(new URLSearchParams(router.state.location.search).get('side')).toBe('right')
    await waitFor(() => {
      expect(within(side).getByRole('button', { name: 'right' }).getAttribute('aria-pressed')).toBe('true')
    })
  })

  it('shows another side of the figure large', async () => {
    const { user } = await open(ADDRESS)
    const large = await screen.findByText('seen from the left')
    await user.click(await button(/seen from behind/))
    expect(large.textContent).toBe('seen from behind: left is left')
    expect(screen.getAllByRole('button', { name: /seen from/ })).toHaveLength(3)
    expect(screen.queryByRole('button', { name: /seen from behind/ })).toBeNull()
  })

  it('copies a rung, and says which field was wrong', async () => {
    let refused = true
    const { user, sentTo } = await open(ADDRESS, {
      [`POST ${LIBRARY}/variations`]: () =>
        refused
          ? refusal(422, 'Look again.', [{ field: 'variation.short', message: 'Say it shorter.' }])
          : { id: 'figure_four.block_flat', number: 1 },
    })
    await user.click(await button('Copy and adjust'))
    const form = within(await screen.findByRole('dialog'))
    const short = form.getByRole('textbox', { name: /Short name/ })
    await user.clear(short)
    await user.type(short, 'quiet')
    const name = form.getByRole('textbox', { name: 'Name' })
    await user.clear(name)
    await user.type(name, 'Quiet four')
    await user.click(form.getByRole('button', { name: 'Save' }))
    expect(await form.findByText('Say it shorter.')).toBeTruthy()
    refused = false
    await user.click(form.getByRole('button', { name: 'Save' }))
    await waitFor(() => {
      expect(screen.queryByRole('dialog')).toBeNull()
    })
    expect(sentTo('POST', '/library/variations').at(-1)?.body).toMatchObject({
      variation: { short: 'quiet', name: 'Quiet four' },
    })
  })

  it('refuses a figure that is no number before anything is sent', async () => {
    const { user, sentTo } = await open(ADDRESS)
    await user.click(await button('Copy and adjust'))
    const form = within(await screen.findByRole('dialog'))
    const [from] = form.getAllByRole('textbox', { name: /from/ })
    await user.clear(from as HTMLElement)
    await user.type(from as HTMLElement, 'some')
    await user.click(form.getByRole('button', { name: 'Save' }))
    expect(await form.findByText(/one field needs another look/)).toBeTruthy()
    expect(sentTo('POST', '/library/variations')).toHaveLength(0)
  })

  it('has a card to print', async () => {
    await open(`${PRACTICE}/library/card/figure_four.block_flat?side=left`)
    expect(await screen.findByText('What you need')).toBeTruthy()
    expect(screen.getByRole('link', { name: 'Back to the Library' }).getAttribute('href')).toContain(
      '/library/figure_four?',
    )
    await expectAccessible()
  })

  it('finds what was put away by its words, too', async () => {
    const shelf = answers[`GET ${LIBRARY}`]
    const retired = [
      { variation: 'figure_four.quiet', name: 'Quiet figure-four' },
      { variation: 'squat.ours', name: 'Our squat' },
    ]
    const { user } = await open(ADDRESS, { [`GET ${LIBRARY}`]: { ...shelf, retired } })
    const list = within(await families())
    expect(list.getByRole('link', { name: 'Our squat' })).toBeTruthy()
    await user.type(list.getByRole('searchbox'), 'quiet')
    await waitFor(() => {
      expect(list.queryByRole('link', { name: 'Our squat' })).toBeNull()
    })
    expect(list.getByRole('link', { name: 'Quiet figure-four' })).toBeTruthy()
  })

  it('opens for one of the practice’s own what can be done with it, and each only then', async () => {
    const key = `GET ${LIBRARY}/variations/figure_four.block_flat?side=left`
    const mine = { number: 2, saved_on: '2026-11-20', saved_by: 'Ottoline Marsh', retired: false }
    const { user } = await open(ADDRESS, {
      [key]: { ...answers[key], own: mine },
      [`GET ${LIBRARY}/variations/figure_four.block_flat/versions`]: [],
    })
    expect(await screen.findByText(/Your own, version 2/)).toBeTruthy()
    expect(screen.queryByRole('dialog')).toBeNull()
    for (const [opens, named] of [
      ['Versions', /^Versions/],
      ['Put away', /^Put “.+” away/],
    ] as const) {
      await user.click(await button(opens))
      const dialog = within(await screen.findByRole('dialog', { name: named }))
      expect(screen.getAllByRole('dialog')).toHaveLength(1)
      await user.click(dialog.getByRole('button', { name: /^(Close|Cancel)$/ }))
      await waitFor(() => {
        expect(screen.queryByRole('dialog')).toBeNull()
      })
    }
  })
})

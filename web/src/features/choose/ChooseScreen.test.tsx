import { screen, waitFor, within } from '@testing-library/react'
import { describe, expect, it } from 'vitest'
import type { Schemas } from '../../api/client'
import { button, CLIENT, expectAccessible, open } from '../../testing/app'

type Ladder = Schemas['LadderOut']
const lane = (side: string) => screen.findByRole('group', { name: `Figure-four, ${side}` })

describe('the ladders', () => {
  it('stand in facing lanes, each rung with its side and its verdict', async () => {
    await open(`${CLIENT}/choose`)
    const left = within(await lane('left')).getAllByRole('button')
    const right = within(await lane('right')).getAllByRole('button')
    expect(left.map((each) => each.textContent)).toHaveLength(right.length)
    for (const each of left)
      expect(each.textContent).toMatch(/left, .*(clear|with set-up|with your eye|check first|leave out)/)
    for (const each of right) expect(each.textContent).toMatch(/right, /)
    await expectAccessible()
  })

  it('take one rung for each side to their set-ups', async () => {
    const { user, router } = await open(`${CLIENT}/choose`)
    const go = await button('Open the set-up')
    expect(go).toHaveProperty('disabled', true)
    await user.click(within(await lane('left')).getByRole('button', { name: /^left, on end/ }))
    await user.click(within(await lane('right')).getByRole('button', { name: /^right, block flat/ }))
    const panel = go.closest('section') as HTMLElement
    expect(panel.textContent).toContain('Figure-four, foot on a block on end')
    expect(panel.textContent).toContain('Figure-four, foot on a block lying flat')
    await user.click(await button('Set up both sides'))
    await waitFor(() => {
      expect(router.state.location.pathname).toBe(`${CLIENT}/set-up`)
    })
    const query = new URLSearchParams(router.state.location.search)
    expect(query.get('left')).toBe('figure_four.block_end')
    expect(query.get('right')).toBe('figure_four.block_flat')
  })

  it('say of a closed rung why, and name no set-up for it', async () => {
    const key = `GET /api${CLIENT}/ladders/figure_four`
    const { default: recorded } = await import('../../testing/answers.json')
    const ladder = structuredClone((recorded as unknown as Record<string, Ladder>)[key] as Ladder)
    const [first, second] = ladder.left.rungs
    Object.assign(first ?? {}, {
      verdict: 'leave_out',
      line: 'seat 49',
      reasons: ['The hip bends past 90°.'],
    })
    Object.assign(second ?? {}, { verdict: 'clear', line: 'seat 45', reasons: [] })
    const { user } = await open(`${CLIENT}/choose`, { [key]: ladder })
    const rungs = within(await lane('left'))
    const panel = (await button('Open the set-up')).closest('section') as HTMLElement
    await user.click(rungs.getAllByRole('button')[0] as HTMLElement)
    expect(panel.textContent).toContain('The hip bends past 90°.')
    expect(panel.textContent).not.toContain('seat 49')
    await user.click(rungs.getAllByRole('button')[1] as HTMLElement)
    expect(panel.textContent).toContain('seat 45')
  })

  it('say of a ladder that rests no rung is open, and leave what is closed or asked as it is', async () => {
    const key = `GET /api${CLIENT}/ladders/figure_four`
    const { default: recorded } = await import('../../testing/answers.json')
    const ladder = structuredClone((recorded as unknown as Record<string, Ladder>)[key] as Ladder)
    const verdicts = ['leave_out', 'check_first', 'clear', 'with_eye'] as const
    ladder.left.rungs.forEach((rung, place) => {
      rung.verdict = verdicts[place % verdicts.length] ?? 'clear'
    })
    Object.assign(ladder.left.decision, { action: 'leave_out', reason: 'Leave this ladder out.', step: null })
    await open(`${CLIENT}/choose`, { [key]: ladder })
    const said = within(await lane('left'))
      .getAllByRole('button')
      .map((each) => each.textContent)
    const words = {
      leave_out: 'leave out',
      check_first: 'check first',
      clear: 'rests for now',
      with_eye: 'rests for now',
    }
    said.forEach((each, place) => {
      expect(each).toContain(words[verdicts[place % verdicts.length] ?? 'clear'])
    })
    expect(within(await lane('right')).queryByText(/rests for now/)).toBeNull()
  })

  it('are those of the purpose asked for', async () => {
    const { user } = await open(`${CLIENT}/choose`)
    await lane('left')
    expect(screen.getByText('1 ladder')).toBeTruthy()
    await user.click(screen.getByRole('combobox', { name: 'What for' }))
    await user.click(await screen.findByRole('option', { name: 'open the inner thighs' }))
    expect(screen.queryByRole('group', { name: 'Figure-four, left' })).toBeNull()
    expect(screen.getByRole('heading', { name: 'Bound angle' })).toBeTruthy()
  })

  it('fall one by one, each with its own way to try again', async () => {
    const { user, sentTo } = await open(`${CLIENT}/choose`, {
      [`GET /api${CLIENT}/ladders/figure_four`]: { refused: 500, message: 'It broke.', code: '', fields: [] },
    })
    expect(await screen.findByText(/It broke\./)).toBeTruthy()
    const asked = sentTo('GET', '/ladders/figure_four').length
    await user.click(await button('Try again'))
    expect(sentTo('GET', '/ladders/figure_four').length).toBeGreaterThan(asked)
  })

  it('of a shape both legs share have one lane, chosen for both', async () => {
    const other = '/api/practices/the-practice/clients/the-other'
    const client = { ...(await import('../../testing/answers.json')).default }
    const ladder = client[`GET ${other}/ladders/bound_angle`]
    const { user, router } = await open(`${CLIENT}/choose`, {
      [`GET /api${CLIENT}/families`]: [
        { family: 'bound_angle', name: 'Bound angle', about: '', purposes: [], positions: [], worked: true },
      ],
      [`GET /api${CLIENT}/ladders/bound_angle`]: ladder,
    })
    const both = await screen.findByRole('group', { name: 'Bound angle, both' })
    expect(screen.queryByRole('group', { name: 'Bound angle, right' })).toBeNull()
    await user.click(within(both).getByRole('button', { name: /^both, high/ }))
    await user.click(await button('Open the set-up'))
    await waitFor(() => {
      expect(router.state.location.pathname).toBe(`${CLIENT}/set-up`)
    })
    const query = new URLSearchParams(router.state.location.search)
    expect(query.get('left')).toBe(query.get('right'))
  })
})

describe('looking for a ladder', () => {
  it('finds it by a common name, whatever it is for', async () => {
    const { user } = await open(`${CLIENT}/choose`)
    await user.type(await screen.findByRole('searchbox', { name: 'Find a ladder' }), 'butterfly')
    expect(await screen.findByRole('heading', { name: 'Bound angle' })).toBeTruthy()
    expect(screen.queryByRole('heading', { name: 'Figure-four' })).toBeNull()
    await user.type(screen.getByRole('searchbox', { name: 'Find a ladder' }), ' xyz')
    expect(await screen.findByText('Nothing here goes by “butterfly xyz”')).toBeTruthy()
  })
})

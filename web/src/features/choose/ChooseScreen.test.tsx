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

  it('are those of the purposes asked for, several at once', async () => {
    const { user } = await open(`${CLIENT}/choose`)
    await lane('left')
    const family = (name: string) => screen.queryByRole('button', { name: new RegExp(`^${name}`) })
    await user.click(await button(/^open the inner thighs/))
    expect(family('Figure-four')).toBeNull()
    expect(family('Bound angle')).toBeTruthy()
    await user.click(await button(/^open the outer hip/))
    expect(family('Figure-four')).toBeTruthy()
    expect(family('Bound angle')).toBeTruthy()
  })

  it('are only those that fit what is ticked', async () => {
    const { user } = await open(`${CLIENT}/choose`)
    await lane('left')
    await user.click(screen.getByRole('checkbox', { name: 'chair only' }))
    expect(screen.getByRole('button', { name: /^Figure-four/ })).toBeTruthy()
    expect(screen.queryByRole('button', { name: /^Low lunge ?; left/ })).toBeNull()
  })

  it('open in place and close again, and stay as they were left', async () => {
    const { user } = await open(`${CLIENT}/choose`)
    await lane('left')
    const row = screen.getByRole('button', { name: /^Figure-four ?; left: \d of \d open; right: / })
    expect(row.getAttribute('aria-expanded')).toBe('true')
    await user.click(row)
    expect(screen.queryByRole('group', { name: 'Figure-four, left' })).toBeNull()
    expect(row.getAttribute('aria-expanded')).toBe('false')
  })

  describe('of which the last one comes late', () => {
    const rows = () =>
      screen
        .getAllByRole('button', { expanded: false })
        .concat(screen.queryAllByRole('button', { expanded: true }))
        .sort((one, other) =>
          one.compareDocumentPosition(other) & Node.DOCUMENT_POSITION_PRECEDING ? 1 : -1,
        )
        .map((row) => row.textContent.charAt(0))
        .join('')
    /** Seven ladders: of A nothing is open, and G is judged when it is told to be. */
    async function seven(last: (ladder: Ladder) => void = () => undefined, worked: string | null = null) {
      const { default: recorded } = await import('../../testing/answers.json')
      const key = `GET /api${CLIENT}/ladders/figure_four`
      const some = (recorded as unknown as Record<string, Ladder>)[key] as Ladder
      let judge: (ladder: Ladder) => void = () => undefined
      const late = new Promise<Ladder>((resolve) => {
        judge = resolve
      })
      const ladders = ['a', 'b', 'c', 'd', 'e', 'f', 'g'].map((family) => ({
        ...structuredClone(some),
        family,
        name: family.toUpperCase(),
      }))
      const closed = ladders[0] as Ladder
      for (const rung of [...closed.left.rungs, ...closed.right.rungs]) rung.verdict = 'leave_out'
      last(ladders[6] as Ladder)
      const line = { about: '', purposes: [], positions: [], last: null, found_by: '' }
      const { user } = await open(`${CLIENT}/choose`, {
        [`GET /api${CLIENT}/families`]: ladders.map(({ family, name }) => ({
          ...line,
          family,
          name,
          last: family === 'a' ? worked : null,
        })),
        ...Object.fromEntries(ladders.map((each) => [`GET /api${CLIENT}/ladders/${each.family}`, each])),
        [`GET /api${CLIENT}/ladders/g`]: late,
      })
      await screen.findByRole('button', { name: /^B ?; left: \d/ })
      // What is closed is shown too.
      await user.click(screen.getByRole('checkbox', { name: 'open today' }))
      expect(rows()).toBe('ABCDEFG')
      return {
        user,
        judge: async (only = '') => {
          judge(ladders[6] as Ladder)
          if (only === '') await screen.findByRole('button', { name: /^G ?; left: \d/ })
          else await screen.findByText(/^\d ladders? of 7$/)
        },
      }
    }

    it('stand in their order when it came', async () => {
      const { judge } = await seven()
      await judge()
      expect(rows()).toBe('BCDEFGA')
    })

    it('stay where they are when one of them is worked on already', async () => {
      const { user, judge } = await seven()
      await user.click(await button(/^A ?; left: \d/))
      expect(screen.getByRole('group', { name: 'A, left' })).toBeTruthy()
      await judge()
      expect(rows()).toBe('ABCDEFG')
      expect(screen.getByRole('group', { name: 'A, left' })).toBeTruthy()
    })

    it.each([null, '2026-11-20'])(
      'do not open by themselves what somebody already looks for (%s)',
      async (last) => {
        const { user, judge } = await seven(undefined, last)
        await user.type(screen.getByRole('searchbox', { name: 'Find a ladder' }), 'B')
        const found = await button(/^B ?; left/)
        expect(found.getAttribute('aria-expanded')).toBe('false')
        await judge('B')
        expect(found.getAttribute('aria-expanded')).toBe('false')
        await user.click(found)
        expect(screen.getByRole('group', { name: 'B, left' })).toBeTruthy()
      },
    )

    it('stay when they were opened before it was known that nothing is open', async () => {
      const { user, judge } = await seven((ladder) => {
        for (const rung of [...ladder.left.rungs, ...ladder.right.rungs]) rung.verdict = 'leave_out'
      })
      await user.click(screen.getByRole('checkbox', { name: 'open today' }))
      await user.click(await button(/^G/))
      await judge()
      expect(rows()).toBe('BCDEFG')
      // Narrowed anew, the list is what is asked for.
      await user.click(screen.getByRole('checkbox', { name: 'chair only' }))
      expect(rows()).not.toContain('G')
    })
  })

  it('that could not be had are named together, with a way to try again', async () => {
    const { user, sentTo } = await open(`${CLIENT}/choose`, {
      [`GET /api${CLIENT}/ladders/figure_four`]: { refused: 500, message: 'It broke.', code: '', fields: [] },
    })
    expect((await screen.findByText(/It broke\./)).closest('section')?.textContent).toContain('Figure-four')
    const asked = sentTo('GET', '/ladders').length
    await user.click(await button('Try again'))
    expect(sentTo('GET', '/ladders').length).toBeGreaterThan(asked)
  })

  it('of a shape both legs share have one lane, chosen for both', async () => {
    const other = '/api/practices/the-practice/clients/the-other'
    const client = { ...(await import('../../testing/answers.json')).default }
    const ladder = client[`GET ${other}/ladders/bound_angle`]
    const { user, router } = await open(`${CLIENT}/choose`, {
      [`GET /api${CLIENT}/families`]: [
        {
          family: 'bound_angle',
          name: 'Bound angle',
          about: '',
          purposes: [],
          positions: [],
          last: '2026-11-20',
          found_by: '',
        },
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
    expect(await screen.findByRole('heading', { name: /^Bound angle/ })).toBeTruthy()
    expect(screen.queryByRole('heading', { name: /^Figure-four/ })).toBeNull()
    await user.type(screen.getByRole('searchbox', { name: 'Find a ladder' }), ' xyz')
    expect(await screen.findByText('Nothing here goes by “butterfly xyz”')).toBeTruthy()
  })
})

describe('a closed rung', () => {
  const key = `GET /api${CLIENT}/ladders/figure_four`
  const closed = async () => {
    const { default: recorded } = await import('../../testing/answers.json')
    const ladder = structuredClone((recorded as unknown as Record<string, Ladder>)[key] as Ladder)
    Object.assign(ladder.right.rungs.at(-1) ?? {}, {
      verdict: 'check_first',
      brief: 'how the knee is today',
      reasons: ['Not known: how the knee is today.'],
    })
    return ladder
  }
  const why = (openers: object[]) => ({
    [`GET /api${CLIENT}/why-not/figure_four.leaning/right`]: {
      verdict: 'check_first',
      closed_by: [],
      openers,
    },
  })

  it('says in few words why, before it is touched', async () => {
    await open(`${CLIENT}/choose`, { [key]: await closed() })
    const rungs = within(await lane('right')).getAllByRole('button')
    expect(rungs.at(-1)?.textContent).toContain('how the knee is today')
  })

  it('says what would open it, and takes the answer of the day where it asks for it', async () => {
    const entry_id = 'the-knee'
    const { user, sentTo } = await open(`${CLIENT}/choose`, {
      [key]: await closed(),
      ...why([
        { by: 'answer', words: 'An answer: how the knee is today', verdict: 'with_eye', entry_id },
        { by: 'reading', words: 'Knee bend, left, read at 130° or more', verdict: 'clear', entry_id: null },
      ]),
      [`GET /api${CLIENT}`]: {
        ...((await import('../../testing/answers.json')).default as unknown as Record<string, object>)[
          `GET /api${CLIENT}`
        ],
        asked: [{ entry_id, label: 'Knee', side: 'right', pain_today: null, irritable: 'no' }],
      },
      [`POST /api${CLIENT}/entries/${entry_id}/daily`]: [],
    })
    await user.click(
      within(await lane('right'))
        .getAllByRole('button')
        .at(-1) as HTMLElement,
    )
    const panel = (await button('Open the set-up')).closest('section') as HTMLElement
    expect(await within(panel).findByText(/An answer: how the knee is today/)).toBeTruthy()
    expect(within(panel).getByRole('link', { name: 'Measure it' })).toBeTruthy()
    await user.click(within(panel).getByRole('button', { name: /\b3\b/ }))
    expect(sentTo('POST', '/daily')[0]?.body).toEqual({ pain_today: 3, irritable: 'unknown' })
  })

  it('says so where nothing opens it', async () => {
    const { user } = await open(`${CLIENT}/choose`, { [key]: await closed(), ...why([]) })
    await user.click(
      within(await lane('right'))
        .getAllByRole('button')
        .at(-1) as HTMLElement,
    )
    expect(await screen.findByText(/Nothing that is known of opens it/)).toBeTruthy()
  })
})

describe('rungs side by side', () => {
  it('are up to three, each with its figure, what to fetch and what to mind', async () => {
    const setup = (name: string, side: string) => ({
      name,
      side,
      shared: false,
      verdict: 'with_eye',
      no_stack: null,
      options: [
        {
          words: 'seat 49',
          detail: {
            figure: '',
            fetch: [`${name} block`],
            purpose_percent: 83.4,
            technique_words: 'by the chair',
            findings: [{ sentence: `Mind ${name}.` }],
            unmet: [],
            rulers: {
              left: [
                { name: 'hip bend', margin: 12, error: 5, unit: 'deg' },
                { name: 'knee bend', margin: 3, error: 5, unit: 'deg' },
              ],
              right: [],
            },
          },
        },
      ],
    })
    const { user } = await open(`${CLIENT}/choose`, {
      [`GET /api${CLIENT}/setups/figure_four.block_end/left`]: setup('First', 'left'),
      [`GET /api${CLIENT}/setups/figure_four.block_flat/right`]: setup('Second', 'right'),
    })
    await user.click(within(await lane('left')).getByRole('button', { name: /^left, on end/ }))
    await user.click(await button('Put beside others'))
    expect(screen.queryByRole('button', { name: /^Compare/ })).toBeNull()
    await user.click(within(await lane('right')).getByRole('button', { name: /^right, block flat/ }))
    await user.click(await button('Put beside others'))
    await user.click(await button('Compare 2'))
    const table = within(await screen.findByRole('table'))
    expect(table.getByText('First block')).toBeTruthy()
    expect(table.getByText('Mind Second.')).toBeTruthy()
    expect(table.getAllByText('83 %')).toHaveLength(2)
    expect(table.getAllByText('knee bend, left: 3° to spare')).toHaveLength(2)
  })
})

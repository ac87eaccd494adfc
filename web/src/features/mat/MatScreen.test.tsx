import { screen, waitFor, within } from '@testing-library/react'
import { describe, expect, it } from 'vitest'
import recorded from '../../testing/answers.json'
import { button, CLIENT, expectAccessible, open, refusal } from '../../testing/app'

const MAT = `GET /api${CLIENT}/mat`
interface Side {
  variation: string
  short: string
  step_back: { variation: string; short: string } | null
}
interface Family {
  family: string
  name: string
  left: Side | null
  right: Side | null
}
const mat = (recorded as unknown as Record<string, { families: Family[]; morning_open: unknown[] }>)[MAT] as {
  families: Family[]
  morning_open: unknown[]
}
/** One ladder on the plan, worked on both sides. */
const both = {
  ...mat,
  families: [{ ...mat.families[0], left: mat.families[0]?.left, right: { ...mat.families[0]?.left } }],
}
const own = { [MAT]: both, [`POST /api${CLIENT}/items`]: both }
const lane = async (side: string) => within(await screen.findByRole('region', { name: side }))

describe('the mat', () => {
  it('logs what was touched, for the side it was touched on', async () => {
    const { user, sentTo } = await open(`${CLIENT}/mat`, own)
    const right = await lane('right')
    await user.click(right.getByRole('button', { name: 'Log right' }))
    expect(right.getByRole('alert').textContent).toBe('Tap the discomfort during the hold first.')
    await user.click(right.getByRole('button', { name: 'during 3, right' }))
    // The next number is the one after.
    await user.click(right.getByRole('button', { name: 'after 1, right' }))
    await user.click(right.getByRole('button', { name: 'Log right' }))
    expect(right.getByRole('alert').textContent).toMatch(/is not said/)
    await user.click(right.getByRole('button', { name: 'pinching' }))
    await user.click(right.getByRole('button', { name: 'groin' }))
    await user.click(right.getByRole('button', { name: 'breath held' }))
    await user.type(right.getByRole('textbox', { name: 'Note' }), 'slower')
    await user.click(right.getByRole('button', { name: 'Log right' }))
    await waitFor(() => {
      expect(sentTo('POST', '/items')[0]?.body).toMatchObject({
        side: 'right',
        during: 3,
        after: 1,
        kind: 'pinching',
        place: 'groin',
        signs: ['breath_held'],
        note: 'slower',
      })
    })
  })

  it('says calm, where wanted, and nothing seen in one touch', async () => {
    const { user, sentTo } = await open(`${CLIENT}/mat`, own)
    const left = await lane('left')
    await user.click(left.getByRole('button', { name: 'during 0, left' }))
    await user.click(left.getByRole('button', { name: 'Calm, where wanted' }))
    expect(left.getByRole('button', { name: 'Calm, where wanted' }).getAttribute('aria-pressed')).toBe('true')
    await user.click(left.getByRole('button', { name: 'Log left' }))
    await waitFor(() => {
      expect(sentTo('POST', '/items')[0]?.body).toMatchObject({
        kind: 'calm',
        place: 'wanted',
        signs: [],
        side: 'left',
      })
    })
  })

  it('keeps everything when it could not be sent', async () => {
    const { user } = await open(`${CLIENT}/mat`, {
      ...own,
      [`POST /api${CLIENT}/items`]: refusal(503, 'Not now.'),
    })
    const left = await lane('left')
    await user.click(left.getByRole('button', { name: 'during 2, left' }))
    await user.click(left.getByRole('button', { name: 'Calm, where wanted' }))
    await user.click(left.getByRole('button', { name: 'Log left' }))
    expect(await left.findByText(/Not now\./)).toBeTruthy()
    expect(left.getByRole('button', { name: 'during 2' })).toBeTruthy()
  })

  it('steps back to the gentler rung and to the plan again', async () => {
    const planned = both.families[0]?.left as Side
    const gentler = { ...planned, short: 'gentler', variation: 'gentler' }
    const answer = { ...both, families: [{ ...both.families[0], left: { ...planned, step_back: gentler } }] }
    const { user } = await open(`${CLIENT}/mat`, { [MAT]: answer })
    const left = await lane('left')
    await user.click(left.getByRole('button', { name: /^Step back, left/ }))
    expect(left.getByText('gentler')).toBeTruthy()
    await user.click(left.getByRole('button', { name: /^Back to the plan, left/ }))
    expect(left.queryByText('gentler')).toBeNull()
    expect(left.getByText(planned.short)).toBeTruthy()
  })

  it('has digits say the discomfort on the side that is worked on', async () => {
    const { user } = await open(`${CLIENT}/mat`, own)
    const right = await lane('right')
    await user.keyboard('r4')
    expect(right.getByRole('button', { name: 'during 4' })).toBeTruthy()
    const left = await lane('left')
    expect(left.getByRole('button', { name: 'during –' })).toBeTruthy()
    await user.keyboard('l)')
    expect(left.getByRole('button', { name: 'during 10' })).toBeTruthy()
  })

  it('times the side that is worked on, and begins anew', async () => {
    const { user } = await open(`${CLIENT}/mat`, own)
    await lane('left')
    expect(screen.getByRole('timer', { name: 'Hold, left' })).toBeTruthy()
    await user.click(await button('Start'))
    await user.click((await lane('right')).getByText(/First time|Last time/))
    expect(screen.getByRole('timer', { name: 'Hold, left' })).toBeTruthy()
    expect(screen.getByText('timing the left')).toBeTruthy()
    await user.click(await button('Pause'))
    await user.click(await button('Again'))
    expect(screen.getByRole('timer', { name: 'Hold, right' })).toBeTruthy()
    await expectAccessible()
  })

  it('asks how the morning was, each answer for its hold', async () => {
    const held = { id: 'a-hold', side: 'left', short: 'on end', date: '2026-11-20' }
    const { user, sentTo } = await open(`${CLIENT}/mat`, {
      [MAT]: { ...both, morning_open: [held, { ...held, id: 'b-hold', side: 'right' }] },
      [`POST /api${CLIENT}/items/a-hold/morning`]: both,
      [`POST /api${CLIENT}/items/b-hold/morning`]: both,
    })
    const asked = within(await screen.findByRole('region', { name: 'Did it settle by the next morning?' }))
    await user.click(asked.getAllByRole('button', { name: 'not settled' })[0] as HTMLElement)
    await waitFor(() => {
      expect(sentTo('POST', '/a-hold/morning')[0]?.body).toEqual({ settled: false })
    })
  })

  it('answers settled as settled', async () => {
    const held = { id: 'a-hold', side: 'left', short: 'on end', date: '2026-11-20' }
    const { user, sentTo } = await open(`${CLIENT}/mat`, {
      [MAT]: { ...both, morning_open: [held] },
      [`POST /api${CLIENT}/items/a-hold/morning`]: both,
    })
    await user.click(await button('settled'))
    await waitFor(() => {
      expect(sentTo('POST', '/a-hold/morning')[0]?.body).toEqual({ settled: true })
    })
  })

  it('corrects a hold in its own place, and logs another round', async () => {
    const logged = {
      id: 'a-hold', variation: 'x', side: 'left', short: 'on end', date: '2026-11-28', dose: '30 s', dose_s: 30, held_s: 20,
      before: null, during: 2, after: null, kind: 'stretch', place: 'hip', signs: [], note: '', tolerance: 'watch',
      setup_words: '', settled: null,
    } // prettier-ignore
    const left = { ...both.families[0]?.left, logged_today: [logged] }
    const answer = { ...both, families: [{ ...both.families[0], left }] }
    const { user, sentTo } = await open(`${CLIENT}/mat`, {
      [MAT]: answer,
      [`PUT /api${CLIENT}/items/a-hold`]: answer,
    })
    const shown = await lane('left')
    expect(shown.getByText(/held 20 s of 30 s/)).toBeTruthy()
    await user.click(shown.getByRole('button', { name: 'Correct' }))
    expect(shown.getByRole('button', { name: 'during 2' })).toBeTruthy()
    await user.click(shown.getByRole('button', { name: 'during 5, left' }))
    await user.click(shown.getByRole('button', { name: 'Save the correction' }))
    await waitFor(() => {
      expect(sentTo('PUT', '/items/a-hold')[0]?.body).toMatchObject({ during: 5, kind: 'stretch' })
    })
    await user.click(await shown.findByRole('button', { name: 'Log another round' }))
    expect(shown.getByRole('button', { name: 'during –' })).toBeTruthy()
  })

  it('changes between the ladders of the plan', async () => {
    const { user } = await open(`${CLIENT}/mat`)
    const tabs = await screen.findAllByRole('tab')
    expect(tabs).toHaveLength(mat.families.length)
    await user.click(tabs[1] as HTMLElement)
    await waitFor(() => {
      expect(screen.getByRole('tabpanel').getAttribute('aria-labelledby')).toBe(tabs[1]?.id)
    })
  })

  it('leads to the set-up while nothing is planned', async () => {
    await open(`${CLIENT}/mat`, { [MAT]: { ...mat, families: [], morning_open: [] } })
    expect(await screen.findByText('Nothing on today’s plan yet')).toBeTruthy()
    expect(screen.getByRole('link', { name: 'To the set-up' })).toBeTruthy()
  })

  it('keeps in sight what limits and what is to be asked, and nothing else', async () => {
    const key = `GET /api${CLIENT}`
    const head = (recorded as unknown as Record<string, object>)[key]
    const notes = ['fact', 'limit', 'ask', 'promise'].map((weight) => ({
      side: 'right',
      weight,
      text: `a ${weight}`,
      entry_id: null,
    }))
    await open(`${CLIENT}/mat`, { ...own, [key]: { ...head, notes } })
    expect(await screen.findByText('a limit', { exact: false })).toBeTruthy()
    expect(screen.getByText('a ask', { exact: false }).textContent).toContain('right')
    expect(screen.queryByText('a fact', { exact: false })).toBeNull()
    expect(screen.queryByText('a promise', { exact: false })).toBeNull()
  })

  it('has each side’s own rung on its own lane, and says which side nothing is planned for', async () => {
    const [family] = mat.families
    const left = { ...family?.left, variation: 'x.left', short: 'short of the left' }
    const right = { ...family?.left, variation: 'x.right', short: 'short of the right' }
    await open(`${CLIENT}/mat`, { [MAT]: { ...mat, families: [{ ...family, left, right }] } })
    expect((await lane('left')).getByText('short of the left')).toBeTruthy()
    const other = await lane('right')
    expect(other.getByText('short of the right')).toBeTruthy()
    expect(other.queryByText('short of the left')).toBeNull()
    // Left of right, as the client's own sides are seen.
    const [first, second] = screen.getAllByRole('region', { name: /^(left|right)$/ })
    expect([first, second].map((each) => each?.getAttribute('aria-label'))).toEqual(['left', 'right'])
  })

  it('has one lane for both where the legs share a shape, and logs it once', async () => {
    const [family] = mat.families
    const shared = { ...family, shared: true, left: family?.left, right: family?.left }
    const { user, sentTo } = await open(`${CLIENT}/mat`, {
      [MAT]: { ...mat, families: [shared] },
      [`POST /api${CLIENT}/items`]: mat,
    })
    const both = await lane('both')
    expect(screen.queryByRole('region', { name: 'right' })).toBeNull()
    await user.click(both.getByRole('button', { name: 'during 1, both' }))
    await user.click(both.getByRole('button', { name: 'Calm, where wanted' }))
    await user.click(both.getByRole('button', { name: 'Log both' }))
    await waitFor(() => {
      expect(sentTo('POST', '/items')).toHaveLength(1)
    })
  })

  it('goes by keys to the side that is named', async () => {
    const { user } = await open(`${CLIENT}/mat`, own)
    const right = await lane('right')
    await user.keyboard('r4')
    expect(right.getByRole('button', { name: 'during 4, right' }).getAttribute('aria-pressed')).toBe('true')
    expect(
      (await lane('left')).getByRole('button', { name: 'during 4, left' }).getAttribute('aria-pressed'),
    ).toBe('false')
    await user.keyboard('l2')
    expect(
      (await lane('left')).getByRole('button', { name: 'during 2, left' }).getAttribute('aria-pressed'),
    ).toBe('true')
  })
})

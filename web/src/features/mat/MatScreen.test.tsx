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
const mat = (recorded as unknown as Record<string, unknown>)[MAT] as {
  date: string
  families: Family[]
  morning_open: unknown[]
}
/** One ladder on the plan, worked on both sides. */
const both = {
  ...mat,
  families: [{ ...mat.families[0], left: mat.families[0]?.left, right: { ...mat.families[0]?.left } }],
}
const HELD = {
  id: 'a-hold', variation: 'x', side: 'left', short: 'on end', date: '2026-11-28', dose: '30 s', dose_s: 30, held_s: 20,
  before: null, during: 2, after: null, kind: 'stretch', place: 'hip', signs: [], note: '', tolerance: 'watch',
  setup_words: '', settled: null,
} // prettier-ignore
const own = { [MAT]: both, [`POST /api${CLIENT}/items`]: both }
const lane = async (side: string) => within(await screen.findByRole('region', { name: side }))

/** The mat with the arrival behind it. */
async function begin(answers: Parameters<typeof open>[1] = own) {
  const opened = await open(`${CLIENT}/mat`, answers)
  await opened.user.click(await button('Begin'))
  return opened
}

describe('the mat', () => {
  it('has the side that is worked on large, and the other waiting beside it', async () => {
    const { user } = await begin()
    const left = await lane('left')
    expect(left.getByRole('button', { name: 'Log left' })).toBeTruthy()
    const right = await lane('right')
    expect(right.getByText('waits')).toBeTruthy()
    expect(right.queryByRole('button', { name: /^during/ })).toBeNull()
    await expectAccessible()
    await user.click(right.getByRole('button', { name: 'To the right side' }))
    expect((await lane('right')).getByRole('button', { name: 'Log right' })).toBeTruthy()
    expect((await lane('left')).getByRole('button', { name: 'To the left side' })).toBeTruthy()
    // Left of right, whichever is worked on.
    const sides = screen.getAllByRole('region', { name: /^(left|right)$/ })
    expect(sides.map((each) => each.getAttribute('aria-label'))).toEqual(['left', 'right'])
  })

  it('logs in four touches and goes on to the other side', async () => {
    const family = both.families[0] as Family
    const done = { ...family, left: { ...family.left, logged_today: [HELD] } }
    const { user, sentTo } = await begin({
      ...own,
      [`POST /api${CLIENT}/items`]: { ...both, families: [done] },
    })
    const left = await lane('left')
    await user.click(left.getByRole('button', { name: 'during 1, left' }))
    await user.click(left.getByRole('button', { name: 'after 0, left' }))
    await user.click(left.getByRole('button', { name: 'Calm, where wanted' }))
    await user.click(left.getByRole('button', { name: 'Log left' }))
    await waitFor(() => {
      expect(sentTo('POST', '/items')[0]?.body).toMatchObject({
        side: 'left',
        during: 1,
        after: 0,
        kind: 'calm',
        place: 'wanted',
        signs: [],
      })
    })
    expect(await screen.findByRole('button', { name: 'Log right' })).toBeTruthy()
  })

  it('asks for what is missing, and takes place, signs and a note on demand', async () => {
    const { user, sentTo } = await begin()
    await user.click((await lane('right')).getByRole('button', { name: 'To the right side' }))
    const right = await lane('right')
    await user.click(right.getByRole('button', { name: 'Log right' }))
    expect(right.getByRole('alert').textContent).toBe('Tap the discomfort during the hold first.')
    await user.click(right.getByRole('button', { name: 'during 3, right' }))
    // The next number is the one after.
    await user.click(right.getByRole('button', { name: 'after 1, right' }))
    await user.click(right.getByRole('button', { name: 'Log right' }))
    expect(right.getByRole('alert').textContent).toMatch(/is not said/)
    await user.click(right.getByRole('button', { name: 'pinching' }))
    expect(right.queryByRole('button', { name: 'groin' })).toBeNull()
    await user.click(right.getByRole('button', { name: /^place/ }))
    await user.click(right.getByRole('button', { name: 'groin' }))
    await user.click(right.getByRole('button', { name: 'knee drifts in' }))
    await user.type(right.getByRole('textbox', { name: 'Note' }), 'slower')
    await user.click(right.getByRole('button', { name: 'Log right' }))
    await waitFor(() => {
      expect(sentTo('POST', '/items')[0]?.body).toMatchObject({
        side: 'right',
        during: 3,
        after: 1,
        kind: 'pinching',
        place: 'groin',
        signs: ['knee_drifts_in'],
        note: 'slower',
      })
    })
  })

  it('takes the discomfort on arrival for the one before, unless another is said', async () => {
    const { user, sentTo } = await open(`${CLIENT}/mat`, own)
    await user.click(await button('discomfort now 2'))
    await user.click(await button('Begin'))
    const left = await lane('left')
    expect(left.getByRole('button', { name: 'before 2' })).toBeTruthy()
    await user.click(left.getByRole('button', { name: 'during 3, left' }))
    await user.click(left.getByRole('button', { name: 'Calm, where wanted' }))
    await user.click(left.getByRole('button', { name: 'Log left' }))
    await waitFor(() => {
      expect(sentTo('POST', '/items')[0]?.body).toMatchObject({ before: 2, during: 3 })
    })
  })

  it('keeps everything when it could not be sent', async () => {
    const { user } = await begin({ ...own, [`POST /api${CLIENT}/items`]: refusal(503, 'Not now.') })
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
    const { user } = await begin({ [MAT]: answer })
    const left = await lane('left')
    await user.click(left.getByRole('button', { name: /^Step back, left/ }))
    expect(left.getByText('gentler')).toBeTruthy()
    await user.click(left.getByRole('button', { name: /^Back to the plan, left/ }))
    expect(left.queryByText('gentler')).toBeNull()
    expect(left.getByText(planned.short)).toBeTruthy()
  })

  it('has digits say the discomfort, and letters go to the side they name', async () => {
    const { user } = await begin()
    await lane('left')
    await user.keyboard('r4')
    const right = await lane('right')
    expect(right.getByRole('button', { name: 'during 4' })).toBeTruthy()
    await user.keyboard('l)')
    const left = await lane('left')
    expect(left.getByRole('button', { name: 'during 10' })).toBeTruthy()
    await user.keyboard('r')
    expect((await lane('right')).getByRole('button', { name: 'during 4' })).toBeTruthy()
  })

  it('times each side for itself, and begins anew', async () => {
    const { user } = await begin()
    await lane('left')
    expect(screen.getByRole('timer', { name: 'Hold, left' })).toBeTruthy()
    await user.click(await button('Start'))
    expect(await button('Pause')).toBeTruthy()
    await user.click(await button('To the right side'))
    expect(screen.getByRole('timer', { name: 'Hold, right' })).toBeTruthy()
    expect(await button('Start')).toBeTruthy()
    await user.click(await button('To the left side'))
    await user.click(await button('Pause'))
    await user.click(await button('Start over'))
    expect(await button('Start')).toBeTruthy()
  })

  it('counts repetitions by touch', async () => {
    const family = both.families[0] as Family
    const reps = { ...family.left, style: 'reps', amount: 10, sets: 3, seconds: 210 }
    const { user } = await begin({ [MAT]: { ...both, families: [{ ...family, left: reps }] } })
    await user.click(await button('Count one'))
    await user.click(await button('Count one'))
    const timer = within(screen.getByRole('timer'))
    expect(timer.getByText('2')).toBeTruthy()
    expect(timer.getByText('of 10')).toBeTruthy()
    expect(timer.getByText(/set 1 of 3/)).toBeTruthy()
  })

  it('corrects a hold in its own place, and logs another round', async () => {
    const left = { ...both.families[0]?.left, logged_today: [HELD] }
    const answer = { ...both, families: [{ ...both.families[0], left }] }
    const { user, sentTo } = await open(`${CLIENT}/mat`, {
      [MAT]: answer,
      [`PUT /api${CLIENT}/items/a-hold`]: answer,
    })
    // What was begun is gone on with: the side that is behind.
    await user.click((await lane('left')).getByRole('button', { name: 'To the left side' }))
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

  it('goes from pose to pose, by skipping and by the list, and ends with what was done', async () => {
    const [first, second] = mat.families
    const { user } = await begin({ [MAT]: mat })
    expect(await screen.findByText('1 of 2')).toBeTruthy()
    await user.click(await button('Skip'))
    expect(await screen.findByText('2 of 2')).toBeTruthy()
    await user.click(await button('2 of 2'))
    await user.click(await screen.findByRole('menuitem', { name: new RegExp(first?.name ?? '') }))
    expect(await screen.findByText('1 of 2')).toBeTruthy()
    await user.click(await button('End the visit'))
    const end = within(await screen.findByRole('region', { name: second?.name ?? '' }))
    expect(end.getByText('not done')).toBeTruthy()
    expect(screen.getByRole('link', { name: 'To the responses' }).getAttribute('href')).toBe(
      `${CLIENT}/responses`,
    )
    await expectAccessible()
    await user.click(await button('Back to the mat'))
    expect(await screen.findByText('1 of 2')).toBeTruthy()
  })

  it('leads to the plan while nothing is planned', async () => {
    await open(`${CLIENT}/mat`, { [MAT]: { ...mat, families: [], morning_open: [] } })
    expect(await screen.findByText('Nothing on today’s plan yet')).toBeTruthy()
    expect(screen.getByRole('link', { name: 'To the plan' })).toBeTruthy()
  })

  it('keeps in sight what limits and what is to be asked on each side, and nothing else', async () => {
    const key = `GET /api${CLIENT}`
    const client = (recorded as unknown as Record<string, object>)[key]
    const notes = ['fact', 'limit', 'ask', 'promise'].map((weight) => ({
      side: 'right',
      weight,
      text: `a ${weight}`,
      entry_id: null,
    }))
    await begin({ ...own, [key]: { ...client, notes } })
    const right = await lane('right')
    expect(await right.findByText('a limit')).toBeTruthy()
    expect(right.getByText('a ask')).toBeTruthy()
    expect(screen.queryByText('a fact')).toBeNull()
    expect(screen.queryByText('a promise')).toBeNull()
    expect((await lane('left')).queryByText('a limit')).toBeNull()
  })

  it('has each side’s own rung on its own lane, and says which side nothing is planned for', async () => {
    const [family] = mat.families
    const left = { ...family?.left, variation: 'x.left', short: 'short of the left' }
    const right = { ...family?.left, variation: 'x.right', short: 'short of the right' }
    await begin({ [MAT]: { ...mat, families: [{ ...family, left, right }] } })
    expect((await lane('left')).getByText('short of the left')).toBeTruthy()
    const other = await lane('right')
    expect(other.getByText('short of the right')).toBeTruthy()
    expect(other.queryByText('short of the left')).toBeNull()
  })

  it('says of a side that nothing is planned for it', async () => {
    const [family] = mat.families
    await begin({ [MAT]: { ...mat, families: [{ ...family, right: null }] } })
    expect((await lane('right')).getByText('not planned')).toBeTruthy()
  })

  it('has one lane for both where the legs share a shape, and logs it once', async () => {
    const [family] = mat.families
    const shared = { ...family, shared: true, left: family?.left, right: family?.left }
    const { user, sentTo } = await begin({
      [MAT]: { ...mat, families: [shared] },
      [`POST /api${CLIENT}/items`]: mat,
    })
    const one = await lane('both')
    expect(screen.queryByRole('region', { name: 'right' })).toBeNull()
    await user.click(one.getByRole('button', { name: 'during 1, both' }))
    await user.click(one.getByRole('button', { name: 'Calm, where wanted' }))
    await user.click(one.getByRole('button', { name: 'Log both' }))
    await waitFor(() => {
      expect(sentTo('POST', '/items')).toHaveLength(1)
    })
  })
})

describe('the arrival', () => {
  const held = { id: 'a-hold', side: 'left', short: 'on end', date: '2026-11-20' }

  it('asks how the morning was, each answer for its hold', async () => {
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
    const { user, sentTo } = await open(`${CLIENT}/mat`, {
      [MAT]: { ...both, morning_open: [held] },
      [`POST /api${CLIENT}/items/a-hold/morning`]: both,
    })
    await user.click(await button('settled'))
    await waitFor(() => {
      expect(sentTo('POST', '/a-hold/morning')[0]?.body).toEqual({ settled: true })
    })
  })

  it('asks of each sore joint how it is today, and keeps what else was said of it', async () => {
    const asked = [
      { entry_id: 'knee', label: 'Knee: kneecap pain', side: 'left', pain_today: null, irritable: 'yes' },
    ]
    const { user, sentTo } = await open(`${CLIENT}/mat`, {
      [MAT]: { ...both, asked },
      [`POST /api${CLIENT}/entries/knee/daily`]: [],
    })
    await user.click(await button('Knee: kneecap pain: pain 4'))
    await waitFor(() => {
      expect(sentTo('POST', '/entries/knee/daily')[0]?.body).toEqual({ pain_today: 4, irritable: 'unknown' })
    })
    await expectAccessible()
  })

  it('asks left beside right, whatever was recorded first', async () => {
    const asked = (['right', 'left'] as const).map((side) => ({
      entry_id: side,
      label: 'Knee',
      side,
      pain_today: null,
      irritable: 'unknown',
    }))
    await open(`${CLIENT}/mat`, { [MAT]: { ...both, asked } })
    const groups = (await screen.findAllByRole('group', { name: /pain today/ })).map((each) =>
      each.getAttribute('aria-labelledby'),
    )
    expect(groups).toEqual(['asked-left', 'asked-right'])
  })

  it('makes a record of something new, dated today', async () => {
    const { user, sentTo } = await open(`${CLIENT}/mat`, { ...own, [`POST /api${CLIENT}/entries`]: [] })
    await user.click(await button('a fall'))
    await waitFor(() => {
      expect(sentTo('POST', '/entries')[0]?.body).toEqual({
        entry: { kind: 'something_new', facts: { what: 'fall', on: mat.date, where: 'unknown' } },
      })
    })
    expect(await screen.findByText('Recorded for today.', { exact: false })).toBeTruthy()
  })
})

describe('the card', () => {
  it('says what a helper has to know, and keeps what went wrong', async () => {
    const card = [{ label: 'Hip replaced', side: 'right', doctor: 'Sudden pain.' }]
    const { user, sentTo } = await begin({
      [MAT]: { ...both, card },
      [`POST /api${CLIENT}/incidents`]: {
        ...both,
        card,
        incidents: [{ at: '2026-11-28T10:00:00Z', text: 'slipped' }],
      },
    })
    await user.click(await button('Card'))
    const dialog = within(await screen.findByRole('dialog'))
    expect(dialog.getByText(/Hip replaced/)).toBeTruthy()
    expect(dialog.getByText(/Sudden pain\./)).toBeTruthy()
    await user.type(dialog.getByRole('textbox', { name: 'What went wrong' }), 'slipped')
    await user.click(dialog.getByRole('button', { name: 'Keep' }))
    await waitFor(() => {
      expect(sentTo('POST', '/incidents')[0]?.body).toMatchObject({ text: 'slipped' })
    })
    expect(await dialog.findByText(/slipped/)).toBeTruthy()
    await expectAccessible()
  })
})

describe('both ways', () => {
  const answers = recorded as unknown as Record<
    string,
    { here?: { setup: unknown }; ways?: { slot: string }[] }
  >
  const WAYS = Object.entries(answers).find(
    ([key, { ways }]) => key.endsWith('/ways') && ways?.some(({ slot }) => slot === 'foot'),
  )?.[1]
  const trials = [{ slot: 'foot', label: 'Foot', last: null, again: false }]
  const left = { ...mat.families[0]?.left, trials }
  const tried = { ...mat, families: [{ ...mat.families[0], left, right: null }] }
  const kept = {
    id: 't', date: '2026-11-20', slot: 'foot', label: 'Foot', kept: 'drawn up', felt_kept: 1, other: 'at rest', felt_other: 3,
  } // prettier-ignore

  it('holds one after the other and keeps the calmer for its side', async () => {
    const { user, sentTo } = await begin({
      [MAT]: tried,
      [`POST /api${CLIENT}/setups/${left.variation ?? ''}/left/ways`]: WAYS,
      [`POST /api${CLIENT}/trials`]: tried,
    })
    expect((await lane('left')).getByText(/Foot: not tried on this side yet/)).toBeTruthy()
    await user.click(await button('Try both ways'))
    const dialog = within(await screen.findByRole('dialog', { name: /Both ways, left/ }))
    await dialog.findByRole('region', { name: 'A: Foot, at rest' })
    expect(dialog.queryByRole('button', { name: /^Keep/ })).toBeNull()
    await expectAccessible()
    await user.click(dialog.getByRole('button', { name: 'A felt 3' }))
    await user.click(dialog.getByRole('button', { name: 'B felt 1' }))
    await user.click(dialog.getByRole('button', { name: 'Keep at rest instead' }))
    expect(dialog.getByRole('button', { name: 'Keep at rest' })).toBeTruthy()
    await user.click(dialog.getByRole('button', { name: 'Keep drawn up instead' }))
    await user.click(dialog.getByRole('button', { name: 'Keep drawn up' }))
    await waitFor(() => {
      expect(screen.queryByRole('dialog')).toBeNull()
    })
    const body = sentTo('POST', '/trials')[0]?.body
    expect(body).toMatchObject({
      slot: 'foot',
      felt_a: 3,
      felt_b: 1,
      kept: 'b',
      other: { choice: 'drawn_up' },
    })
    expect(body).toMatchObject({ setup: WAYS?.here?.setup })
  })

  it('says what is kept, and to try again after a flare', async () => {
    const told = (again: boolean) => ({
      ...tried,
      families: [{ ...tried.families[0], left: { ...left, trials: [{ ...trials[0], last: kept, again }] } }],
    })
    await begin({ [MAT]: told(false) })
    expect((await lane('left')).getByText(/Foot: drawn up, kept on 20 Nov/)).toBeTruthy()
  })

  it('asks to try again after a flare', async () => {
    const again = { ...left, trials: [{ ...trials[0], last: kept, again: true }] }
    await begin({ [MAT]: { ...tried, families: [{ ...tried.families[0], left: again }] } })
    expect((await lane('left')).getByText(/a flare since 20 Nov. Try both again/)).toBeTruthy()
  })
})

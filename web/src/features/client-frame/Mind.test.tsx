import { screen, within } from '@testing-library/react'
import { describe, expect, it } from 'vitest'
import type { Schemas } from '../../api/client'
import { CLIENT, expectAccessible, show } from '../../testing/app'
import { asWideAs } from '../../testing/window'
import { Mind } from './Mind'

const note = (side: 'left' | 'right' | null, weight: string, text: string) =>
  ({ side, weight, text }) as unknown as Schemas['NoteOut']
const head = {
  client: { goals: '', contacts: [] },
  notes: [
    note(null, 'limit', 'Rests on the side.'),
    note('left', 'promise', 'Offer one change.'),
    note('right', 'ask', 'How is the knee today?'),
    note('right', 'limit', 'Hip bend 90°.'),
  ],
  asked: [{ entry_id: 'knee', label: 'Knee', side: 'right', pain_today: null, irritable: 'yes' }],
  next_change: { date: '2026-12-19', lines: ['Ends — Right: hip bend 90°.'] },
  disclaimer: 'Supports your judgement.',
} as unknown as Schemas['ClientHead']
const own = { [`GET /api${CLIENT}/coming`]: { lines: ['Lets in: Figure-four, left: over thigh.'] } }

describe('what to mind', () => {
  it('takes how it is today in one touch, beside its side', async () => {
    asWideAs(1280)
    const { user, sent } = show(<Mind head={head} />, {
      ...own,
      [`POST /api${CLIENT}/entries/knee/daily`]: [],
    })
    const asked = await screen.findByRole('group', { name: 'Knee today, 0–10?' })
    await user.click(within(asked).getByRole('button', { name: 'Knee: pain 4' }))
    expect(sent.find(({ method }) => method === 'POST')?.body).toEqual({
      pain_today: 4,
      irritable: 'unknown',
    })
  })

  it('asks whether it lasts once the pain is known, and only where that decides', async () => {
    asWideAs(1280)
    const knee = { entry_id: 'knee', label: 'Knee', side: 'right', pain_today: 2, irritable: 'unknown' }
    const wrist = { entry_id: 'wrist', label: 'Wrist', side: 'left', pain_today: 2, irritable: null }
    const both = { ...head, asked: [knee, wrist] } as unknown as Schemas['ClientHead']
    const { user, sent } = show(<Mind head={both} />, {
      ...own,
      [`POST /api${CLIENT}/entries/knee/daily`]: [],
    })
    const lasts = await screen.findByRole('group', { name: /^Knee: once stirred up/ })
    expect(screen.queryByRole('group', { name: /^Wrist: once stirred up/ })).toBeNull()
    await user.click(within(lasts).getByRole('button', { name: 'no' }))
    expect(sent.find(({ method }) => method === 'POST')?.body).toEqual({ pain_today: 2, irritable: 'no' })
  })

  it('stands under its side, left before right, and then what changes next', async () => {
    asWideAs(1280)
    show(<Mind head={head} />, own)
    const column = within(screen.getByRole('complementary', { name: 'To mind today' }))
    expect(column.getAllByRole('heading', { level: 3 }).map((each) => each.textContent)).toEqual([
      'left',
      'both',
      'right',
    ])
    const right = column.getByRole('heading', { name: 'right' }).parentElement as HTMLElement
    expect(within(right).getByText('Hip bend 90°.')).toBeTruthy()
    expect(within(right).getByText('? How is the knee today?')).toBeTruthy()
    expect(within(right).queryByText('Offer one change.')).toBeNull()
    expect(column.getByText('Ends — Right: hip bend 90°.')).toBeTruthy()
    expect(await column.findByText('Lets in: Figure-four, left: over thigh.')).toBeTruthy()
    await expectAccessible()
  })

  it('is its most important line with its side where there is little room, the rest in a drawer', async () => {
    asWideAs(1024)
    const { user } = show(<Mind head={head} />, own)
    const strip = within(screen.getByRole('complementary', { name: 'To mind today' }))
    expect(strip.getByText('? How is the knee today?', { exact: false }).textContent).toContain('right: ')
    expect(strip.queryByText('Hip bend 90°.')).toBeNull()
    await user.click(strip.getByRole('button', { name: '3 more to mind' }))
    const drawer = within(await screen.findByRole('dialog'))
    expect(drawer.getByText('Hip bend 90°.')).toBeTruthy()
    await user.click(drawer.getByRole('button', { name: 'Close' }))
  })

  it('says that nothing is recorded, and that nothing changes', () => {
    asWideAs(1280)
    show(<Mind head={{ ...head, notes: [], next_change: null }} />)
    expect(screen.getByText('Nothing recorded yet.')).toBeTruthy()
    expect(screen.queryByText(/Ends/)).toBeNull()
  })
})

import { screen, waitFor } from '@testing-library/react'
import { describe, expect, it } from 'vitest'
import { CLIENT, expectAccessible, refusal, show } from '../../testing/app'
import { VisitNote } from './VisitNote'

const NOTES = `POST /api${CLIENT}/visit-notes`
const DAY = '2026-11-28'
const note = { id: 'n1', date: DAY, text: 'Slept badly.', by: 'Ottoline Marsh' }

describe('the note of a visit', () => {
  it('begins with what stands and is kept on top of it', async () => {
    const { user, sent } = show(<VisitNote date={DAY} notes={[note]} />, { [NOTES]: [] })
    const field = screen.getByRole('textbox', { name: 'Note of this visit' })
    expect(field).toHaveProperty('value', 'Slept badly.')
    expect(screen.getByRole('button', { name: 'Keep the note' })).toHaveProperty('disabled', true)
    await expectAccessible()
    await user.type(field, ' Better now.')
    await user.click(screen.getByRole('button', { name: 'Keep the note' }))
    await waitFor(() => {
      expect(sent.at(-1)?.body).toEqual({ text: 'Slept badly. Better now.', replaces: 'n1' })
    })
  })

  it('shows what somebody else wrote in between, and keeps mine on top of theirs', async () => {
    const stale = { ...refusal(409, 'Stale.'), code: 'stale', current: { id: 'n2', text: 'Theirs.' } }
    const { user, sent } = show(<VisitNote date={DAY} notes={[]} />, { [NOTES]: stale })
    await user.type(screen.getByRole('textbox'), 'Mine.')
    await user.click(screen.getByRole('button', { name: 'Keep the note' }))
    expect((await screen.findByRole('alert')).textContent).toContain('Theirs.')
    await user.click(screen.getByRole('button', { name: 'Keep the note' }))
    await waitFor(() => {
      expect(sent.at(-1)?.body).toEqual({ text: 'Mine.', replaces: 'n2' })
    })
  })
})

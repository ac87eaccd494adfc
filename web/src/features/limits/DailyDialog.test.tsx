import { screen, waitFor } from '@testing-library/react'
import { describe, expect, it, vi } from 'vitest'
import type { Schemas } from '../../api/client'
import { CLIENT, expectAccessible, refusal, show } from '../../testing/app'
import { DailyDialog } from './DailyDialog'

const entry = { id: 'entry-2', root: 'entry-1' } as Schemas['EntryOut']
const DAILY = `POST /api${CLIENT}/entries/entry-2/daily`

async function answer(user: ReturnType<typeof show>['user'], question: RegExp, option: string) {
  await user.click(screen.getByRole('combobox', { name: question }))
  await user.click(await screen.findByRole('option', { name: option }))
}

describe('the question of the day', () => {
  it('sends what was said, and what was not said as not known', async () => {
    const close = vi.fn()
    const { user, sent } = show(<DailyDialog entry={entry} onClose={close} />, { [DAILY]: [] })
    await expectAccessible()
    await user.click(screen.getByRole('button', { name: 'Save' }))
    await waitFor(() => {
      expect(close).toHaveBeenCalled()
    })
    expect(sent.find((each) => each.method === 'POST')?.body).toEqual({ irritable: 'unknown' })
  })

  it('keeps a nought a nought', async () => {
    const { user, sent } = show(<DailyDialog entry={entry} onClose={() => undefined} />, { [DAILY]: [] })
    await answer(user, /[Pp]ain/, '0')
    await answer(user, /stirred up/, 'no')
    await user.click(screen.getByRole('button', { name: 'Save' }))
    await waitFor(() => {
      expect(sent.find((each) => each.method === 'POST')?.body).toEqual({ pain_today: 0, irritable: 'no' })
    })
  })

  it('stays with what was said when it is refused, and after it was closed', async () => {
    const close = vi.fn()
    const { user } = show(<DailyDialog entry={entry} onClose={close} />, {
      [DAILY]: refusal(503, 'Not now.'),
    })
    await answer(user, /[Pp]ain/, '4')
    await user.click(screen.getByRole('button', { name: 'Save' }))
    expect((await screen.findByRole('alert')).textContent).toBe('Not now.')
    expect(close).not.toHaveBeenCalled()
    expect(screen.getByRole('combobox', { name: /[Pp]ain/ }).textContent).toBe('4')
  })
})

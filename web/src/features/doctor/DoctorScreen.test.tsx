import { screen, waitFor, within } from '@testing-library/react'
import { describe, expect, it } from 'vitest'
import recorded from '../../testing/answers.json'
import { button, CLIENT, expectAccessible, open } from '../../testing/app'

const HEAD = `GET /api${CLIENT}`
const head = recorded[HEAD as keyof typeof recorded] as Record<string, unknown>
const doctor = {
  headline: 'Call the surgeon’s team today',
  meanwhile: 'Until the answer is recorded nothing is offered.',
  records: ['Hip replaced, posterior, week 9'],
  calls: [
    { entry_id: 'the-hip', label: 'Hip replaced', side: 'right', urgency: 'today', whom: 'the surgeon’s team', signs: ['hot red wound, or fever'] },
  ],
} // prettier-ignore

describe('a doctor first', () => {
  it('is said on every view of the client, with the way to what to do', async () => {
    const { user, router } = await open(`${CLIENT}/limits`, { [HEAD]: { ...head, doctor } })
    await user.click(await screen.findByRole('link', { name: 'What to do, and a note to take along' }))
    expect(await screen.findByRole('heading', { name: doctor.headline })).toBeTruthy()
    expect(router.state.location.pathname).toMatch(/\/doctor$/)
  })

  it('has a note with who, what was told and what is asked, and keeps the answer', async () => {
    const { user, sentTo } = await open(`${CLIENT}/doctor`, {
      [HEAD]: { ...head, doctor },
      [`POST /api${CLIENT}/entries/the-hip/seen`]: [],
    })
    const note = within(
      (await screen.findByText('A note from a yoga therapy visit')).parentElement as HTMLElement,
    )
    expect(note.getByText(/Hartley Quill/)).toBeTruthy()
    expect(note.getByText('hot red wound, or fever')).toBeTruthy()
    await expectAccessible()
    await user.click(await button('Record the answer'))
    const dialog = within(await screen.findByRole('dialog'))
    await user.click(dialog.getByRole('button', { name: 'Save' }))
    expect(await dialog.findByText('Say when: a word counts from its date.')).toBeTruthy()
    await user.click(dialog.getByRole('group', { name: 'Date of their word' }))
    await user.keyboard('28112026')
    await user.type(dialog.getByRole('textbox', { name: 'In their words' }), 'A cold.')
    await user.click(dialog.getByRole('button', { name: 'Save' }))
    await waitFor(() => {
      expect(sentTo('POST', '/seen')[0]?.body).toEqual({ who: 'doctor', date: '2026-11-28', text: 'A cold.' })
    })
  })

  it('says so where nothing is recorded', async () => {
    await open(`${CLIENT}/doctor`)
    expect(await screen.findByText('Nothing that belongs to a doctor first')).toBeTruthy()
  })
})

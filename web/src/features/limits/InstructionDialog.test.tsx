import { screen, waitFor, within } from '@testing-library/react'
import { describe, expect, it } from 'vitest'
import recorded from '../../testing/answers.json'
import { button, CLIENT, expectAccessible, open, refusal } from '../../testing/app'

const ENTRIES = `/api${CLIENT}/entries`
const stored = recorded[`GET ${ENTRIES}` as keyof typeof recorded] as unknown as {
  id: string
  label: string
  corrected: boolean
}[]
const ID = stored[0]?.id ?? ''

async function write(answers: Record<string, unknown> = {}) {
  const opened = await open(`${CLIENT}/limits`, {
    [`POST ${ENTRIES}/${ID}/instructions`]: stored,
    ...answers,
  })
  await opened.user.click(await button('What the doctor said'))
  return { ...opened, dialog: within(await screen.findByRole('dialog')) }
}

describe('what a treating professional said', () => {
  it('is kept with its day, its words and the figures it sets, and only those', async () => {
    const { user, dialog, sentTo } = await write()
    await expectAccessible()
    await user.click(dialog.getByRole('group', { name: 'Date of their word' }))
    await user.keyboard('20112026')
    await user.type(dialog.getByRole('textbox', { name: 'In their words' }), 'No sofas.')
    await user.type(dialog.getByRole('textbox', { name: /Instead, Hip bend 85/ }), '80')
    await user.click(dialog.getByRole('button', { name: 'Save' }))
    await waitFor(() => {
      expect(screen.queryByRole('dialog')).toBeNull()
    })
    expect(sentTo('POST', '/instructions')[0]?.body).toEqual({
      who: 'surgeon',
      date: '2026-11-20',
      text: 'No sofas.',
      figures: [{ rule: 'hip.bend', readout: 'hip_bend', value: 80 }],
    })
  })

  it('is not sent without a day, or with nothing said', async () => {
    const { user, dialog, sentTo } = await write()
    await user.click(dialog.getByRole('button', { name: 'Save' }))
    expect(await dialog.findByText('Say when: a word counts from its date.')).toBeTruthy()
    expect(dialog.getByText('Write down what was said, or give a figure.')).toBeTruthy()
    expect(sentTo('POST', '/instructions')).toHaveLength(0)
  })

  it('stands on the card and may be taken back', async () => {
    const { user, sent } = await open(`${CLIENT}/limits`, {})
    const card = within(await screen.findByRole('article', { name: stored[0]?.label ?? '' }))
    expect(card.getByText('Stairs one at a time until I have seen you again.')).toBeTruthy()
    await user.click(card.getByRole('button', { name: 'Take this word back' }))
    await waitFor(() => {
      expect(sent.some(({ method, path }) => method === 'DELETE' && path.includes('/instructions/'))).toBe(
        true,
      )
    })
  })
})

describe('a corrected record', () => {
  const corrected = [{ ...stored[0], corrected: true }]
  const differences = {
    since: '2026-11-01', looked_at: 3, left: 0,
    differences: [
      { item_id: 'i', date: '2026-11-12', side: 'left', name: 'Squat', was: 'clear', would_be: 'leave_out', why: ['Too deep.'] },
    ],
  } // prettier-ignore

  it('shows what would have been judged otherwise, once it is asked', async () => {
    const { user, sentTo } = await open(`${CLIENT}/limits`, {
      [`GET ${ENTRIES}`]: corrected,
      [`GET ${ENTRIES}/${ID}/differences`]: differences,
    })
    expect(sentTo('GET', '/differences')).toHaveLength(0)
    await user.click(await button('What would have been otherwise?'))
    expect(await screen.findByText('Too deep.')).toBeTruthy()
    expect(screen.getByText(/One hold since/)).toBeTruthy()
    await expectAccessible()
  })

  it('keeps both texts where somebody saved in between, and saves on top of theirs', async () => {
    const current = { id: 'their-version', facts: { approach: 'lateral' } }
    const { user, sentTo } = await open(`${CLIENT}/limits`, {
      [`POST ${ENTRIES}/preview`]: [],
      [`PUT ${ENTRIES}/${ID}`]: { ...refusal(409, 'Stale.'), code: 'stale', current },
      [`PUT ${ENTRIES}/their-version`]: stored,
    })
    await user.click(await button('Correct'))
    const form = within(await screen.findByRole('dialog'))
    await user.click(form.getByRole('button', { name: 'Save' }))
    expect((await form.findByRole('alert')).textContent).toContain('Surgical approach: lateral')
    await user.click(form.getByRole('button', { name: 'Save mine on top' }))
    await waitFor(() => {
      expect(screen.queryByRole('dialog')).toBeNull()
    })
    expect(sentTo('PUT', '/their-version')).toHaveLength(1)
  })
})

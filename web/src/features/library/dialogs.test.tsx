import { screen, waitFor, within } from '@testing-library/react'
import { describe, expect, it, vi } from 'vitest'
import { expectAccessible, PRACTICE, refusal, show } from '../../testing/app'
import { RetireDialog } from './RetireDialog'
import { VersionsDialog } from './VersionsDialog'

const RUNG = `/api${PRACTICE}/library/variations/own.rung`
const version = (number: number, retired = false) => ({
  id: `v${number.toString()}`,
  number,
  saved_on: '2026-11-20',
  saved_by: 'Ottoline Marsh',
  retired,
  file: { variation: { name: `Version ${number.toString()}` } },
})

describe('the versions of a rung', () => {
  it('can each be made the next, but for the one that holds', async () => {
    const close = vi.fn()
    const { user, sent } = show(<VersionsDialog variationId="own.rung" number={2} onClose={close} />, {
      [`GET ${RUNG}/versions`]: [version(2), version(1)],
      [`PUT ${RUNG}`]: {},
    })
    await screen.findByText('Version 1')
    const back = screen.getAllByRole('button', { name: 'Bring back' })
    expect(back).toHaveLength(1)
    await expectAccessible()
    await user.click(back[0] as HTMLElement)
    await waitFor(() => {
      expect(close).toHaveBeenCalled()
    })
    expect(sent.at(-1)?.body ?? sent.find((each) => each.method === 'PUT')?.body).toMatchObject({
      number: 2,
      file: { variation: { name: 'Version 1' } },
    })
  })

  it('can be brought back from what was put away', async () => {
    show(<VersionsDialog variationId="own.rung" number={2} onClose={() => undefined} />, {
      [`GET ${RUNG}/versions`]: [version(2, true), version(1)],
    })
    expect(await screen.findByText(/put away/)).toBeTruthy()
    expect(screen.getAllByRole('button', { name: 'Bring back' })).toHaveLength(2)
  })

  it('stay open and say why one was not brought back', async () => {
    const close = vi.fn()
    const { user } = show(<VersionsDialog variationId="own.rung" number={2} onClose={close} />, {
      [`GET ${RUNG}/versions`]: [version(2), version(1)],
      [`PUT ${RUNG}`]: refusal(409, 'Changed meanwhile.'),
    })
    await user.click(await screen.findByRole('button', { name: 'Bring back' }))
    expect((await screen.findByRole('alert')).textContent).toBe('Changed meanwhile.')
    expect(close).not.toHaveBeenCalled()
  })
})

describe('putting a rung away', () => {
  it('is asked about, and says which version is meant', async () => {
    const close = vi.fn()
    const { user, sent } = show(
      <RetireDialog variationId="own.rung" name="inner corner" number={3} onClose={close} />,
      { [`POST ${RUNG}/retire`]: {} },
    )
    const dialog = within(screen.getByRole('dialog', { name: 'Put “inner corner” away?' }))
    await user.click(dialog.getByRole('button', { name: 'Cancel' }))
    expect(close).toHaveBeenCalledTimes(1)
    expect(sent).toEqual([])
    await user.click(dialog.getByRole('button', { name: 'Put away' }))
    await waitFor(() => {
      expect(close).toHaveBeenCalledTimes(2)
    })
    expect(sent.find((each) => each.method === 'POST')?.body).toEqual({ number: 3 })
  })

  it('says why it was refused, and stays', async () => {
    const close = vi.fn()
    const { user } = show(
      <RetireDialog variationId="own.rung" name="inner corner" number={3} onClose={close} />,
      { [`POST ${RUNG}/retire`]: refusal(409, 'Changed meanwhile.') },
    )
    await user.click(screen.getByRole('button', { name: 'Put away' }))
    expect((await screen.findByRole('alert')).textContent).toBe('Changed meanwhile.')
    expect(close).not.toHaveBeenCalled()
  })
})

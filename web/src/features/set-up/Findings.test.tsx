import { screen, waitFor } from '@testing-library/react'
import { describe, expect, it } from 'vitest'
import type { Schemas } from '../../api/client'
import { CLIENT, expectAccessible, refusal, show } from '../../testing/app'
import { Findings } from './Findings'

const MEASURES = `POST /api${CLIENT}/measures`
const detail = {
  unmet: [{ words: 'Turns out only 50°.', bound: 'hip_external_rotation', sides: ['right'] }],
  findings: [
    {
      severity: 'caution',
      side: 'right',
      accepted: null,
      codes: ['knee_twist'],
      sentence: 'The knee is twisted 7°.',
      size: 1,
    },
    { severity: 'stop', codes: ['hip_flexion'], sentence: 'The hip bends past 90°.', size: 1 },
  ],
} as unknown as Schemas['DetailOut']

const CAUTIONS = `POST /api${CLIENT}/cautions`

function Shown() {
  return <Findings side="right" family="half_pigeon" detail={detail} />
}

describe('what binds at a set-up', () => {
  it('lets a caution be taken on with a reason, and nothing else', async () => {
    const { user, sent } = show(<Shown />, { [CAUTIONS]: null })
    const accept = screen.getAllByRole('button', { name: 'Accept with a reason' })
    expect(accept).toHaveLength(1)
    await user.click(accept[0] as HTMLElement)
    await user.keyboard('hand on the shin{Enter}')
    await waitFor(() => {
      expect(sent.at(-1)?.body).toEqual({
        family: 'half_pigeon',
        codes: ['knee_twist'],
        side: 'right',
        accepted: true,
        reason: 'hand on the shin',
      })
    })
    await expectAccessible()
  })

  it('shows why it was taken on, by whom and when, and lets it be opened again', async () => {
    const accepted = { reason: 'A thick mat.', by: 'Ottoline Marsh', at: '2026-11-12T10:00:00Z' }
    const known = { ...detail, findings: detail.findings.map((each) => ({ ...each, accepted })) }
    const { user, sent } = show(<Findings side="right" family="half_pigeon" detail={known} />, {
      [CAUTIONS]: null,
    })
    expect(screen.getByText('A thick mat.').closest('span')?.textContent).toContain('Ottoline Marsh')
    await user.click(screen.getByRole('button', { name: 'No longer' }))
    await waitFor(() => {
      expect(sent.at(-1)?.body).toMatchObject({ accepted: false })
    })
  })

  it('stores what was seen beyond a bound, for its side', async () => {
    const { user, sent } = show(<Shown />, { [MEASURES]: {} })
    await user.click(screen.getByRole('button', { name: 'Seen on the mat' }))
    await waitFor(() => {
      expect(sent.at(-1)?.body).toMatchObject({ readings: [{ side: 'right' }] })
    })
  })

  it('says why it was not stored', async () => {
    const { user } = show(<Shown />, { [MEASURES]: refusal(503, 'Not now.') })
    await user.click(screen.getByRole('button', { name: 'Seen on the mat' }))
    expect((await screen.findByRole('alert')).textContent).toContain('Not now.')
  })

  it('is nothing where nothing binds', () => {
    const free = { ...detail, unmet: [], findings: [] }
    show(<Findings side="left" family="half_pigeon" detail={free} />)
    expect(screen.queryByRole('list')).toBeNull()
  })
})

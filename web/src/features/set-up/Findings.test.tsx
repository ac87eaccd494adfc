import { screen, waitFor } from '@testing-library/react'
import { useState } from 'react'
import { describe, expect, it } from 'vitest'
import type { Schemas } from '../../api/client'
import { CLIENT, expectAccessible, refusal, show } from '../../testing/app'
import { Findings } from './Findings'

const MEASURES = `POST /api${CLIENT}/measures`
const detail = {
  unmet: [{ words: 'Turns out only 50°.', bound: 'hip_external_rotation', sides: ['right'] }],
  findings: [
    { severity: 'caution', codes: ['knee_twist'], sentence: 'The knee is twisted 7°.', size: 1 },
    { severity: 'stop', codes: ['hip_flexion'], sentence: 'The hip bends past 90°.', size: 1 },
  ],
} as unknown as Schemas['DetailOut']

function Shown() {
  const [reasons, setReasons] = useState<Record<string, string>>({})
  return (
    <Findings
      side="right"
      detail={detail}
      reasons={reasons}
      onReason={(code, reason) => {
        setReasons({ ...reasons, [code]: reason })
      }}
    />
  )
}

describe('what binds at a set-up', () => {
  it('lets a caution be accepted with a reason, and nothing else', async () => {
    const { user } = show(<Shown />)
    const accept = screen.getAllByRole('button', { name: 'Accept with a reason' })
    expect(accept).toHaveLength(1)
    await user.click(accept[0] as HTMLElement)
    await user.keyboard('hand on the shin{Enter}')
    expect(screen.getByRole('button', { name: 'accepted: hand on the shin' })).toBeTruthy()
    expect(screen.queryByRole('textbox')).toBeNull()
    await expectAccessible()
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
    show(<Findings side="left" detail={free} reasons={{}} onReason={() => undefined} />)
    expect(screen.queryByRole('list')).toBeNull()
  })
})

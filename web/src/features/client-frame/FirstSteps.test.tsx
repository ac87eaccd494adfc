import { screen, waitFor } from '@testing-library/react'
import { describe, expect, it } from 'vitest'
import { CLIENT, open } from '../../testing/app'
import recorded from '../../testing/answers.json'

const key = `GET /api${CLIENT}`
const head = (recorded as unknown as Record<string, { band: { stop: string; state: string }[] }>)[key]
const withResponses = (state: string) => ({
  [key]: {
    ...head,
    band: head?.band.map((stop) => (stop.stop === 'responses' ? { ...stop, state } : stop)),
  },
})

describe('first steps', () => {
  it('lead somebody new from stop to stop', async () => {
    const { user, router } = await open(`${CLIENT}/limits`, withResponses('open'))
    await user.click(await screen.findByRole('link', { name: 'Next: Measures' }))
    await waitFor(() => {
      expect(router.state.location.pathname).toBe(`${CLIENT}/measures`)
    })
    await user.click(await screen.findByRole('link', { name: 'Next: Choose' }))
    await waitFor(() => {
      expect(router.state.location.pathname).toBe(`${CLIENT}/choose`)
    })
  })

  it('are over once there was a visit', async () => {
    await open(`${CLIENT}/limits`, withResponses('done'))
    await screen.findByRole('navigation', { name: 'Working order' })
    expect(screen.queryByRole('complementary', { name: 'First steps' })).toBeNull()
  })
})

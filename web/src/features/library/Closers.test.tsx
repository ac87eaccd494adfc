import { screen } from '@testing-library/react'
import { describe, expect, it } from 'vitest'
import { PRACTICE, refusal, show } from '../../testing/app'
import { Closers } from './Closers'

const CLOSERS = `GET /api${PRACTICE}/library/variations/a.rung/closers`
const closer = (name: string, verdict: string, reason = '', leg = '') => ({ name, verdict, reason, leg })

describe('what usually closes a rung', () => {
  it('is each told once: why where it is minded, by name alone where it is open', async () => {
    show(<Closers variationId="a.rung" />, {
      [CLOSERS]: [
        closer('kneecap pain', 'clear'),
        closer('thin bones', 'with_setup'),
        closer('pregnancy', 'with_setup', 'It gives less than is wanted.'),
        closer('hip replaced', 'leave_out', 'Bends past 90°.', 'worked'),
      ],
    })
    const closed = await screen.findByText('Bends past 90°.')
    expect(closed.parentElement?.textContent).toContain('hip replaced')
    expect(closed.parentElement?.textContent).toContain('leave out')
    expect(screen.getByText('It gives less than is wanted.').parentElement?.textContent).toContain(
      'pregnancy',
    )
    for (const name of ['kneecap pain', 'thin bones'])
      expect(screen.getAllByText(new RegExp(name))).toHaveLength(1)
    expect(screen.getByText(/kneecap pain/).textContent).not.toContain('thin bones')
  })

  it('says why it is not known', async () => {
    show(<Closers variationId="a.rung" />, { [CLOSERS]: refusal(422, 'Not to be judged.') })
    expect(await screen.findByText('Not to be judged.')).toBeTruthy()
  })
})

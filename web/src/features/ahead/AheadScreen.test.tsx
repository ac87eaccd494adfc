import { screen } from '@testing-library/react'
import { expect, it } from 'vitest'
import { expectAccessible, open, PRACTICE } from '../../testing/app'

it('tells day by day what changes for whom, and who waits for a word', async () => {
  await open(`${PRACTICE}/ahead`, {
    [`GET /api${PRACTICE}/calendar`]: {
      today: '2026-11-28',
      until: '2027-01-09',
      changes: [
        { client_id: 'a', name: 'Hartley Quill', date: '2026-12-19', lines: ['Ends — pivoting.'], tightens: false },
      ],
      waiting: [{ client_id: 'b', name: 'Ines Pell', lines: ['Clearance is due.'] }],
    },
  }) // prettier-ignore
  expect(await screen.findByText('Ends — pivoting.')).toBeTruthy()
  expect(screen.getByRole('link', { name: 'Ines Pell' }).getAttribute('href')).toMatch(/clients\/b\/limits$/)
  await expectAccessible()
})

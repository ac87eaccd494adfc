import { screen, waitFor } from '@testing-library/react'
import { describe, expect, it } from 'vitest'
import recorded from '../../testing/answers.json'
import { button, CLIENT, expectAccessible, open, PRACTICE, refusal } from '../../testing/app'

const me = recorded['GET /api/auth/me']
const [practice] = me.practices
const ZONES = { [`GET /api${PRACTICE}/time-zones`]: ['Europe/London', 'Pacific/Auckland'] }
type Change = Partial<NonNullable<typeof practice>['settings']>

/** Somebody in a practice that writes otherwise. */
const writing = (settings: Change, role = 'owner') => ({
  'GET /api/auth/me': {
    ...me,
    practices: [{ ...practice, role, settings: { ...practice?.settings, ...settings } }],
  },
})

describe('the settings', () => {
  it('are changed by the owner as a whole', async () => {
    const { user, sentTo } = await open(`${PRACTICE}/settings`, {
      ...ZONES,
      [`PUT /api${PRACTICE}/settings`]: practice?.settings,
    })
    await user.click(await screen.findByRole('radio', { name: 'in, lb' }))
    await user.click(screen.getByRole('radio', { name: '11/24/2026' }))
    await user.click(screen.getByRole('radio', { name: 'Sunday' }))
    await user.click(screen.getByRole('combobox', { name: 'Time zone' }))
    await user.click(await screen.findByRole('option', { name: 'Pacific/Auckland' }))
    await user.click(await button('Save'))
    await waitFor(() => {
      expect(sentTo('PUT', '/settings')[0]?.body).toEqual({
        name: 'The Weir Room',
        units: 'imperial',
        date_format: 'month_day_year',
        first_day_of_week: 0,
        time_zone: 'Pacific/Auckland',
      })
    })
    await expectAccessible()
  })

  it('say what was refused, beside its field', async () => {
    const { user } = await open(`${PRACTICE}/settings`, {
      ...ZONES,
      [`PUT /api${PRACTICE}/settings`]: refusal(422, 'Look again.', [
        { field: 'name', message: 'Say a name.' },
      ]),
    })
    await user.clear(await screen.findByRole('textbox', { name: 'Name' }))
    await user.click(await button('Save'))
    expect(await screen.findByText('Say a name.')).toBeTruthy()
  })

  it('are looked at by everybody else', async () => {
    await open(`${PRACTICE}/settings`, { ...ZONES, ...writing({}, 'therapist') })
    expect(await screen.findByText(/its owner changes them/)).toBeTruthy()
    expect(screen.queryByRole('button', { name: 'Save' })).toBeNull()
    expect(screen.getByRole('radio', { name: 'cm, kg' })).toHaveProperty('disabled', true)
  })

  it('name what ships with the application', async () => {
    const { user } = await open(`${PRACTICE}/settings`, ZONES)
    await user.click(await button(/Open-source parts/))
    expect(await screen.findByRole('rowheader', { name: 'react' })).toBeTruthy()
    expect(screen.getByRole('rowheader', { name: 'django' })).toBeTruthy()
  })

  it('change what numbers are shown and typed in', async () => {
    const { user, sentTo } = await open(`${CLIENT}/measures`, {
      ...writing({ units: 'imperial', date_format: 'month_day_year' }),
      [`POST /api${CLIENT}/measures`]:
        recorded['GET /api/practices/the-practice/clients/the-client/measures'],
    })
    const stature = await screen.findByRole('textbox', { name: 'Stature' })
    expect(screen.getByText(/68\.5 in/)).toBeTruthy()
    expect(stature.getAttribute('placeholder')).toBe('174 cm')
    await user.type(stature, '66')
    await user.type(screen.getByRole('textbox', { name: 'Weight' }), '70 kg')
    await user.click(await button('Store readings'))
    await waitFor(() => {
      const sent = sentTo('POST', '/measures')[0]?.body as { readings: { quantity: string; value: number }[] }
      expect(Object.fromEntries(sent.readings.map(({ quantity, value }) => [quantity, value]))).toEqual({
        stature: 167.64,
        weight: 70,
      })
    })
    expect(screen.getAllByText(/(Oct|Nov) \d+/).length).toBeGreaterThan(0)
  })
})

import { screen, waitFor } from '@testing-library/react'
import { describe, expect, it } from 'vitest'
import recorded from '../../testing/answers.json'
import { button, CLIENT, expectAccessible, open, refusal } from '../../testing/app'

const MEASURES = `/api${CLIENT}/measures`
const stored = (recorded as Record<string, unknown>)[`GET ${MEASURES}`]
const field = (name: string) => screen.findByRole('textbox', { name })

describe('the measures', () => {
  it('send what was typed, each reading on its side and by its method', async () => {
    const { user, sentTo } = await open(`${CLIENT}/measures`, { [`POST ${MEASURES}`]: stored })
    await user.type(await field('Turning out, hip open, left'), '48')
    await user.type(await field('Turning out, hip open, right'), '61,5')
    await user.type(await field('Stature'), '1,75 m')
    await user.click(screen.getByRole('combobox', { name: /How measured/ }))
    await user.click(await screen.findByRole('option', { name: 'by eye ± 10°' }))
    await user.click(screen.getByRole('checkbox', { name: 'pelvis held still' }))
    await user.click(await button('Store readings'))
    await waitFor(() => {
      const sent = sentTo('POST', '/measures')[0]?.body as { readings: Record<string, unknown>[] }
      expect(sent.readings).toEqual(
        expect.arrayContaining([
          expect.objectContaining({
            quantity: 'open_external_rotation',
            side: 'left',
            value: 48,
            method: 'eye',
            pelvis_held: 'yes',
          }),
          expect.objectContaining({ quantity: 'open_external_rotation', side: 'right', value: 61.5 }),
          expect.objectContaining({ quantity: 'stature', value: 175 }),
        ]),
      )
    })
    expect(await screen.findByText('Stored.')).toBeTruthy()
    expect((await field('Turning out, hip open, left')).getAttribute('value')).toBe('')
    await expectAccessible()
  })

  it('say what is no number, and keep it', async () => {
    const { user, sentTo } = await open(`${CLIENT}/measures`)
    const left = await field('Knee flexion, left')
    await user.type(left, 'a lot')
    await user.tab()
    expect(await screen.findByText('Not a number of degrees: correct it.')).toBeTruthy()
    await user.click(await button('Store readings'))
    expect(sentTo('POST', '/measures')).toHaveLength(0)
    expect(left.getAttribute('value')).toBe('a lot')
  })

  it('say so when nothing was typed', async () => {
    const { user } = await open(`${CLIENT}/measures`)
    await user.click(await button('Store readings'))
    expect(await screen.findByText('Nothing new typed yet.')).toBeTruthy()
  })

  it('put the server’s words beside their field', async () => {
    const { user } = await open(`${CLIENT}/measures`, {
      [`POST ${MEASURES}`]: refusal(422, 'Look again.', [
        { field: 'stature', message: 'This is outside 90–230 cm.' },
      ]),
    })
    await user.type(await field('Stature'), '17')
    await user.click(await button('Store readings'))
    expect(await screen.findByText('This is outside 90–230 cm.')).toBeTruthy()
    expect((await field('Stature')).getAttribute('aria-invalid')).toBe('true')
  })

  it('turn a tape’s heights into degrees for the side they were taken on', async () => {
    const { user, sentTo } = await open(`${CLIENT}/measures`, {
      [`POST ${MEASURES}/soles-together`]: { value_deg: 44, error_deg: 6, conditions: {} },
    })
    await user.type(await field('foot ahead'), '38')
    await user.type(await field('seat'), '8')
    await user.type(await field('right knee'), '22')
    await waitFor(() => {
      expect(sentTo('POST', '/soles-together').at(-1)?.body).toMatchObject({
        side: 'right',
        knee_height_cm: 22,
      })
    })
    await user.click(await button('Use as today’s reading'))
    expect((await field('Turning out, hip open, right')).getAttribute('value')).not.toBe('')
    expect((await field('Turning out, hip open, left')).getAttribute('value')).toBe('')
  })

  it('take how somebody sits', async () => {
    const { user, sentTo } = await open(`${CLIENT}/measures`, { [`POST ${MEASURES}`]: stored })
    await user.type(await field('Seat sat on'), '45')
    await user.type(await field('Knees above hips (− below)'), '−3')
    await user.click(await button('Store readings'))
    await waitFor(() => {
      const sent = sentTo('POST', '/measures')[0]?.body as { readings: { quantity: string; value: number }[] }
      expect(sent.readings.map(({ quantity, value }) => [quantity, value])).toEqual(
        expect.arrayContaining([
          ['sitting_seat', 45],
          ['sitting_knee_minus_hip', -3],
        ]),
      )
    })
  })
})

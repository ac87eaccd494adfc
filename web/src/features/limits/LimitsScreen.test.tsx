import { screen, waitFor, within } from '@testing-library/react'
import { describe, expect, it } from 'vitest'
import recorded from '../../testing/answers.json'
import { button, CLIENT, expectAccessible, open, refusal } from '../../testing/app'

const ENTRIES = `/api${CLIENT}/entries`
const stored = recorded[`GET ${ENTRIES}` as keyof typeof recorded] as {
  id: string
  label: string
  entry: { side: string }
}[]
const [hip] = stored
const dialog = async () => within(await screen.findByRole('dialog'))

describe('the records', () => {
  it('stand on their side, and a pin of the map leads to each', async () => {
    const { user } = await open(`${CLIENT}/limits`)
    const card = await screen.findByRole('article', { name: hip?.label ?? '' })
    expect(screen.getAllByRole('article')).toHaveLength(stored.length)
    const lane = card.closest('section') as HTMLElement
    expect(within(lane).getByRole('heading', { level: 2 }).textContent).toBe('Right')
    await user.click(screen.getByRole('link', { name: `right: ${hip?.label ?? ''}` }))
    expect(document.activeElement).toBe(card)
    await expectAccessible()
  })

  it('say what each turns into, with reason and source underneath', async () => {
    await open(`${CLIENT}/limits`)
    const card = within(await screen.findByRole('article', { name: hip?.label ?? '' }))
    const line = card
      .getAllByText('Hip bend 85°')
      .find((each) => each.closest('details') !== null)
      ?.closest('details') as HTMLDetailsElement
    expect(line.open).toBe(false)
    expect(line.textContent).toMatch(/stop/)
    expect(line.textContent.length).toBeGreaterThan(40)
  })

  it('say where a figure that was said sets nothing, because its rule does not hold', async () => {
    const said = {
      id: 'word',
      who: 'surgeon',
      date: '2026-11-20',
      until: null,
      text: '',
      figures: [
        { words: 'Hip bend 80°', holds: true },
        { words: 'Not turned in', holds: false },
      ],
      counts: true,
    }
    await open(`${CLIENT}/limits`, { [`GET ${ENTRIES}`]: [{ ...hip, instructions: [said] }] })
    const idle = await screen.findByText(/sets nothing today/)
    expect(idle.textContent).toContain('Not turned in')
    expect(screen.getAllByText(/sets nothing today/)).toHaveLength(1)
  })

  it('are recorded on the side asked for, with their preview', async () => {
    const { user, sentTo } = await open(`${CLIENT}/limits`, {
      [`POST ${ENTRIES}/preview`]: [],
      [`POST ${ENTRIES}`]: stored,
    })
    await user.click(await button('Record on the left'))
    const form = await dialog()
    await user.click(form.getByRole('button', { name: 'Save' }))
    expect(await form.findByText('Choose what is to be recorded.')).toBeTruthy()
    await user.click(form.getByRole('combobox', { name: /What is it/ }))
    await user.click(await screen.findByRole('option', { name: 'Knee pain' }))
    await user.click(form.getByRole('combobox', { name: /Where does it hurt/ }))
    await user.click(await screen.findByRole('option', { name: 'front' }))
    await waitFor(() => {
      expect(sentTo('POST', '/preview').length).toBeGreaterThan(0)
    })
    await user.click(form.getByRole('button', { name: 'Save' }))
    await waitFor(() => {
      expect(screen.queryByRole('dialog')).toBeNull()
    })
    expect(sentTo('POST', '/entries')[0]?.body).toMatchObject({
      entry: { kind: 'knee_pain', side: 'left', facts: { site: 'front' } },
    })
  })

  it('keep what was typed when they are refused, and over closing the form', async () => {
    const { user } = await open(`${CLIENT}/limits`, {
      [`POST ${ENTRIES}/preview`]: [],
      [`POST ${ENTRIES}`]: refusal(422, 'Something is wrong.', [
        { field: 'entry.knee_pain.facts.site', message: 'Say where.' },
      ]),
    })
    await user.click(await button('Record on the left'))
    let form = await dialog()
    await user.click(form.getByRole('combobox', { name: /What is it/ }))
    await user.click(await screen.findByRole('option', { name: 'Knee pain' }))
    await user.click(form.getByRole('button', { name: 'Save' }))
    expect(await form.findByText('Say where.')).toBeTruthy()
    await user.click(form.getByRole('button', { name: 'Cancel' }))
    await waitFor(() => {
      expect(screen.queryByRole('dialog')).toBeNull()
    })
    await user.click(await button('Record on the left'))
    form = await dialog()
    expect(form.getByText(/not stored yet/)).toBeTruthy()
    expect(form.getByRole('combobox', { name: /What is it/ }).textContent).toBe('Knee pain')
    await user.click(form.getByRole('button', { name: 'Discard' }))
    await user.click(form.getByRole('button', { name: 'Discard for good' }))
    expect(form.getByRole('combobox', { name: /What is it/ }).textContent).not.toBe('Knee pain')
  })

  it('are corrected as what they were, on their own side', async () => {
    const { user, sentTo } = await open(`${CLIENT}/limits`, {
      [`POST ${ENTRIES}/preview`]: [],
      [`PUT ${ENTRIES}/${hip?.id ?? ''}`]: stored,
    })
    await user.click(await button('Correct'))
    const form = await dialog()
    await user.click(form.getByRole('button', { name: 'Save' }))
    await waitFor(() => {
      expect(sentTo('PUT', `/entries/${hip?.id ?? ''}`)[0]?.body).toMatchObject({
        entry: { kind: 'hip_replacement', side: 'right', facts: { approach: 'posterior' } },
      })
    })
  })

  it('are taken back and brought back', async () => {
    const { user, sentTo } = await open(`${CLIENT}/limits`, {
      [`DELETE ${ENTRIES}/${hip?.id ?? ''}`]: [],
      [`POST ${ENTRIES}/${hip?.id ?? ''}/restore`]: stored,
    })
    await user.click(await button('Take back'))
    expect(await screen.findByText(`Taken back: ${hip?.label ?? ''}`)).toBeTruthy()
    expect(screen.queryByRole('article')).toBeNull()
    await user.click(await button('Undo'))
    expect(await screen.findByRole('article', { name: hip?.label ?? '' })).toBeTruthy()
    expect(sentTo('POST', '/restore')).toHaveLength(1)
  })

  it('say why they were not taken back', async () => {
    const { user } = await open(`${CLIENT}/limits`, {
      [`DELETE ${ENTRIES}/${hip?.id ?? ''}`]: refusal(409, 'Somebody changed it.'),
    })
    await user.click(await button('Take back'))
    expect(await screen.findByText(/Somebody changed it\./)).toBeTruthy()
    expect(screen.getByRole('article', { name: hip?.label ?? '' })).toBeTruthy()
  })

  it('take a clearance with its date and what it is for', async () => {
    const { user, sentTo } = await open(`${CLIENT}/limits`, {
      [`POST ${ENTRIES}/${hip?.id ?? ''}/clearances`]: stored,
    })
    await user.click(await button('Record a clearance'))
    const form = await dialog()
    await user.click(form.getByRole('button', { name: 'Save' }))
    expect(await form.findByText('Say when: a word counts from its date.')).toBeTruthy()
    await user.click(form.getAllByRole('spinbutton')[0] as HTMLElement)
    await user.keyboard('20112026')
    await user.click(form.getByRole('button', { name: 'Save' }))
    await waitFor(() => {
      expect(sentTo('POST', '/clearances')[0]?.body).toMatchObject({ who: 'surgeon', date: '2026-11-20' })
    })
  })

  it('take a clearance for what is ticked, and not for what was ticked off again', async () => {
    const { user, sentTo } = await open(`${CLIENT}/limits`, {
      [`POST ${ENTRIES}/${hip?.id ?? ''}/clearances`]: stored,
    })
    await user.click(await button('Record a clearance'))
    const form = await dialog()
    const boxes = form.getAllByRole<HTMLInputElement>('checkbox')
    for (const box of boxes) if (box.checked) await user.click(box)
    const [first, second] = boxes
    await user.click(first as HTMLElement)
    await user.click(second as HTMLElement)
    await user.click(first as HTMLElement)
    expect(boxes.filter((box) => box.checked)).toEqual([second])
    await user.click(form.getAllByRole('spinbutton')[0] as HTMLElement)
    await user.keyboard('20112026')
    await user.click(form.getByRole('button', { name: 'Save' }))
    await waitFor(() => {
      expect((sentTo('POST', '/clearances')[0]?.body as { scope: string[] }).scope).toHaveLength(1)
    })
  })

  it('say of whom they are, and nothing of what is not known', async () => {
    const key = `GET /api${CLIENT}`
    const head = (recorded as unknown as Record<string, { client: object }>)[key]
    await open(`${CLIENT}/limits`, {
      [key]: { ...head, stature_cm: null, client: { ...head?.client, age: 61, occupation: '' } },
    })
    const band = await screen.findByRole('region', { name: 'Who this is about' })
    expect(band.textContent).toContain('61')
    expect(band.textContent).not.toMatch(/null|cm|·/)
  })
})

import { screen, waitFor, within } from '@testing-library/react'
import { describe, expect, it } from 'vitest'
import { button, CLIENT, expectAccessible, open, refusal } from '../../testing/app'

const PUT = `PUT /api${CLIENT}`
const SAVED = {
  id: 'the-client', name: 'Hartley Quille', birth_date: '1965-03-15', occupation: 'clock repairer', age: 61,
  discomfort_allowed: 3, version: 2,
} // prettier-ignore

async function edit(answer: unknown) {
  const opened = await open(`${CLIENT}/limits`, { [PUT]: answer })
  await opened.user.click(await button('Edit the client'))
  const dialog = within(await screen.findByRole('dialog', { name: 'Edit the client' }))
  const save = async () => {
    await opened.user.click(dialog.getByRole('button', { name: 'Save' }))
  }
  return { ...opened, dialog, save }
}

describe('editing a client', () => {
  it('begins with what stands and sends what was changed with its version', async () => {
    const { user, dialog, save, sentTo } = await edit(SAVED)
    expect(dialog.getByRole('textbox', { name: 'Name' })).toHaveProperty('value', 'Hartley Quill')
    await expectAccessible()
    await user.type(dialog.getByRole('textbox', { name: 'Name' }), 'e')
    await user.click(dialog.getByRole('combobox', { name: 'Discomfort allowed, 0–10' }))
    await user.click(await screen.findByRole('option', { name: '3' }))
    await save()
    await waitFor(() => {
      expect(screen.queryByRole('dialog')).toBeNull()
    })
    expect(sentTo('PUT', CLIENT)[0]?.body).toMatchObject({
      name: 'Hartley Quille',
      birth_date: '1965-03-14',
      discomfort_allowed: 3,
      version: 1,
    })
  })

  it('says beside the field what is wrong', async () => {
    const { dialog, save } = await edit(
      refusal(422, 'Look again.', [{ field: 'name', message: 'Give a name.' }]),
    )
    await save()
    expect(await dialog.findByText('Give a name.')).toBeTruthy()
  })

  it('shows what somebody else saved in between and keeps both', async () => {
    const stale = {
      ...refusal(409, 'Stale.'),
      code: 'stale',
      current: { ...SAVED, name: 'H. Quill', version: 7 },
    }
    const { user, dialog, save, sentTo } = await edit(stale)
    await user.type(dialog.getByRole('textbox', { name: 'Name' }), 'e')
    await save()
    expect((await dialog.findByRole('alert')).textContent).toContain('H. Quill, ')
    expect(dialog.getByRole('textbox', { name: 'Name' })).toHaveProperty('value', 'Hartley Quille')
    await save()
    await waitFor(() => {
      expect(sentTo('PUT', CLIENT)[1]?.body).toMatchObject({ name: 'Hartley Quille', version: 7 })
    })
  })
})

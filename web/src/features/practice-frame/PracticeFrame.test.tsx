import { act, fireEvent, screen, waitFor, within } from '@testing-library/react'
import { describe, expect, it } from 'vitest'
import { button, CLIENT, expectAccessible, open, PRACTICE, refusal } from '../../testing/app'

const SEARCH = `POST /api${PRACTICE}/clients/search`
const STRANGER = { signed_in: false, id: null, full_name: '', practices: [], languages: ['en'] }

describe('the frame of a practice', () => {
  it('asks a stranger to sign in where they are, and then shows what was asked for', async () => {
    const recorded = (await import('../../testing/answers.json')).default
    const { user, sentTo } = await open(`${CLIENT}/limits`, {
      'GET /api/auth/me': STRANGER,
      'POST /api/auth/sign-in': recorded['GET /api/auth/me'],
    })
    await user.type(await screen.findByLabelText(/E-mail address/), 'ottoline@weir-room.example')
    await user.type(screen.getByLabelText(/Password/), 'secret')
    await user.click(await button('Sign in'))
    expect(await screen.findByRole('heading', { level: 1, name: 'Limits · Hartley Quill' })).toBeTruthy()
    expect(sentTo('POST', '/sign-in')[0]?.body).toEqual({
      email: 'ottoline@weir-room.example',
      password: 'secret',
    })
  })

  it('says why a sign-in was refused, and keeps the address', async () => {
    const { user } = await open('/', {
      'GET /api/auth/me': STRANGER,
      'POST /api/auth/sign-in': refusal(403, 'These do not go together.'),
    })
    const address = await screen.findByLabelText(/E-mail address/)
    await user.type(address, 'a@b.example')
    await user.type(screen.getByLabelText(/Password/), 'x')
    await user.click(await button('Sign in'))
    expect((await screen.findByRole('alert')).textContent).toContain('These do not go together.')
    expect((address as HTMLInputElement).value).toBe('a@b.example')
    await expectAccessible()
  })

  it('names every view, in the page’s title and to those who listen', async () => {
    const { user } = await open(`${CLIENT}/limits`)
    await screen.findByRole('heading', { level: 1, name: 'Limits · Hartley Quill' })
    expect(document.title).toBe('Limits · Hartley Quill · Asketa')
    await user.click(screen.getByRole('link', { name: /^Choose/ }))
    const heading = await screen.findByRole('heading', { level: 1, name: 'Choose · Hartley Quill' })
    await waitFor(() => {
      expect(document.activeElement).toBe(heading)
    })
    expect(screen.getByRole('link', { name: /^Choose/ }).getAttribute('aria-current')).toBe('page')
  })

  it('finds clients, ladders, screens and what can be done from one field', async () => {
    const { user, router, sentTo } = await open(`${CLIENT}/set-up`)
    await screen.findByRole('heading', { level: 1, name: 'Set up · Hartley Quill' })
    await user.keyboard('/')
    const field = await screen.findByRole('combobox', { name: /^Find a client/ })
    const groups = () => screen.getAllByRole('group').map((each) => each.getAttribute('aria-label'))
    await screen.findByRole('option', { name: /^Figure-four/ })
    expect(groups()).toEqual(expect.arrayContaining(['Screens', 'To do here', 'Ladders']))
    await user.type(field, 'quill')
    await waitFor(() => {
      expect(sentTo('POST', '/search').at(-1)?.body).toEqual({ text: 'quill', archived: false })
    })
    expect(screen.queryByRole('option', { name: /^Limits/ })).toBeNull()
    await user.click(await screen.findByRole('option', { name: /^Hartley Quill/ }))
    await waitFor(() => {
      expect(router.state.location.pathname).toBe(`${CLIENT}/choose`)
    })
  })

  it('goes to a screen by its name and Enter', async () => {
    const { user, router } = await open(`${CLIENT}/limits`, { [SEARCH]: [] })
    await screen.findByRole('heading', { level: 1, name: 'Limits · Hartley Quill' })
    await user.keyboard('/')
    await user.type(await screen.findByRole('combobox', { name: /^Find a client/ }), 'measu{Enter}')
    await waitFor(() => {
      expect(router.state.location.pathname).toBe(`${CLIENT}/measures`)
    })
  })

  it('lists the keys of where one is, and switches them off', async () => {
    const { user } = await open(`${CLIENT}/set-up`)
    await screen.findByRole('heading', { level: 1, name: 'Set up · Hartley Quill' })
    await user.keyboard('?')
    const list = within(await screen.findByRole('dialog'))
    expect(list.getByRole('row', { name: /\[ step back on the chosen side/ })).toBeTruthy()
    await user.click(list.getByRole('switch', { name: 'Keys are on' }))
    await user.click(list.getByRole('button', { name: 'Close' }))
    await waitFor(() => {
      expect(screen.queryByRole('dialog')).toBeNull()
    })
    await user.keyboard('/')
    expect(screen.queryByRole('combobox', { name: /^Find a client/ })).toBeNull()
  })

  it('says before it forgets what was typed', async () => {
    const { user, sentTo } = await open(`${CLIENT}/measures`, { 'POST /api/auth/sign-out': STRANGER })
    await user.type(await screen.findByRole('textbox', { name: 'Stature' }), '170')
    await user.click(await button(/Ottoline/))
    await user.click(await button('Sign out'))
    expect(await screen.findByText(/Something typed is not stored yet/)).toBeTruthy()
    expect(sentTo('POST', '/sign-out')).toHaveLength(0)
    await user.click(await button('Sign out and forget them'))
    expect(await screen.findByLabelText(/Password/)).toBeTruthy()
    expect(Object.keys(localStorage).filter((key) => key.startsWith('asketa-draft'))).toEqual([])
  })

  it('has the light somebody chose, and on the mat another', async () => {
    const { user, router } = await open(`${CLIENT}/limits`)
    await user.click(await button(/Ottoline/))
    await user.click(await button('Dim room'))
    await waitFor(() => {
      expect(document.documentElement.getAttribute('data-light')).toBe('dark')
    })
    await user.click(await button('Day'))
    await waitFor(() => {
      expect(document.documentElement.getAttribute('data-light')).toBe('light')
    })
    await act(async () => {
      await router.navigate(`${CLIENT}/mat`)
    })
    await waitFor(() => {
      expect(document.documentElement.getAttribute('data-light')).toBe('dark')
    })
  })

  it('takes no key that belongs to what has the focus', async () => {
    await open(`${PRACTICE}/clients`)
    const field = await screen.findByRole('textbox', { name: 'Find by name or occupation' })
    fireEvent.keyDown(field, { key: '?' })
    expect(screen.queryByRole('dialog')).toBeNull()
  })

  it('shows nothing of a practice one is no member of', async () => {
    await open('/practices/another/clients')
    expect(await screen.findByText('There is nothing at this address')).toBeTruthy()
  })

  it('has its views in the drawer where the bar has no room for them', async () => {
    const { user } = await open(`${PRACTICE}/clients`)
    await user.click(await button(/Ottoline/))
    const views = within(within(await screen.findByRole('dialog')).getByRole('navigation'))
    expect(views.getAllByRole('link').map((each) => each.textContent)).toEqual([
      'Today',
      'Clients',
      'Six weeks ahead',
      'Library',
      'Settings',
    ])
  })
})

import { act, render, screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { forgetDrafts, typedDrafts, useKeptDraft } from './drafts'

function Field({ name, kind = 'typed' }: { name: string; kind?: 'typed' | 'picked' }) {
  const { value, set, clear, since } = useKeptDraft(name, '', kind)
  return (
    <>
      <input
        aria-label={name}
        value={value}
        onChange={(event) => {
          set(event.target.value)
        }}
      />
      <button onClick={clear}>clear {name}</button>
      <output>{since === undefined ? 'nothing kept' : 'kept'}</output>
    </>
  )
}

const stored = (name: string) => localStorage.getItem(`asketa-draft:${name}`)
const field = (name: string) => screen.getByRole<HTMLInputElement>('textbox', { name })

afterEach(() => {
  vi.useRealTimers()
})

describe('a draft', () => {
  it('outlives the component and says since when it is kept', async () => {
    const first = render(<Field name="one" />)
    expect(screen.getByText('nothing kept')).toBeTruthy()
    await userEvent.type(field('one'), 'half')
    first.unmount()
    render(<Field name="one" />)
    expect(field('one').value).toBe('half')
    expect(screen.getByText('kept')).toBeTruthy()
  })

  it('is of its own key, and gone once cleared', async () => {
    const shown = render(<Field name="one" />)
    await userEvent.type(field('one'), 'a')
    shown.rerender(<Field name="two" />)
    expect(field('two').value).toBe('')
    shown.rerender(<Field name="one" />)
    await userEvent.click(screen.getByRole('button', { name: 'clear one' }))
    expect(field('one').value).toBe('')
    expect(stored('one')).toBeNull()
  })

  it('is the same in another tab', async () => {
    render(<Field name="one" />)
    await userEvent.type(field('one'), 'a')
    localStorage.setItem(
      'asketa-draft:one',
      JSON.stringify({ kind: 'typed', at: Date.now(), value: 'from there' }),
    )
    act(() => {
      window.dispatchEvent(new StorageEvent('storage', { key: 'asketa-draft:one' }))
    })
    expect(field('one').value).toBe('from there')
  })

  it('is forgotten after a day, and when it cannot be read', () => {
    const old = Date.now() - 25 * 3600 * 1000
    localStorage.setItem('asketa-draft:old', JSON.stringify({ kind: 'typed', at: old, value: 'x' }))
    localStorage.setItem(
      'asketa-draft:new',
      JSON.stringify({ kind: 'typed', at: old + 2 * 3600 * 1000, value: 'y' }),
    )
    localStorage.setItem('asketa-draft:odd', 'no draft at all')
    render(
      <>
        <Field name="old" />
        <Field name="new" />
        <Field name="odd" />
      </>,
    )
    expect([field('old').value, field('new').value, field('odd').value]).toEqual(['', 'y', ''])
  })

  it('counts as typed only where text would be lost', async () => {
    render(
      <>
        <Field name="text" />
        <Field name="choice" kind="picked" />
      </>,
    )
    await userEvent.type(field('choice'), 'a')
    expect(typedDrafts()).toBe(0)
    await userEvent.type(field('text'), 'a')
    expect(typedDrafts()).toBe(1)
    act(forgetDrafts)
    expect(typedDrafts()).toBe(0)
    expect(field('text').value).toBe('')
  })
})

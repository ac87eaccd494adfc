import { screen } from '@testing-library/react'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { show } from '../../testing/app'
import { Undo } from './Undo'

afterEach(() => {
  vi.useRealTimers()
})

describe('the way back', () => {
  const idle = { isPending: false, error: null }

  it('is one touch, and goes once it was in sight', () => {
    vi.useFakeTimers()
    const [undo, close] = [vi.fn(), vi.fn()]
    show(<Undo text="Taken back." back={idle} onUndo={undo} onClose={close} />)
    screen.getByRole('button', { name: 'Undo' }).click()
    expect(undo).toHaveBeenCalledOnce()
    expect(close).not.toHaveBeenCalled()
    vi.advanceTimersByTime(30_000)
    expect(close).toHaveBeenCalledOnce()
  })

  it('stays and says why when it failed', () => {
    vi.useFakeTimers()
    const close = vi.fn()
    const failed = { isPending: false, error: new Error('Not now.') }
    show(<Undo text="Taken back." back={failed} onUndo={() => undefined} onClose={close} />)
    expect(screen.getByRole('alert').textContent).toContain('Not now.')
    expect(screen.queryByText('Taken back.')).toBeNull()
    vi.advanceTimersByTime(60_000)
    expect(close).not.toHaveBeenCalled()
  })
})

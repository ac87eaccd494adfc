import { fireEvent, screen } from '@testing-library/react'
import { describe, expect, it, vi } from 'vitest'
import { ApiProblem } from '../../api/client'
import { expectAccessible, show } from '../../testing/app'
import { DraftNote } from './DraftNote'
import { FileButton, fileContent } from './FileButton'

describe('the note of a draft', () => {
  it('discards only when asked twice', async () => {
    const discard = vi.fn()
    const { user } = show(<DraftNote since={Date.now()} onDiscard={discard} />)
    expect(screen.getByText(/not stored yet/)).toBeTruthy()
    await user.click(screen.getByRole('button', { name: 'Discard' }))
    expect(discard).not.toHaveBeenCalled()
    await user.click(screen.getByRole('button', { name: 'Discard for good' }))
    expect(discard).toHaveBeenCalledOnce()
    expect(screen.queryByText(/not stored yet/)).toBeNull()
  })

  it('says nothing of a form that was empty when it was opened', () => {
    show(<DraftNote since={undefined} onDiscard={() => undefined} />)
    expect(screen.queryByText(/not stored yet/)).toBeNull()
  })
})

describe('a file that is brought in', () => {
  // The page of the tests cannot read files.
  const file = (text: string) => ({ text: () => Promise.resolve(text) }) as File
  const idle = { mutate: vi.fn(), isPending: false, isError: false, error: null, reset: vi.fn() }

  it('may be the same one again, once it was corrected', () => {
    const mutate = vi.fn()
    show(<FileButton label="From a file" bringIn={{ ...idle, mutate }} />)
    const picker = document.querySelector('input[type=file]') as HTMLInputElement
    const picked = new File(['{}'], 'client.json')
    fireEvent.change(picker, { target: { files: [picked] } })
    expect(mutate).toHaveBeenCalledWith(picked)
    expect(picker.value).toBe('')
  })

  it('says where in it something is wrong', async () => {
    const problem = {
      message: 'Not read.',
      code: '',
      fields: [{ field: 'entries.2.side', message: 'No side.' }],
    }
    const error = new ApiProblem(422, problem)
    const reset = vi.fn()
    const { user } = show(
      <FileButton label="From a file" bringIn={{ ...idle, isError: true, error, reset }} />,
    )
    expect(screen.getByRole('alert').textContent).toContain('entries.2.side: No side.')
    await expectAccessible()
    await user.click(screen.getByRole('button', { name: /close/i }))
    expect(reset).toHaveBeenCalledOnce()
  })

  it('is refused in words where it is no file of ours', async () => {
    for (const text of ['', 'x', '[1]', 'null', '"text"']) {
      await expect(fileContent(file(text), 'No such file.')).rejects.toThrow('No such file.')
    }
    await expect(fileContent(file('{"a": 1}'), '')).resolves.toEqual({ a: 1 })
  })
})

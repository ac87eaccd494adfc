import { describe, expect, it } from 'vitest'
import type { Schemas } from '../../api/client'
import { mostImportant, noteLane } from './model'

type Note = Schemas['NoteOut']
const note = (text: string, weight: Note['weight'], side: Note['side'] = null): Note => ({
  text,
  weight,
  side,
  entry_id: null,
})

describe('what is to be minded', () => {
  it('is first what is to be asked, then a limit, then a fact', () => {
    const notes = [
      note('fact', 'fact'),
      note('promise', 'promise'),
      note('limit', 'limit'),
      note('ask', 'ask'),
    ]
    expect(mostImportant(notes)?.text).toBe('ask')
    expect(mostImportant(notes.slice(0, 3))?.text).toBe('limit')
    expect(mostImportant(notes.slice(0, 2))?.text).toBe('fact')
    expect(mostImportant([])).toBeUndefined()
  })

  it('stands on its side, or in the middle', () => {
    expect(noteLane(note('', 'fact', 'left'))).toBe('left')
    expect(noteLane(note('', 'fact', 'right'))).toBe('right')
    expect(noteLane(note('', 'fact'))).toBe('both')
  })
})

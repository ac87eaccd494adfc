import type { Lane, Schemas } from '../../api/client'

type Note = Schemas['NoteOut']

export function noteLane(note: Note): Lane {
  return note.side ?? 'both'
}

const BY_IMPORTANCE: readonly Note['weight'][] = ['ask', 'limit', 'fact', 'promise']

/** The line that stays in sight where there is no room for all: what is to be asked, else the first limit. */
export function mostImportant(notes: readonly Note[]): Note | undefined {
  return BY_IMPORTANCE.flatMap((weight) => notes.filter((note) => note.weight === weight))[0]
}

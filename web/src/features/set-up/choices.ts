import type { Schemas } from '../../api/client'

type Setup = Record<string, Schemas['SlotValue']>

/** What was chosen on one rung: slot values, the dose in seconds, and a note. */
interface Choice {
  setup?: Setup
  dose?: number
  note?: string
}

/**
 * What was chosen today, by rung and side; shared shapes have one choice for both.
 * Values are kept and not places on an axis: what the room can build may change in between.
 */
export type Choices = Readonly<Record<string, Choice>>

export const NOTHING_CHOSEN: Choices = {}

export type Chosen =
  | { chose: 'setup'; of: string; setup: Setup }
  | { chose: 'dose'; of: string; seconds: number }
  | { chose: 'note'; of: string; note: string }

/** The key of a rung's choice: its own, with the side where the sides differ. */
export function choiceKey(variation: string, side: string, shared: boolean): string {
  return shared ? variation : `${variation}:${side}`
}

/** The choices after one more was made; the others, and what else was chosen on the same rung, stay. */
export function choicesAfter(choices: Choices, event: Chosen): Choices {
  return { ...choices, [event.of]: { ...choices[event.of], ...chosenIn(event) } }
}

function chosenIn(event: Chosen): Choice {
  switch (event.chose) {
    case 'setup':
      return { setup: event.setup }
    case 'dose':
      return { dose: event.seconds }
    case 'note':
      return { note: event.note }
  }
}

import type { Schemas, Side } from '../../api/client'

export type Phase = 'during' | 'after' | 'before'
/** During first: it is what a hold cannot be logged without. */
export const PHASES: readonly Phase[] = ['during', 'after', 'before']

export type Kind = NonNullable<Schemas['ItemIn']['kind']>
export type Place = NonNullable<Schemas['ItemIn']['place']>
export type Sign = NonNullable<Schemas['ItemIn']['signs']>[number]

/** The rung, set-up and dose a hold is made with. */
export type Used = Pick<
  Schemas['MatStepBack'],
  'variation' | 'short' | 'setup' | 'setup_words' | 'dose_s' | 'dose'
>

/** What was said so far of a hold; `null` where nothing was said. No `signs` at all is not the same as none seen. */
export interface Said {
  scores: Record<Phase, number | null>
  kind: Kind | null
  place: Place | null
  signs: Sign[] | null
  note: string
}

export interface LogDraft extends Said {
  /** Made once for a hold, so that sending it again stores nothing twice. */
  id: string
  /** Whether it was asked once for what was not said. */
  asked: boolean
  /** Seconds held when it was first sent; sent again it says the same, however long the clock ran on. */
  held?: number | null
}

const NOTHING_SAID: Said = {
  scores: { before: null, during: null, after: null },
  kind: null,
  place: null,
  signs: null,
  note: '',
}

export function newDraft(): LogDraft {
  return { ...NOTHING_SAID, id: crypto.randomUUID(), asked: false }
}

/** A draft to correct what was logged; rung, set-up and dose are the hold's own and no part of it. */
export function correctionOf(item: Schemas['ItemOut']): LogDraft {
  const { before, during, after, kind, place, signs, note } = item
  return { ...newDraft(), scores: { before, during, after }, kind, place, signs, note, asked: true }
}

/** Give a score to a phase and say which phase is asked next. */
export function withScore(draft: LogDraft, phase: Phase, score: number): { draft: LogDraft; next: Phase } {
  const next = PHASES[PHASES.indexOf(phase) + 1] ?? phase
  return { draft: { ...draft, scores: { ...draft.scores, [phase]: score } }, next }
}

/** One touch that says all three: nothing that worries, where it is wanted, and nothing seen, the breath steady. */
export function calm(draft: LogDraft): LogDraft {
  return { ...draft, kind: 'calm', place: 'wanted', signs: [] }
}

/** A sign seen or not after all; saying one answers that somebody looked. */
export function withSign(draft: LogDraft, sign: Sign): LogDraft {
  const signs = draft.signs ?? []
  return { ...draft, signs: signs.includes(sign) ? signs.filter((each) => each !== sign) : [...signs, sign] }
}

/** Whether kind, place or what was seen is still unsaid. */
export function leavesUnsaid(draft: Said): boolean {
  return draft.kind === null || draft.place === null || draft.signs === null
}

/** What is sent of what was said; `null` while the discomfort during the hold is missing. What nobody said is left out. */
export function saidFrom(draft: LogDraft, held_s: number | null): Schemas['CorrectionIn'] | null {
  const { before, during, after } = draft.scores
  if (during === null) return null
  return {
    id: draft.id,
    during,
    note: draft.note,
    ...(before === null ? {} : { before }),
    ...(after === null ? {} : { after }),
    ...(draft.kind === null ? {} : { kind: draft.kind }),
    ...(draft.place === null ? {} : { place: draft.place }),
    ...(draft.signs === null ? {} : { signs: draft.signs }),
    ...(held_s === null ? {} : { held_s }),
  }
}

/** A hold to log: what was said, with the rung and set-up it was made with. */
export function itemFrom(
  draft: LogDraft,
  used: Pick<Used, 'variation' | 'setup' | 'dose_s'>,
  side: Side,
  held_s: number | null,
): Schemas['ItemIn'] | null {
  const said = saidFrom(draft, held_s)
  return said === null
    ? null
    : { ...said, variation: used.variation, side, setup_used: used.setup, dose_s: used.dose_s }
}

/** What limits and what is to be asked, of what is to be minded on some sides; `null` is what has none. */
export function mindedOn(notes: readonly Schemas['NoteOut'][], sides: readonly (Side | null)[]): string[] {
  return notes
    .filter(({ weight, side }) => (weight === 'limit' || weight === 'ask') && sides.includes(side))
    .map(({ text }) => text)
}

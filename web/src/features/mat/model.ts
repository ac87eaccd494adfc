import type { Schemas } from '../../api/client'

export type Phase = 'before' | 'during' | 'after'
export const PHASES: readonly Phase[] = ['before', 'during', 'after']

export interface LogDraft {
  /** Made once for a log, so that sending it again stores nothing twice. */
  id: string
  scores: Record<Phase, number | null>
  kind: Schemas['ItemIn']['kind']
  place: Schemas['ItemIn']['place']
  signs: Schemas['ItemIn']['signs']
  note: string
  replaces: string | null
}

export function newDraft(replaces: string | null = null): LogDraft {
  return {
    id: crypto.randomUUID(),
    scores: { before: null, during: null, after: null },
    kind: 'none',
    place: 'wanted',
    signs: [],
    note: '',
    replaces,
  }
}

/** A draft to correct what was logged. */
export function correctionOf(item: Schemas['ItemOut']): LogDraft {
  const { before, during, after, kind, place, signs, note } = item
  return { ...newDraft(item.id), scores: { before, during, after }, kind, place, signs, note }
}

/** Give a score to a phase and say which phase is asked next. */
export function withScore(draft: LogDraft, phase: Phase, score: number): { draft: LogDraft; next: Phase } {
  const next = PHASES[PHASES.indexOf(phase) + 1] ?? phase
  return { draft: { ...draft, scores: { ...draft.scores, [phase]: score } }, next }
}

/** What is sent; `null` while the discomfort during the hold is missing. Before and after count as none unless said. */
export function itemFrom(
  draft: LogDraft,
  used: { variation: string; setup: Record<string, Schemas['SlotValue']>; dose_s: number },
  side: Schemas['Side'],
): Schemas['ItemIn'] | null {
  const { before, during, after } = draft.scores
  if (during === null) return null
  return {
    id: draft.id,
    variation: used.variation,
    side,
    setup_used: used.setup,
    dose_s: used.dose_s,
    before: before ?? 0,
    during,
    after: after ?? 0,
    kind: draft.kind,
    place: draft.place,
    signs: draft.signs,
    note: draft.note,
    replaces: draft.replaces,
  }
}

import type { Schemas, Side } from '../../api/client'

export type Kind = Schemas['EntryEnvelope']['entry']['kind']

/** A form's text by fact; empty means not answered. */
export type Draft = { kind: Kind | ''; side: Side | ''; facts: Record<string, string> }

export interface Question {
  name: string
  type: 'choice' | 'date' | 'number'
  options?: readonly string[]
  /** Asked only when this holds for what was answered so far. */
  when?: (facts: Record<string, string>) => boolean
}

const TRI = ['yes', 'no', 'unknown'] as const

/** The questions that matter for each kind, in the order they are asked. */
export const QUESTIONS: Record<Kind, readonly Question[]> = {
  hip_replacement: [
    { name: 'date', type: 'date' },
    {
      name: 'approach',
      type: 'choice',
      options: ['posterior', 'direct_anterior', 'anterolateral', 'lateral', 'unknown'],
    },
    { name: 'prosthesis', type: 'choice', options: ['total', 'half', 'resurfacing', 'revision', 'unknown'] },
    { name: 'weight_bearing', type: 'choice', options: ['full', 'partial', 'touch', 'unknown'] },
    { name: 'dislocated', type: 'choice', options: TRI },
    { name: 'abductor_repair', type: 'choice', options: TRI },
    { name: 'trouble_since', type: 'choice', options: TRI },
    { name: 'surgeon_bend_deg', type: 'number' },
    { name: 'leg_length_difference_cm', type: 'number' },
    { name: 'school', type: 'choice', options: ['until_cleared', 'for_life'] },
  ],
  knee_pain: [
    {
      name: 'site',
      type: 'choice',
      options: ['front', 'inner_line', 'outer_line', 'back', 'all_over', 'below_kneecap', 'unknown'],
    },
    {
      name: 'diagnosis',
      type: 'choice',
      options: [
        'kneecap',
        'bursitis',
        'inner_meniscus',
        'outer_meniscus',
        'meniscus_repaired',
        'arthritis',
        'acl',
        'pcl',
        'mcl',
        'lcl',
        'replacement',
        'over_straightens',
        'unknown',
      ],
    },
    { name: 'since', type: 'date' },
    { name: 'operated', type: 'choice', options: TRI },
    { name: 'operation_date', type: 'date', when: (facts) => facts['operated'] === 'yes' },
    { name: 'swelling', type: 'choice', options: TRI },
    { name: 'locks_or_gives_way', type: 'choice', options: TRI },
  ],
}

/** The record a draft stands for; `null` while kind or side is missing. Unanswered facts stay absent. */
export function entryFrom(draft: Draft): Schemas['EntryEnvelope']['entry'] | null {
  if (draft.kind === '' || draft.side === '') return null
  const facts: Record<string, string | number> = {}
  for (const question of QUESTIONS[draft.kind]) {
    const text = draft.facts[question.name] ?? ''
    if (text === '' || (question.when !== undefined && !question.when(draft.facts))) continue
    facts[question.name] = question.type === 'number' ? Number(text.replace(',', '.')) : text
  }
  // The server checks every fact; the form only decides which are sent.
  return { kind: draft.kind, side: draft.side, facts } as Schemas['EntryEnvelope']['entry']
}

/** A draft from what is recorded, for correcting it. */
export function draftFrom(entry: Schemas['EntryEnvelope']['entry']): Draft {
  const facts = Object.entries(entry.facts).map(([name, value]) => [
    name,
    value === null ? '' : String(value),
  ])
  return { kind: entry.kind, side: entry.side, facts: Object.fromEntries(facts) as Record<string, string> }
}

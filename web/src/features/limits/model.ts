import type { Schemas, Side } from '../../api/client'
import { UNFINISHED } from '../../common/forms/DateField'
import { isUnreadable, numberIn, unitOf } from '../../common/forms/numbers'

export type Entry = Schemas['EntryEnvelope']['entry']
export type Kind = Entry['kind']

/** A form's text by fact; empty means not answered. */
export type Draft = { kind: Kind | ''; side: Side | ''; facts: Record<string, string> }

export interface Question {
  name: string
  type: 'choice' | 'date' | 'number' | 'ticks' | 'fractures'
  options?: readonly string[]
  /** Asked only when this holds for what was answered so far. */
  when?: (facts: Record<string, string>) => boolean
}

const TRI = ['yes', 'no', 'unknown'] as const

/** What is asked before working in pregnancy, the explicit "none of these" first. */
const PREGNANCY_TICKS = [
  'none',
  'bleeding',
  'leaking_fluid',
  'preterm_contractions',
  'low_placenta',
  'pre_eclampsia',
  'short_cervix',
  'growth_restriction',
  'triplets',
  'thyroid_or_diabetes_uncontrolled',
  'heart_or_lung_serious',
  'anaemia_severe',
  'earlier_preterm_or_losses',
  'gestational_hypertension',
  'heart_or_lung_mild',
  'malnutrition',
  'eating_disorder',
] as const

/** What may be happening now and must not wait, asked at arrival. */
const HIP_SYMPTOMS = [
  'none',
  'sudden_groin_pain',
  'leg_shorter_or_turned',
  'cannot_take_weight',
  'clunk_or_giving_way',
  'hot_wound_or_fever',
  'calf_pain_or_swelling',
  'chest_pain_or_breathless',
] as const
const KNEE_SYMPTOMS = ['none', 'locked', 'hot_or_fever', 'injury_with_pop', 'calf_pain_or_swelling'] as const
const PREGNANCY_SYMPTOMS = [
  'none',
  'bleeding',
  'leaking_fluid',
  'regular_contractions',
  'dizzy_or_weak',
  'chest_pain',
  'breathless_before_effort',
  'headache_with_sight',
  'sudden_swelling',
  'upper_belly_pain',
  'severe_itching',
  'calf_pain',
  'baby_moving_less',
] as const
const BONES_SYMPTOMS = [
  'none',
  'sudden_back_pain',
  'new_loss_of_height',
  'leg_weak_or_numb',
  'bladder_or_bowel',
  'thigh_ache',
] as const
const STIRS = ['stairs', 'squatting', 'kneeling', 'turning', 'long_sitting', 'standing', 'walking'] as const

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
    {
      name: 'half_because',
      type: 'choice',
      options: ['fall', 'arthritis', 'other', 'unknown'],
      when: (facts) => facts['prosthesis'] === 'half',
    },
    { name: 'weight_bearing', type: 'choice', options: ['full', 'partial', 'touch', 'unknown'] },
    { name: 'dislocated', type: 'choice', options: TRI },
    { name: 'abductor_repair', type: 'choice', options: TRI },
    { name: 'trouble_since', type: 'choice', options: TRI },
    { name: 'trouble_on', type: 'date', when: (facts) => facts['trouble_since'] === 'yes' },
    { name: 'surgeon_bend_deg', type: 'number' },
    { name: 'leg_length_difference_cm', type: 'number' },
    { name: 'school', type: 'choice', options: ['until_cleared', 'for_life'] },
    { name: 'symptoms_now', type: 'ticks', options: HIP_SYMPTOMS },
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
    { name: 'stirred_up_by', type: 'ticks', options: STIRS },
    { name: 'symptoms_now', type: 'ticks', options: KNEE_SYMPTOMS },
  ],
  groin_pinch: [
    { name: 'straight_deg', type: 'number' },
    { name: 'turned_out_deg', type: 'number' },
    { name: 'turned_out_at_deg', type: 'number', when: (facts) => (facts['turned_out_deg'] ?? '') !== '' },
  ],
  hamstrings: [
    { name: 'low_back', type: 'choice', options: ['fine', 'weak', 'sore', 'unknown'] },
    { name: 'leg_tingling', type: 'choice', options: TRI },
  ],
  pregnancy: [
    { name: 'due_date', type: 'date' },
    { name: 'last_period', type: 'date', when: (facts) => (facts['due_date'] ?? '') === '' },
    { name: 'babies', type: 'choice', options: ['one', 'twins', 'unknown'] },
    { name: 'girdle_pain', type: 'choice', options: TRI },
    { name: 'pain_free_gap_cm', type: 'number', when: (facts) => facts['girdle_pain'] === 'yes' },
    { name: 'unwell_lying_flat', type: 'choice', options: TRI },
    { name: 'systolic', type: 'number' },
    { name: 'diastolic', type: 'number' },
    {
      name: 'blood_pressure_high',
      type: 'choice',
      options: TRI,
      when: (facts) => (facts['systolic'] ?? '') === '' && (facts['diastolic'] ?? '') === '',
    },
    { name: 'baby_position', type: 'choice', options: ['head_down', 'bottom_down', 'across', 'unknown'] },
    { name: 'placenta', type: 'choice', options: ['clear', 'low', 'unknown'] },
    { name: 'born_on', type: 'date' },
    { name: 'caesarean', type: 'choice', options: TRI, when: (facts) => (facts['born_on'] ?? '') !== '' },
    { name: 'ticks', type: 'ticks', options: PREGNANCY_TICKS },
    { name: 'symptoms_now', type: 'ticks', options: PREGNANCY_SYMPTOMS },
  ],
  bones: [
    { name: 't_score', type: 'number' },
    { name: 't_score_date', type: 'date' },
    { name: 'height_lost_cm', type: 'number' },
    {
      name: 'height_lost_how',
      type: 'choice',
      options: ['recalled', 'measured', 'unknown'],
      when: (facts) => (facts['height_lost_cm'] ?? '') !== '',
    },
    { name: 'wall_to_head_cm', type: 'number' },
    { name: 'steroids', type: 'choice', options: TRI },
    { name: 'fell_last_year', type: 'choice', options: TRI },
    { name: 'one_leg_stand_s', type: 'number' },
    { name: 'fractures', type: 'fractures' },
    { name: 'symptoms_now', type: 'ticks', options: BONES_SYMPTOMS },
  ],
  low_back: [
    {
      name: 'what',
      type: 'choice',
      options: ['sore', 'weak', 'disc', 'narrow_canal', 'slipped_vertebra', 'unknown'],
    },
    { name: 'sore', type: 'choice', options: TRI, when: (facts) => facts['what'] === 'disc' },
  ],
  wrist: [],
}

/** Kinds of record that concern the body as a whole. */
export const WHOLE_BODY: readonly Kind[] = ['pregnancy', 'bones', 'low_back']

/** The kinds that can be recorded on a side, or for the body as a whole. */
export function kindsFor(side: Side | null): Kind[] {
  return (Object.keys(QUESTIONS) as Kind[]).filter((kind) => WHOLE_BODY.includes(kind) === (side === null))
}

/** The questions asked of a draft, with what was typed; those that do not apply any more are left out. */
function answered(draft: Draft): [Question, string][] {
  if (draft.kind === '') return []
  return QUESTIONS[draft.kind]
    .filter((question) => question.when === undefined || question.when(draft.facts))
    .map((question): [Question, string] => [question, draft.facts[question.name] ?? ''])
    .filter(([, text]) => text.trim() !== '')
}

/** Facts that hold something that is no number or no date: neither sent nor taken as not answered. */
export function unreadableFacts(draft: Draft): { name: string; type: 'number' | 'date' }[] {
  return answered(draft).flatMap(([question, text]): { name: string; type: 'number' | 'date' }[] => {
    const { name, type } = question
    if (type === 'number') return isUnreadable(text, unitOf(name)) ? [{ name, type }] : []
    if (type === 'date') return text === UNFINISHED ? [{ name, type }] : []
    if (type !== 'fractures') return []
    return fracturesFrom(text).some((row) => row.date === UNFINISHED) ? [{ name, type: 'date' }] : []
  })
}

/**
 * The record a draft stands for; `null` while kind or side is missing, or something typed cannot be read. Unanswered
 * facts stay absent; a field that holds something is never sent as absent.
 */
export function entryFrom(draft: Draft): Entry | null {
  if (draft.kind === '' || unreadableFacts(draft).length > 0) return null
  const whole = WHOLE_BODY.includes(draft.kind)
  if (!whole && draft.side === '') return null
  const facts = Object.fromEntries(
    answered(draft).map(([question, text]) => [question.name, factFrom(question, text)]),
  )
  // The server checks every fact; the form only decides which are sent.
  return { kind: draft.kind, ...(whole ? {} : { side: draft.side }), facts } as Entry
}

function factFrom(question: Question, text: string): unknown {
  if (question.type === 'number') return numberIn(text, unitOf(question.name))
  if (question.type === 'ticks') return text.split(',')
  if (question.type === 'fractures')
    return fracturesFrom(text).map(({ date, ...rest }) => (date === '' ? rest : { ...rest, date }))
  return text
}

export interface FractureDraft {
  bone: string
  date: string
  low_energy: string
}

/** The list of fractures a form's text holds; none while nothing was answered. */
export function fracturesFrom(text: string): FractureDraft[] {
  return text === '' ? [] : (JSON.parse(text) as FractureDraft[])
}

/** A tick added or removed; the explicit "none of these" stands alone. */
export function ticked(text: string, tick: string): string {
  const now = text === '' ? [] : text.split(',')
  if (now.includes(tick)) return now.filter((each) => each !== tick).join(',')
  if (tick === 'none') return 'none'
  return [...now.filter((each) => each !== 'none'), tick].join(',')
}

/** What a record is of; `null` for one that cannot be read and does not say it either. */
export function kindOf(entry: Schemas['EntryShown']): Kind | null {
  const kind = entry.kind === 'unreadable' ? entry.facts['kind'] : entry.kind
  return typeof kind === 'string' && Object.hasOwn(QUESTIONS, kind) ? (kind as Kind) : null
}

/** A draft from what is recorded, for correcting it; nothing of a record that cannot be read. */
export function draftFrom(entry: Schemas['EntryShown']): Draft {
  if (entry.kind === 'unreadable') return { kind: '', side: entry.side ?? '', facts: {} }
  const facts = Object.entries(entry.facts).map(([name, value]) => [name, textOf(name, value)])
  return {
    kind: entry.kind,
    side: entry.side ?? '',
    facts: Object.fromEntries(facts) as Record<string, string>,
  }
}

function textOf(name: string, value: unknown): string {
  if (value === null || value === undefined) return ''
  if (name === 'fractures') {
    const rows = value as { bone: string; date?: string | null; low_energy: string }[]
    return JSON.stringify(rows.map((row) => ({ ...row, date: row.date ?? '' })))
  }
  return Array.isArray(value) ? value.join(',') : String(value as string | number)
}

import type { Schemas, Side } from '../../api/client'
import type { Unit } from '../../common/forms/numbers'

/** What a question depends on: that another was answered, or answered with one of these. */
interface Condition {
  fact: string
  is?: readonly string[]
  answered?: boolean
}

/** One fact of a kind of record, as the server's JSON Schema describes it. */
interface FactSchema {
  title: string
  type?: string
  format?: string
  oneOf?: readonly { const: string; title: string }[]
  items?: { oneOf?: FactSchema['oneOf']; properties?: Record<string, FactSchema> }
  'x-unit'?: Unit
  'x-when'?: readonly Condition[]
  'x-group'?: string
  'x-if-any'?: boolean
}

interface FactsSchema {
  properties: Record<string, FactSchema>
  'x-order': readonly string[]
}

/** A kind of record: its name, where it belongs, and what is asked. */
export type Form = Omit<Schemas['FormOut'], 'facts'> & { facts: FactsSchema }

/** Every kind of record there is, in the order they are offered. */
export type Forms = readonly Form[]

interface Option {
  value: string
  label: string
}

export interface Question {
  name: string
  label: string
  type: 'choice' | 'date' | 'number' | 'ticks' | 'list'
  unit: Unit
  options: readonly Option[]
  /** What is asked of each thing in a list. */
  columns: readonly Question[]
  when: readonly Condition[]
  /** The heading it stands under, where there is one. */
  group: string | undefined
  /** Whether no answer means that there is nothing to tell. */
  ifAny: boolean
}

export function formsFrom(answer: readonly Schemas['FormOut'][]): Forms {
  // The server's own schema types facts as any JSON.
  return answer as unknown as Forms
}

export function formOf(forms: Forms, kind: string): Form | undefined {
  return forms.find((form) => form.code === kind)
}

/** The kinds that can be recorded on a side, or for the body as a whole. */
export function kindsFor(forms: Forms, side: Side | null): Forms {
  return forms.filter((form) => form.sides === 'either' || (form.sides === 'middle') === (side === null))
}

/** What is asked of a kind of record, in order. */
export function questionsOf(form: Form): Question[] {
  return form.facts['x-order'].flatMap((name) => {
    const fact = form.facts.properties[name]
    return fact === undefined ? [] : [question(name, fact)]
  })
}

/** Those of the questions that apply to what was answered so far. */
export function askedNow(form: Form, facts: Record<string, string>): Question[] {
  return questionsOf(form).filter((each) => each.when.every((condition) => holds(condition, facts)))
}

/** Questions by the heading they stand under, in order. */
export function grouped(
  questions: readonly Question[],
): readonly { group: string | undefined; questions: readonly Question[] }[] {
  const found: { group: string | undefined; questions: Question[] }[] = []
  for (const each of questions) {
    const last = found.at(-1)
    if (last !== undefined && last.group === each.group) last.questions.push(each)
    else found.push({ group: each.group, questions: [each] })
  }
  return found
}

/** What applies to a record and was not answered, or only with 'not known'; where there may be nothing to tell, no answer
 * is one. */
export function leftOut(form: Form, facts: Record<string, string>): Question[] {
  return askedNow(form, facts).filter(
    ({ name, ifAny }) => !ifAny && ['', 'unknown'].includes(facts[name] ?? ''),
  )
}

/** An answer in the words of its question. */
export function answerWords(asked: Question, text: string): string {
  const words = new Map(asked.options.map(({ value, label }) => [value, label]))
  return text
    .split(',')
    .map((each) => words.get(each) ?? each)
    .join(', ')
}

function holds({ fact, is, answered }: Condition, facts: Record<string, string>): boolean {
  const text = facts[fact] ?? ''
  return is === undefined ? (text !== '') === (answered ?? true) : is.includes(text)
}

function question(name: string, fact: FactSchema): Question {
  const options = (fact.oneOf ?? fact.items?.oneOf ?? []).map((each) => ({
    value: each.const,
    label: each.title,
  }))
  return {
    name,
    label: fact.title,
    type: typeOf(fact),
    unit: fact['x-unit'] ?? 'plain',
    options,
    columns: Object.entries(fact.items?.properties ?? {}).map(([column, each]) => question(column, each)),
    when: fact['x-when'] ?? [],
    group: fact['x-group'],
    ifAny: fact['x-if-any'] ?? false,
  }
}

function typeOf(fact: FactSchema): Question['type'] {
  if (fact.type === 'array') return fact.items?.properties === undefined ? 'ticks' : 'list'
  if (fact.type === 'number' || fact.type === 'integer') return 'number'
  return fact.format === 'date' ? 'date' : 'choice'
}

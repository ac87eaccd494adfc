import type { Schemas, Side } from '../../api/client'
import { UNFINISHED } from '../../common/forms/unfinished'
import { asTyped, isUnreadable, numberIn } from '../../common/forms/numbers'
import { answerWords, askedNow, type Form, formOf, type Forms, type Question, questionsOf } from './forms'

export type Entry = Schemas['EntryEnvelope']['entry']

/** A form's text by fact; empty means not answered. */
export type Draft = { kind: string; side: Side | ''; facts: Record<string, string> }

/** The questions asked of a draft, with what was typed; those that do not apply any more are left out. */
function answered(form: Form, draft: Draft): [Question, string][] {
  return askedNow(form, draft.facts)
    .map((question): [Question, string] => [question, draft.facts[question.name] ?? ''])
    .filter(([, text]) => text.trim() !== '')
}

/** Facts that hold something that is no number or no date: neither sent nor taken as not answered. */
export function unreadableFacts(form: Form | undefined, draft: Draft): Question[] {
  if (form === undefined) return []
  return answered(form, draft).flatMap(([question, text]) => {
    if (question.type !== 'list') return isBroken(question, text) ? [question] : []
    return rowsFrom(text).flatMap((row) => {
      const column = question.columns.find((each) => isBroken(each, row[each.name] ?? ''))
      return column === undefined ? [] : [{ ...column, name: question.name }]
    })
  })
}

function isBroken({ type, unit }: Question, text: string): boolean {
  if (type === 'number') return text !== '' && isUnreadable(text, unit)
  return type === 'date' && text === UNFINISHED
}

/**
 * The record a draft stands for; `null` while kind or side is missing, or something typed cannot be read. Unanswered
 * facts stay absent; a field that holds something is never sent as absent.
 */
export function entryFrom(forms: Forms, draft: Draft): Entry | null {
  const form = formOf(forms, draft.kind)
  if (form === undefined || unreadableFacts(form, draft).length > 0) return null
  if (form.sides === 'sided' && draft.side === '') return null
  const side = form.sides === 'middle' || draft.side === '' ? {} : { side: draft.side }
  const facts = Object.fromEntries(
    answered(form, draft).map(([question, text]) => [question.name, factFrom(question, text)]),
  )
  // The server checks every fact; the form only decides which are sent.
  return { kind: form.code, ...side, facts } as Entry
}

function factFrom(question: Question, text: string): unknown {
  if (question.type === 'number') return numberIn(text, question.unit)
  if (question.type === 'ticks') return text.split(',')
  if (question.type !== 'list') return text
  return rowsFrom(text).map((row) =>
    Object.fromEntries(
      question.columns
        .filter((column) => (row[column.name] ?? '') !== '')
        .map((column) => [column.name, factFrom(column, row[column.name] ?? '')]),
    ),
  )
}

/** Where a record's card is on the page. */
export function cardId(entry: string): string {
  return `record-${entry}`
}

/** One thing of a list, by column. */
export type Row = Record<string, string>

/** The list a form's text holds; empty while nothing was answered. */
export function rowsFrom(text: string): Row[] {
  return text === '' ? [] : (JSON.parse(text) as Row[])
}

/** A new thing of a list: not known where that is an answer, else the first choice, dates and figures open. */
export function newRow(question: Question): Row {
  return Object.fromEntries(question.columns.map((column) => [column.name, startOf(column)]))
}

function startOf({ type, options }: Question): string {
  if (type !== 'choice') return ''
  return options.some((option) => option.value === 'unknown') ? 'unknown' : (options[0]?.value ?? '')
}

/** A tick added or removed; the explicit "none of these" stands alone. */
export function ticked(text: string, tick: string): string {
  const now = text === '' ? [] : text.split(',')
  if (now.includes(tick)) return now.filter((each) => each !== tick).join(',')
  if (tick === 'none') return 'none'
  return [...now.filter((each) => each !== 'none'), tick].join(',')
}

/** What a record is of; `undefined` for one that cannot be read and does not say it either. */
export function formOfEntry(forms: Forms, entry: Schemas['EntryShown']): Form | undefined {
  const kind = entry.kind === 'unreadable' ? entry.facts['kind'] : entry.kind
  return typeof kind === 'string' ? formOf(forms, kind) : undefined
}

/** A draft from what is recorded, for correcting it; nothing of a record that cannot be read. */
export function draftFrom(forms: Forms, entry: Schemas['EntryShown']): Draft {
  const form = formOf(forms, entry.kind)
  const side = entry.side ?? ''
  if (form === undefined) return { kind: '', side, facts: {} }
  const facts = questionsOf(form).map((question) => [
    question.name,
    textOf(question, entry.facts[question.name]),
  ])
  return { kind: form.code, side, facts: Object.fromEntries(facts) as Record<string, string> }
}

/** What somebody else saved in between where it differs from what is typed: question and their answer in words. */
export function theirsIn(
  form: Form | undefined,
  draft: Draft,
  current: Record<string, unknown>,
): { label: string; words: string }[] {
  const facts = current['facts']
  if (form === undefined || typeof facts !== 'object' || facts === null) return []
  return questionsOf(form).flatMap((question) => {
    const theirs = textOf(question, (facts as Record<string, unknown>)[question.name])
    return theirs === (draft.facts[question.name] ?? '') || question.type === 'list'
      ? []
      : [{ label: question.label, words: answerWords(question, theirs) }]
  })
}

function textOf(question: Question, value: unknown): string {
  if (value === null || value === undefined) return ''
  if (question.type === 'ticks') return (value as string[]).join(',')
  if (question.type !== 'list')
    return typeof value === 'number' ? asTyped(value, question.unit) : typeof value === 'string' ? value : ''
  const rows = value as Record<string, unknown>[]
  return JSON.stringify(
    rows.map((row) =>
      Object.fromEntries(question.columns.map((column) => [column.name, textOf(column, row[column.name])])),
    ),
  )
}

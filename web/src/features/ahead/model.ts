import type { Schemas } from '../../api/client'

type Change = Schemas['PracticeChange']

export interface Day {
  date: string
  tightens: boolean
  changes: readonly Change[]
}

/** Changes by their day, in order; a day tightens where anything new binds for anybody. */
export function daysOf(changes: readonly Change[]): Day[] {
  const days = new Map<string, Change[]>()
  for (const change of changes) days.set(change.date, [...(days.get(change.date) ?? []), change])
  return [...days].map(([date, those]) => ({
    date,
    tightens: those.some(({ tightens }) => tightens),
    changes: those,
  }))
}

import { UNFINISHED } from './unfinished'

/** What is wrong with a date that is needed, as a text of the catalogue; `undefined` where nothing is. */
export function undated(date: string): 'said.dateNeeded' | 'common.unfinishedDate' | undefined {
  if (date === '') return 'said.dateNeeded'
  return date === UNFINISHED ? 'common.unfinishedDate' : undefined
}

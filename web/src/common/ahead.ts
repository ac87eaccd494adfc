import { query } from '../api/client'
import { usePracticeId } from './route'

/** What the weeks ahead change for every client of the practice, and whose word is waited for. */
export function useAhead() {
  return query.useQuery('get', '/api/practices/{practice_id}/calendar', {
    params: { path: { practice_id: usePracticeId() } },
  })
}

import { query } from '../api/client'
import { useChanged } from './changes'

const ENTRY = '/api/practices/{practice_id}/clients/{client_id}/entries/{entry_id}'

/** Which signs that belong to a doctor are there today, gone through record by record. */
export function useAnswerSigns() {
  return query.useMutation('post', `${ENTRY}/signs`, { onSuccess: useChanged('body') })
}

/** That a doctor has seen what was recorded. */
export function useSeen() {
  return query.useMutation('post', `${ENTRY}/seen`, { onSuccess: useChanged('body') })
}

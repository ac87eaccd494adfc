import { query } from '../api/client'
import { useChanged } from './changes'

/** How a sore joint is today: asked at arrival, and wherever it decides something. */
export function useDaily() {
  return query.useMutation(
    'post',
    '/api/practices/{practice_id}/clients/{client_id}/entries/{entry_id}/daily',
    { onSuccess: useChanged('body') },
  )
}

import { query, type Schemas } from '../api/client'
import { useHoldsChanged } from './changes'

/** Whether a hold had settled by the next morning. */
export function useMorning() {
  return query.useMutation(
    'post',
    '/api/practices/{practice_id}/clients/{client_id}/items/{item_id}/morning',
    useHoldsChanged(),
  )
}

/** What is sent of an answer; nothing said is nothing sent. */
export function said(settled?: boolean): Schemas['MorningIn'] {
  return settled === undefined ? {} : { settled }
}

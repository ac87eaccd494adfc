import { query } from '../../api/client'
import { useChanged, useHoldsChanged } from '../../common/changes'
import { useClientPath } from '../../common/route'

const CLIENT = '/api/practices/{practice_id}/clients/{client_id}'

/** Everything the mat needs, in one answer. */
export function useMat() {
  return query.useQuery('get', `${CLIENT}/mat`, { params: { path: useClientPath() } })
}

/** Log one side. The id is made here, so that trying again stores nothing twice. */
export function useLogItem() {
  return query.useMutation('post', `${CLIENT}/items`, useHoldsChanged())
}

/** Say something else of a hold. Its rung, set-up and dose stay its own. */
export function useCorrectItem() {
  return query.useMutation('put', `${CLIENT}/items/{item_id}`, useHoldsChanged())
}

/** How a sore joint is today, asked at arrival. */
export function useDaily() {
  return query.useMutation('post', `${CLIENT}/entries/{entry_id}/daily`, { onSuccess: useChanged('body') })
}

/** Something new since last time becomes a record. */
export function useNews() {
  return query.useMutation('post', `${CLIENT}/entries`, { onSuccess: useChanged('body') })
}

export function useIncident() {
  return query.useMutation('post', `${CLIENT}/incidents`, useHoldsChanged())
}

import { query, type Schemas, type Side } from '../../api/client'
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

/** Something new since last time becomes a record. */
export function useNews() {
  return query.useMutation('post', `${CLIENT}/entries`, { onSuccess: useChanged('body') })
}

export function useIncident() {
  return query.useMutation('post', `${CLIENT}/incidents`, useHoldsChanged())
}

/** A set-up with every other way of it that is open today. */
export function useWays(variation_id: string, side: Side, setup: Schemas['MatSide']['setup']) {
  const path = useClientPath()
  return query.useQuery('post', `${CLIENT}/setups/{variation_id}/{side}/ways`, {
    params: { path: { ...path, variation_id, side } },
    body: { setup },
  })
}

/** Keep the calmer of two ways; the plan goes on with it. */
export function useKeepTrial() {
  return query.useMutation('post', `${CLIENT}/trials`, useHoldsChanged())
}

import { useQueries } from '@tanstack/react-query'
import { query, type Side } from '../../api/client'
import { useClientPath } from '../../common/route'
import type { Beside } from './model'

const CLIENT = '/api/practices/{practice_id}/clients/{client_id}'

/** Why a rung is not open to a side, and what would open it. */
export function useWhyNot(variation_id: string, side: Side) {
  const path = useClientPath()
  return query.useQuery('get', `${CLIENT}/why-not/{variation_id}/{side}`, {
    params: { path: { ...path, variation_id, side } },
  })
}

/** The set-ups of some rungs, in their order. */
export function useSetups(rungs: readonly Beside[]) {
  const path = useClientPath()
  return useQueries({
    queries: rungs.map(({ rung, side }) =>
      query.queryOptions('get', `${CLIENT}/setups/{variation_id}/{side}`, {
        params: { path: { ...path, variation_id: rung, side } },
      }),
    ),
  })
}

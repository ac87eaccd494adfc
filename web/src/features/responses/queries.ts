import { keepPreviousData } from '@tanstack/react-query'
import { query } from '../../api/client'
import { useChanged } from '../../common/changes'
import { useClientPath } from '../../common/route'

/** Discomfort, support and rungs over time, per family and side: of each side the `most` latest holds. */
export function useResponses(most: number) {
  return query.useQuery(
    'get',
    '/api/practices/{practice_id}/clients/{client_id}/responses',
    { params: { path: useClientPath(), query: { most } } },
    { placeholderData: keepPreviousData },
  )
}

/** What was written of each visit, the latest first. */
export function useVisitNotes() {
  return query.useQuery('get', '/api/practices/{practice_id}/clients/{client_id}/visit-notes', {
    params: { path: useClientPath() },
  })
}

/** Where the same is to be had as comma-separated values, and everything recorded as a client file. */
export function useFileAddresses(): { csv: string; clientFile: string } {
  const { practice_id, client_id } = useClientPath()
  const client = `/api/practices/${practice_id}/clients/${client_id}`
  return { csv: `${client}/responses.csv`, clientFile: `${client}/file` }
}

/** Decide otherwise for next time: everything that reads the decision is asked for again. */
export function useDecide() {
  return query.useMutation('post', '/api/practices/{practice_id}/clients/{client_id}/decisions', {
    onSuccess: useChanged('holds'),
  })
}

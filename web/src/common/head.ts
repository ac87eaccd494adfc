import { query, type Schemas } from '../api/client'
import { useClientPath } from './route'

/** Who the client is, the working-order band and what to mind. */
export function useClientHead() {
  const path = useClientPath()
  return query.useQuery('get', '/api/practices/{practice_id}/clients/{client_id}', { params: { path } })
}

/** Which rungs the next change of limits lets in or puts out: an answer of its own, because it is slow. */
export function useComing(next: Schemas['ChangeOut'] | null) {
  const path = useClientPath()
  return query.useQuery(
    'get',
    '/api/practices/{practice_id}/clients/{client_id}/coming',
    { params: { path } },
    { enabled: next !== null },
  )
}

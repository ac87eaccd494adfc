import { useQuery, useQueryClient } from '@tanstack/react-query'
import { api, type Schemas, unwrap } from '../api/client'
import { useClientPath } from './route'

/** Who the client is, the working-order band and what to mind. */
export function useClientHead() {
  const path = useClientPath()
  return useQuery({
    queryKey: ['client', path.client_id, 'head'],
    queryFn: () => unwrap(api.GET('/api/practices/{practice_id}/clients/{client_id}', { params: { path } })),
  })
}

/** Which rungs the next change of limits lets in or puts out: an answer of its own, because it is slow. */
export function useComing(next: Schemas['ChangeOut'] | null) {
  const path = useClientPath()
  return useQuery({
    queryKey: ['client', path.client_id, 'coming'],
    enabled: next !== null,
    queryFn: () =>
      unwrap(api.GET('/api/practices/{practice_id}/clients/{client_id}/coming', { params: { path } })),
  })
}

/** To be called after anything about a client changed: every answer depends on everything recorded. */
export function useClientChanged(): () => void {
  const queries = useQueryClient()
  const { client_id, practice_id } = useClientPath()
  return () => {
    void queries.invalidateQueries({ queryKey: ['client', client_id] })
    void queries.invalidateQueries({ queryKey: ['clients', practice_id] })
  }
}

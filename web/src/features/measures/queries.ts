import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { api, type Schemas, unwrap } from '../../api/client'
import { useClientChanged } from '../../common/head'
import { useClientPath } from '../../common/route'

export function useMeasures() {
  const path = useClientPath()
  return useQuery({
    queryKey: ['client', path.client_id, 'measures'],
    queryFn: () =>
      unwrap(api.GET('/api/practices/{practice_id}/clients/{client_id}/measures', { params: { path } })),
  })
}

export function useStoreReadings() {
  const path = useClientPath()
  const queries = useQueryClient()
  const changed = useClientChanged()
  return useMutation({
    mutationFn: (body: Schemas['ReadingsIn']) =>
      unwrap(
        api.POST('/api/practices/{practice_id}/clients/{client_id}/measures', { params: { path }, body }),
      ),
    onSuccess: (measures) => {
      queries.setQueryData(['client', path.client_id, 'measures'], measures)
      changed()
    },
  })
}

/** The open turning-out a tape reading stands for; nothing is stored. */
export function useTurnedOut(tape: Schemas['TapeIn'] | null) {
  const path = useClientPath()
  return useQuery({
    queryKey: ['client', path.client_id, 'turned-out', tape],
    enabled: tape !== null,
    retry: false,
    queryFn: () =>
      unwrap(
        api.POST('/api/practices/{practice_id}/clients/{client_id}/measures/soles-together', {
          params: { path },
          body: tape as Schemas['TapeIn'],
        }),
      ),
  })
}

import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { api, unwrap } from '../../api/client'
import { useClientPath } from '../../common/route'

/** Discomfort, support and rungs over time, per family and side: of each side the `most` latest holds. */
export function useResponses(most: number) {
  const path = useClientPath()
  return useQuery({
    queryKey: ['client', path.client_id, 'responses', most],
    queryFn: () =>
      unwrap(
        api.GET('/api/practices/{practice_id}/clients/{client_id}/responses', {
          params: { path, query: { most } },
        }),
      ),
    placeholderData: keepPreviousData,
  })
}

/** Where the same is to be had as comma-separated values, and everything recorded as a client file. */
export function useFileAddresses(): { csv: string; clientFile: string } {
  const { practice_id, client_id } = useClientPath()
  const client = `/api/practices/${practice_id}/clients/${client_id}`
  return { csv: `${client}/responses.csv`, clientFile: `${client}/file` }
}

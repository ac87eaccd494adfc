import { useQueryClient } from '@tanstack/react-query'
import { query } from '../../api/client'
import { usePracticeId } from '../../common/route'

const SETTINGS = '/api/practices/{practice_id}/settings'

export function useTimeZones() {
  const practice_id = usePracticeId()
  return query.useQuery(
    'get',
    '/api/practices/{practice_id}/time-zones',
    { params: { path: { practice_id } } },
    { staleTime: Infinity },
  )
}

/** Every answer is written in the practice's manner: all of them are asked for anew. */
export function useChangeSettings() {
  const queries = useQueryClient()
  return query.useMutation('put', SETTINGS, {
    onSuccess: () => queries.invalidateQueries(),
  })
}

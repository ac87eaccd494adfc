import { keepPreviousData, useQueryClient } from '@tanstack/react-query'
import { query } from '../../api/client'
import { usePracticeId } from '../../common/route'

const SEARCH = '/api/practices/{practice_id}/clients/search'

/** Everybody of the practice whose name or occupation has a text in it, of those who come or of those put away. */
export function useClients(text: string, archived: boolean) {
  const practice_id = usePracticeId()
  return query.useQuery(
    'post',
    SEARCH,
    { params: { path: { practice_id } }, body: { text, archived } },
    { placeholderData: keepPreviousData },
  )
}

/** To be called after a client came in. */
export function useClientsChanged(): () => void {
  const queries = useQueryClient()
  return () => {
    void queries.invalidateQueries({ queryKey: ['post', SEARCH] })
  }
}

import { query } from '../../api/client'
import { useChanged } from '../../common/changes'

/** Put a client away, or bring them back. */
export function useArchive() {
  return query.useMutation('put', '/api/practices/{practice_id}/clients/{client_id}/archived', {
    onSuccess: useChanged('frame'),
  })
}

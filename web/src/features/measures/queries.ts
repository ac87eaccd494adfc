import { query, type Schemas } from '../../api/client'
import { useChanged, useKeep } from '../../common/changes'
import { useClientPath } from '../../common/route'

const MEASURES = '/api/practices/{practice_id}/clients/{client_id}/measures'

export function useMeasures() {
  return query.useQuery('get', MEASURES, { params: { path: useClientPath() } })
}

export function useStoreReadings() {
  const keep = useKeep()
  const changed = useChanged('body')
  return query.useMutation('post', MEASURES, {
    onSuccess: (measures) => {
      keep.measures(measures)
      changed()
    },
  })
}

/** The open turning-out a tape reading stands for; nothing is stored. */
export function useTurnedOut(tape: Schemas['TapeIn'] | null) {
  return query.useQuery(
    'post',
    `${MEASURES}/soles-together`,
    { params: { path: useClientPath() }, body: tape as Schemas['TapeIn'] },
    { enabled: tape !== null, retry: false },
  )
}

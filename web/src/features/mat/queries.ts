import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { api, type Schemas, unwrap } from '../../api/client'
import { useClientChanged } from '../../common/head'
import { useClientPath } from '../../common/route'

const key = (clientId: string) => ['client', clientId, 'mat']

/** Everything the mat needs, in one answer. */
export function useMat() {
  const path = useClientPath()
  return useQuery({
    queryKey: key(path.client_id),
    queryFn: () =>
      unwrap(api.GET('/api/practices/{practice_id}/clients/{client_id}/mat', { params: { path } })),
  })
}

function useMatChange<Input>(change: (input: Input) => Promise<Schemas['MatOut']>) {
  const queries = useQueryClient()
  const changed = useClientChanged()
  const { client_id } = useClientPath()
  return useMutation({
    mutationFn: change,
    onSuccess: (mat) => {
      changed()
      queries.setQueryData(key(client_id), mat)
    },
  })
}

/** Log one side. The id is made here, so that trying again stores nothing twice. */
export function useLogItem() {
  const path = useClientPath()
  return useMatChange((body: Schemas['ItemIn']) =>
    unwrap(api.POST('/api/practices/{practice_id}/clients/{client_id}/items', { params: { path }, body })),
  )
}

/** Say something else of a hold. Its rung, set-up and dose stay its own. */
export function useCorrectItem() {
  const path = useClientPath()
  return useMatChange((input: { item: string; body: Schemas['CorrectionIn'] }) =>
    unwrap(
      api.PUT('/api/practices/{practice_id}/clients/{client_id}/items/{item_id}', {
        params: { path: { ...path, item_id: input.item } },
        body: input.body,
      }),
    ),
  )
}

export function useMorning() {
  const path = useClientPath()
  return useMatChange((input: { item: string; settled: boolean }) =>
    unwrap(
      api.POST('/api/practices/{practice_id}/clients/{client_id}/items/{item_id}/morning', {
        params: { path: { ...path, item_id: input.item } },
        body: { settled: input.settled },
      }),
    ),
  )
}

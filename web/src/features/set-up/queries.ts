import { keepPreviousData, useQueryClient } from '@tanstack/react-query'
import { query, type Schemas, type Side } from '../../api/client'
import { useChanged, useKeep } from '../../common/changes'
import { useClientPath } from '../../common/route'

const CLIENT = '/api/practices/{practice_id}/clients/{client_id}'
const SETUP = `${CLIENT}/setups/{variation_id}/{side}` as const

/** The whole grid of one rung and side. */
export function useSetup(variationId: string | undefined, side: Side) {
  const path = useClientPath()
  return query.useQuery(
    'get',
    SETUP,
    { params: { path: { ...path, variation_id: variationId ?? '', side } } },
    { enabled: variationId !== undefined },
  )
}

/** One set-up in full: figure, rulers, sentences. The last one stays on screen while the next is drawn. */
export function useDetail(
  variation_id: string,
  side: Side,
  setup: Record<string, Schemas['SlotValue']>,
  view: Schemas['SetupQuery']['view'],
  enabled: boolean,
) {
  const path = useClientPath()
  return query.useQuery(
    'post',
    SETUP,
    { params: { path: { ...path, variation_id, side } }, body: { setup, view } },
    { enabled, placeholderData: keepPreviousData },
  )
}

/** The way in and out of a set-up, station by station. */
export function useWay(variation_id: string, side: Side, setup: Record<string, Schemas['SlotValue']>) {
  const path = useClientPath()
  return query.useQuery(
    'post',
    `${SETUP}/way`,
    { params: { path: { ...path, variation_id, side } }, body: { setup } },
    { placeholderData: keepPreviousData },
  )
}

export function useTakeToTheMat() {
  const keep = useKeep()
  const queries = useQueryClient()
  const changed = useChanged('plan', [`${CLIENT}/mat`])
  return query.useMutation('post', `${CLIENT}/mat`, {
    onSuccess: (mat) => {
      keep.mat(mat)
      changed()
      // The rung says what is planned of it: asked for again when it is opened next.
      void queries.invalidateQueries({
        predicate: ({ queryKey: [, path] }) => path === SETUP,
        refetchType: 'none',
      })
    },
  })
}

/** A caution taken on with a reason, or no longer. */
export function useTakeOn() {
  return query.useMutation('post', `${CLIENT}/cautions`, { onSuccess: useChanged('cautions') })
}

/** What was seen on the mat beyond what the model takes for possible: from today on something to mind, no bound. */
export function useSeenOnTheMat() {
  return query.useMutation('post', `${CLIENT}/measures`, { onSuccess: useChanged('body') })
}

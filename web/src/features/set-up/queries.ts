import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { api, type Schemas, type Side, unwrap } from '../../api/client'
import { useClientChanged } from '../../common/head'
import { type Bound, seenReading } from '../../common/readings'
import { useClientPath } from '../../common/route'

/** The whole grid of one rung and side. */
export function useSetup(variationId: string | undefined, side: Side) {
  const path = useClientPath()
  return useQuery({
    queryKey: ['client', path.client_id, 'setup', variationId, side],
    enabled: variationId !== undefined,
    queryFn: () =>
      unwrap(
        api.GET('/api/practices/{practice_id}/clients/{client_id}/setups/{variation_id}/{side}', {
          params: { path: { ...path, variation_id: variationId ?? '', side } },
        }),
      ),
  })
}

/** One set-up in full: figure, rulers, sentences. The last one stays on screen while the next is drawn. */
export function useDetail(
  variationId: string,
  side: Side,
  setup: Record<string, Schemas['SlotValue']>,
  view: Schemas['SetupQuery']['view'],
  enabled: boolean,
) {
  const path = useClientPath()
  return useQuery({
    queryKey: ['client', path.client_id, 'detail', variationId, side, setup, view],
    enabled,
    queryFn: () =>
      unwrap(
        api.POST('/api/practices/{practice_id}/clients/{client_id}/setups/{variation_id}/{side}', {
          params: { path: { ...path, variation_id: variationId, side } },
          body: { setup, view },
        }),
      ),
    placeholderData: keepPreviousData,
  })
}

/** The way in and out of a set-up, station by station. */
export function useWay(variationId: string, side: Side, setup: Record<string, Schemas['SlotValue']>) {
  const path = useClientPath()
  return useQuery({
    queryKey: ['client', path.client_id, 'way', variationId, side, setup],
    queryFn: () =>
      unwrap(
        api.POST('/api/practices/{practice_id}/clients/{client_id}/setups/{variation_id}/{side}/way', {
          params: { path: { ...path, variation_id: variationId, side } },
          body: { setup },
        }),
      ),
    placeholderData: keepPreviousData,
  })
}

export function useTakeToTheMat() {
  const path = useClientPath()
  const queries = useQueryClient()
  const changed = useClientChanged()
  return useMutation({
    mutationFn: (body: Schemas['PlanIn']) =>
      unwrap(api.POST('/api/practices/{practice_id}/clients/{client_id}/plan', { params: { path }, body })),
    onSuccess: (mat) => {
      queries.setQueryData(['client', path.client_id, 'mat'], mat)
      changed()
    },
  })
}

/** What was seen on the mat beyond what the model takes for possible: from today on something to mind, no bound. */
export function useSeenOnTheMat() {
  const path = useClientPath()
  const changed = useClientChanged()
  return useMutation({
    mutationFn: ({ bound, sides }: { bound: Bound; sides: Side[] }) =>
      unwrap(
        api.POST('/api/practices/{practice_id}/clients/{client_id}/measures', {
          params: { path },
          body: { readings: sides.map((side) => seenReading(bound, side, 1)) },
        }),
      ),
    onSuccess: changed,
  })
}

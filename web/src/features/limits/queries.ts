import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { api, type Schemas, unwrap } from '../../api/client'
import { useClientChanged } from '../../common/head'
import { useClientPath } from '../../common/route'
import { formsFrom } from './forms'
import type { Entry } from './model'

const key = (clientId: string) => ['client', clientId, 'entries']

/** Every kind of record there is; it changes with the application only. */
export function useForms() {
  const { practice_id } = useClientPath()
  return useQuery({
    queryKey: ['record-forms'],
    staleTime: Infinity,
    queryFn: async () =>
      formsFrom(
        await unwrap(api.GET('/api/practices/{practice_id}/records', { params: { path: { practice_id } } })),
      ),
  })
}

export function useEntries() {
  const path = useClientPath()
  return useQuery({
    queryKey: key(path.client_id),
    queryFn: () =>
      unwrap(api.GET('/api/practices/{practice_id}/clients/{client_id}/entries', { params: { path } })),
  })
}

/** The limits a record would turn into, before it is saved. */
export function usePreview(entry: Entry | null) {
  const path = useClientPath()
  return useQuery({
    queryKey: ['client', path.client_id, 'preview', entry],
    enabled: entry !== null,
    queryFn: () =>
      unwrap(
        api.POST('/api/practices/{practice_id}/clients/{client_id}/entries/preview', {
          params: { path },
          body: { entry: entry as Entry },
        }),
      ),
  })
}

/** A change of records: stores the answer as the new list and lets everything else be worked out anew. */
function useEntryChange<Input>(change: (input: Input) => Promise<Schemas['EntryOut'][]>) {
  const queries = useQueryClient()
  const changed = useClientChanged()
  const { client_id } = useClientPath()
  return useMutation({
    mutationFn: change,
    onSuccess: (entries) => {
      queries.setQueryData(key(client_id), entries)
      changed()
    },
  })
}

export function useRecordEntry() {
  const path = useClientPath()
  return useEntryChange((input: { entry: Entry; replaces: string | null }) =>
    input.replaces === null
      ? unwrap(
          api.POST('/api/practices/{practice_id}/clients/{client_id}/entries', {
            params: { path },
            body: { entry: input.entry },
          }),
        )
      : unwrap(
          api.PUT('/api/practices/{practice_id}/clients/{client_id}/entries/{entry_id}', {
            params: { path: { ...path, entry_id: input.replaces } },
            body: { entry: input.entry },
          }),
        ),
  )
}

export function useWithdrawEntry() {
  const path = useClientPath()
  return useEntryChange((entryId: string) =>
    unwrap(
      api.DELETE('/api/practices/{practice_id}/clients/{client_id}/entries/{entry_id}', {
        params: { path: { ...path, entry_id: entryId } },
      }),
    ),
  )
}

/** Undo a withdrawal: the version that was taken back stands again. */
export function useRestoreEntry() {
  const path = useClientPath()
  return useEntryChange((entryId: string) =>
    unwrap(
      api.POST('/api/practices/{practice_id}/clients/{client_id}/entries/{entry_id}/restore', {
        params: { path: { ...path, entry_id: entryId } },
      }),
    ),
  )
}

export function useClearance(entryId: string) {
  const path = useClientPath()
  return useEntryChange((body: Schemas['ClearanceIn']) =>
    unwrap(
      api.POST('/api/practices/{practice_id}/clients/{client_id}/entries/{entry_id}/clearances', {
        params: { path: { ...path, entry_id: entryId } },
        body,
      }),
    ),
  )
}

export function useDailyAnswer(entryId: string) {
  const path = useClientPath()
  return useEntryChange((body: Schemas['DailyIn']) =>
    unwrap(
      api.POST('/api/practices/{practice_id}/clients/{client_id}/entries/{entry_id}/daily', {
        params: { path: { ...path, entry_id: entryId } },
        body,
      }),
    ),
  )
}

import { query, type Schemas } from '../../api/client'
import { useChanged, useKeep } from '../../common/changes'
import { useClientPath } from '../../common/route'
import { formsFrom } from './forms'
import type { Entry } from './model'

const ENTRIES = '/api/practices/{practice_id}/clients/{client_id}/entries'

/** Every kind of record there is; it changes with the application only. */
export function useForms() {
  const { practice_id } = useClientPath()
  return query.useQuery(
    'get',
    '/api/practices/{practice_id}/records',
    { params: { path: { practice_id } } },
    { staleTime: Infinity, select: formsFrom },
  )
}

export function useEntries() {
  return query.useQuery('get', ENTRIES, { params: { path: useClientPath() } })
}

/** Every change of limits in the weeks ahead. */
export function useCalendar() {
  return query.useQuery('get', '/api/practices/{practice_id}/clients/{client_id}/calendar', {
    params: { path: useClientPath() },
  })
}

/** The limits a record would turn into, before it is saved. */
export function usePreview(entry: Entry | null) {
  return query.useQuery(
    'post',
    `${ENTRIES}/preview`,
    { params: { path: useClientPath() }, body: { entry: entry as Entry } },
    { enabled: entry !== null },
  )
}

/** Keeps the answer of a change as the new list and lets everything judged by records be worked out anew. */
function useEntriesChanged() {
  const keep = useKeep()
  const changed = useChanged('body', [ENTRIES])
  return {
    onSuccess: (entries: Schemas['EntryOut'][]) => {
      keep.entries(entries)
      changed()
    },
  }
}

export function useRecordEntry() {
  return query.useMutation('post', ENTRIES, useEntriesChanged())
}

/** A new version of a record in the place of another. */
export function useCorrectEntry() {
  return query.useMutation('put', `${ENTRIES}/{entry_id}`, useEntriesChanged())
}

export function useWithdrawEntry() {
  return query.useMutation('delete', `${ENTRIES}/{entry_id}`, useEntriesChanged())
}

/** Undo a withdrawal: the version that was taken back stands again. */
export function useRestoreEntry() {
  return query.useMutation('post', `${ENTRIES}/{entry_id}/restore`, useEntriesChanged())
}

/** What a treating professional said of a record. */
export function useGiveInstruction() {
  return query.useMutation('post', `${ENTRIES}/{entry_id}/instructions`, useEntriesChanged())
}

export function useWithdrawInstruction() {
  return query.useMutation(
    'delete',
    `${ENTRIES}/{entry_id}/instructions/{instruction_id}`,
    useEntriesChanged(),
  )
}

/** What a corrected record would have changed on the mat; slow, and asked for only when it is wanted. */
export function useDifferences(entry_id: string, wanted: boolean) {
  return query.useQuery(
    'get',
    `${ENTRIES}/{entry_id}/differences`,
    { params: { path: { ...useClientPath(), entry_id } } },
    { enabled: wanted },
  )
}

export function useClearance() {
  return query.useMutation('post', `${ENTRIES}/{entry_id}/clearances`, useEntriesChanged())
}

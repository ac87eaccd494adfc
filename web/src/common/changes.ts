import { type QueryClient, useQueryClient } from '@tanstack/react-query'
import { query, type Schemas } from '../api/client'
import { useClientPath } from './route'

const CLIENT = '/api/practices/{practice_id}/clients/{client_id}'

/** Answers about a client, by what goes into them; paths below the client's. */
const ABOUT = {
  frame: ['', '/coming', '/calendar', '/outlook'],
  judged: [
    '/ladders',
    '/ladders/{family_id}',
    '/ladders/{family_id}/drawings',
    '/setups/{variation_id}/{side}',
    '/setups/{variation_id}/{side}/way',
    '/why-not/{variation_id}/{side}',
    '/library/families/{family_id}',
    '/library/variations/{variation_id}',
  ],
  records: ['/entries', '/entries/{entry_id}/differences'],
  worked: ['/families', '/ladders', '/ladders/{family_id}'],
  mat: ['/mat'],
  notes: ['/visit-notes'],
  plan: ['/plan'],
  responses: ['/responses'],
} as const

/** What a change of each kind lets be asked for again: what it touches, and nothing else. */
const TOUCHES = {
  /** Records, clearances, answers of the day, readings: everything judged by them. */
  body: [...ABOUT.frame, ...ABOUT.judged, ...ABOUT.records, ...ABOUT.plan, ...ABOUT.mat, ...ABOUT.responses],
  /** What happened on the mat: where a side stands, and what follows. */
  /** What is written of a visit. */
  notes: [...ABOUT.notes, ...ABOUT.mat],
  holds: [...ABOUT.frame, ...ABOUT.worked, ...ABOUT.plan, ...ABOUT.mat, ...ABOUT.responses],
  plan: [...ABOUT.frame, ...ABOUT.plan, ...ABOUT.mat],
  /** What is said beside a caution; no verdict hangs on it. */
  cautions: ['/setups/{variation_id}/{side}', ...ABOUT.mat],
  /** Who somebody is and whether they are put away. */
  frame: ABOUT.frame,
} as const

type Change = keyof typeof TOUCHES

/** The answers a change of a kind touches, as paths of the API. */
export function touchedBy(change: Change): readonly string[] {
  return TOUCHES[change].map((path) => CLIENT + path)
}

/** Lets everything a change touches be asked for again; `stored` are paths whose new answer is there already. */
export function forget(
  queries: QueryClient,
  change: Change,
  client_id: string,
  stored: readonly string[] = [],
) {
  const touched = touchedBy(change).filter((path) => !stored.includes(path))
  void queries.invalidateQueries({
    predicate: ({ queryKey: [, path, init] }) =>
      typeof path === 'string' && touched.includes(path) && isAbout(init, client_id),
  })
  forgetLists(queries)
}

/** Lets the practice's lists be asked for again: they say who comes, who was here and what is recorded. */
export function forgetLists(queries: QueryClient) {
  void queries.invalidateQueries({ queryKey: ['get', '/api/practices/{practice_id}/today'] })
  void queries.invalidateQueries({ queryKey: ['get', '/api/practices/{practice_id}/calendar'] })
  void queries.invalidateQueries({ queryKey: ['post', '/api/practices/{practice_id}/clients/search'] })
}

function isAbout(init: unknown, client_id: string): boolean {
  const asked = init as { params?: { path?: { client_id?: string } } } | undefined
  return asked?.params?.path?.client_id === client_id
}

/** To be called after something about the client of the address was changed. */
export function useChanged(change: Change, stored: readonly string[] = []): () => void {
  const queries = useQueryClient()
  const { client_id } = useClientPath()
  return () => {
    forget(queries, change, client_id, stored)
  }
}

/** After a change to the library everything drawn or judged from it is asked for again. */
export function useLibraryChanged(): () => void {
  const queries = useQueryClient()
  const judged: readonly string[] = [...ABOUT.judged, ...ABOUT.plan, '/outlook'].map((path) => CLIENT + path)
  return () => {
    void queries.invalidateQueries({
      predicate: ({ queryKey: [, path] }) =>
        typeof path === 'string' && (path.includes('/library') || judged.includes(path)),
    })
  }
}

/** Where the answer of a GET about the client of the address is kept. */
export function useKeep() {
  const queries = useQueryClient()
  const path = useClientPath()
  return {
    entries: (data: Schemas['EntryOut'][]) =>
      queries.setQueryData(
        query.queryOptions('get', `${CLIENT}/entries`, { params: { path } }).queryKey,
        data,
      ),
    mat: (data: Schemas['MatOut']) =>
      queries.setQueryData(query.queryOptions('get', `${CLIENT}/mat`, { params: { path } }).queryKey, data),
    measures: (data: Schemas['MeasuresOut']) =>
      queries.setQueryData(
        query.queryOptions('get', `${CLIENT}/measures`, { params: { path } }).queryKey,
        data,
      ),
  }
}

/** To be given to what changes holds and answers with the mat as it is then. */
export function useHoldsChanged() {
  const keep = useKeep()
  const changed = useChanged('holds', [`${CLIENT}/mat`])
  return {
    onSuccess: (mat: Schemas['MatOut']) => {
      keep.mat(mat)
      changed()
    },
  }
}

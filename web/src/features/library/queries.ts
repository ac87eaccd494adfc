import { keepPreviousData } from '@tanstack/react-query'
import { query, type Side } from '../../api/client'
import { useLibraryChanged } from '../../common/changes'
import { usePracticeId } from '../../common/route'

/** Who figures are drawn for: a client's opaque id, or nobody in particular. */
export interface Sitter {
  client: string | null
  side: Side
}

const LIBRARY = '/api/practices/{practice_id}/library'
const CLIENTS_LIBRARY = '/api/practices/{practice_id}/clients/{client_id}/library'

/** Every family and rung, without figures. */
export function useShelf() {
  const practice_id = usePracticeId()
  return query.useQuery('get', LIBRARY, { params: { path: { practice_id } } })
}

/** A family's rungs drawn for somebody. */
export function useFamilyCards(family_id: string, { client, side }: Sitter) {
  const practice_id = usePracticeId()
  const nobody = query.useQuery(
    'get',
    `${LIBRARY}/families/{family_id}`,
    { params: { path: { practice_id, family_id }, query: { side } } },
    { enabled: client === null },
  )
  const somebody = query.useQuery(
    'get',
    `${CLIENTS_LIBRARY}/families/{family_id}`,
    { params: { path: { practice_id, client_id: client ?? '', family_id }, query: { side } } },
    { enabled: client !== null },
  )
  return client === null ? nobody : somebody
}

/** One variation in full; the last one stays on screen while the next is drawn. */
export function useVariation(variation_id: string, { client, side }: Sitter) {
  const practice_id = usePracticeId()
  const nobody = query.useQuery(
    'get',
    `${LIBRARY}/variations/{variation_id}`,
    { params: { path: { practice_id, variation_id }, query: { side } } },
    { enabled: client === null, placeholderData: keepPreviousData },
  )
  const somebody = query.useQuery(
    'get',
    `${CLIENTS_LIBRARY}/variations/{variation_id}`,
    { params: { path: { practice_id, client_id: client ?? '', variation_id }, query: { side } } },
    { enabled: client !== null, placeholderData: keepPreviousData },
  )
  return client === null ? nobody : somebody
}

/** Often-met records tried on a variation. Asked apart: it takes a moment the first time. */
export function useClosers(variation_id: string) {
  const practice_id = usePracticeId()
  return query.useQuery(
    'get',
    `${LIBRARY}/variations/{variation_id}/closers`,
    { params: { path: { practice_id, variation_id } } },
    { staleTime: Infinity },
  )
}

/** The cues and signs a variation may name. */
export function useWords() {
  const practice_id = usePracticeId()
  return query.useQuery(
    'get',
    `${LIBRARY}/words`,
    { params: { path: { practice_id } } },
    { staleTime: Infinity },
  )
}

export function useVersions(variation_id: string) {
  const practice_id = usePracticeId()
  return query.useQuery('get', `${LIBRARY}/variations/{variation_id}/versions`, {
    params: { path: { practice_id, variation_id } },
  })
}

/** The practice's clients, to draw for one of them. */
export function useSitters() {
  const practice_id = usePracticeId()
  return query.useQuery('post', '/api/practices/{practice_id}/clients/search', {
    params: { path: { practice_id } },
    body: { archived: false, text: '' },
  })
}

export function useAddVariation() {
  return query.useMutation('post', `${LIBRARY}/variations`, { onSuccess: useLibraryChanged() })
}

export function useChangeVariation() {
  return query.useMutation('put', `${LIBRARY}/variations/{variation_id}`, { onSuccess: useLibraryChanged() })
}

export function useRetireVariation() {
  return query.useMutation('post', `${LIBRARY}/variations/{variation_id}/retire`, {
    onSuccess: useLibraryChanged(),
  })
}

/** Where a variation's file is fetched from. */
export function useFileAddress(variation_id: string): string {
  return `/api/practices/${usePracticeId()}/library/variations/${variation_id}/file`
}

import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { api, type Schemas, type Side, unwrap } from '../../api/client'
import { usePracticeId } from '../../common/route'

/** Who figures are drawn for: a client's opaque id, or nobody in particular. */
export interface Sitter {
  client: string | null
  side: Side
}

const ROOT = 'library'

/** Every family and rung, without figures. */
export function useShelf() {
  const practice_id = usePracticeId()
  return useQuery({
    queryKey: [ROOT, practice_id],
    queryFn: () =>
      unwrap(api.GET('/api/practices/{practice_id}/library', { params: { path: { practice_id } } })),
  })
}

/** A family's rungs drawn for somebody. */
export function useFamilyCards(family_id: string, { client, side }: Sitter) {
  const practice_id = usePracticeId()
  return useQuery({
    queryKey: [ROOT, practice_id, 'family', family_id, client, side],
    queryFn: () =>
      unwrap(
        client === null
          ? api.GET('/api/practices/{practice_id}/library/families/{family_id}', {
              params: { path: { practice_id, family_id }, query: { side } },
            })
          : api.GET('/api/practices/{practice_id}/clients/{client_id}/library/families/{family_id}', {
              params: { path: { practice_id, client_id: client, family_id }, query: { side } },
            }),
      ),
  })
}

/** One variation in full; the last one stays on screen while the next is drawn. */
export function useVariation(variation_id: string, { client, side }: Sitter) {
  const practice_id = usePracticeId()
  return useQuery({
    queryKey: [ROOT, practice_id, 'variation', variation_id, client, side],
    queryFn: () =>
      unwrap(
        client === null
          ? api.GET('/api/practices/{practice_id}/library/variations/{variation_id}', {
              params: { path: { practice_id, variation_id }, query: { side } },
            })
          : api.GET('/api/practices/{practice_id}/clients/{client_id}/library/variations/{variation_id}', {
              params: { path: { practice_id, client_id: client, variation_id }, query: { side } },
            }),
      ),
    placeholderData: keepPreviousData,
  })
}

/** Often-met records tried on a variation. Asked apart: it takes a moment the first time. */
export function useClosers(variation_id: string) {
  const practice_id = usePracticeId()
  return useQuery({
    queryKey: [ROOT, practice_id, 'closers', variation_id],
    staleTime: Infinity,
    queryFn: () =>
      unwrap(
        api.GET('/api/practices/{practice_id}/library/variations/{variation_id}/closers', {
          params: { path: { practice_id, variation_id } },
        }),
      ),
  })
}

/** The cues and signs a variation may name. */
export function useWords() {
  const practice_id = usePracticeId()
  return useQuery({
    queryKey: [ROOT, 'words'],
    staleTime: Infinity,
    queryFn: () =>
      unwrap(api.GET('/api/practices/{practice_id}/library/words', { params: { path: { practice_id } } })),
  })
}

export function useVersions(variation_id: string) {
  const practice_id = usePracticeId()
  return useQuery({
    queryKey: [ROOT, practice_id, 'versions', variation_id],
    queryFn: () =>
      unwrap(
        api.GET('/api/practices/{practice_id}/library/variations/{variation_id}/versions', {
          params: { path: { practice_id, variation_id } },
        }),
      ),
  })
}

/** The practice's clients, to draw for one of them. */
export function useSitters() {
  const practice_id = usePracticeId()
  return useQuery({
    queryKey: ['clients', practice_id, ''],
    queryFn: () =>
      unwrap(
        api.POST('/api/practices/{practice_id}/clients/search', {
          params: { path: { practice_id } },
          body: { text: '' },
        }),
      ),
  })
}

/** After a change to the library everything drawn or judged from it is asked for again. */
function useShelfChanged() {
  const queries = useQueryClient()
  return () => {
    void queries.invalidateQueries({ queryKey: [ROOT] })
    void queries.invalidateQueries({ queryKey: ['client'] })
  }
}

type File = Schemas['ChangeIn']['file']

export function useAddVariation() {
  const practice_id = usePracticeId()
  const changed = useShelfChanged()
  return useMutation({
    mutationFn: (file: File) =>
      unwrap(
        api.POST('/api/practices/{practice_id}/library/variations', {
          params: { path: { practice_id } },
          body: file,
        }),
      ),
    onSuccess: changed,
  })
}

export function useChangeVariation(variation_id: string) {
  const practice_id = usePracticeId()
  const changed = useShelfChanged()
  return useMutation({
    mutationFn: (body: Schemas['ChangeIn']) =>
      unwrap(
        api.PUT('/api/practices/{practice_id}/library/variations/{variation_id}', {
          params: { path: { practice_id, variation_id } },
          body,
        }),
      ),
    onSuccess: changed,
  })
}

export function useRetireVariation(variation_id: string) {
  const practice_id = usePracticeId()
  const changed = useShelfChanged()
  return useMutation({
    mutationFn: (number: number) =>
      unwrap(
        api.POST('/api/practices/{practice_id}/library/variations/{variation_id}/retire', {
          params: { path: { practice_id, variation_id } },
          body: { number },
        }),
      ),
    onSuccess: changed,
  })
}

/** Where a variation's file is fetched from. */
export function useFileAddress(variation_id: string): string {
  return `/api/practices/${usePracticeId()}/library/variations/${variation_id}/file`
}

import { useParams } from 'react-router'

/** Ids from the address. They are opaque; a missing one means the route table is wrong. */
export function usePracticeId(): string {
  const { practiceId } = useParams()
  if (practiceId === undefined) throw new Error('This screen needs a practice in its address.')
  return practiceId
}

export function useClientPath(): { practice_id: string; client_id: string } {
  const { practiceId, clientId } = useParams()
  if (practiceId === undefined || clientId === undefined) {
    throw new Error('This screen needs a practice and a client in its address.')
  }
  return { practice_id: practiceId, client_id: clientId }
}

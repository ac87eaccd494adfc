import { QueryClient } from '@tanstack/react-query'
import { ApiProblem } from '../api/client'

/** How answers are kept and asked for again. */
export function newQueries(): QueryClient {
  return new QueryClient({
    defaultOptions: {
      // Without a network a request fails and says so; it does not wait in silence.
      mutations: { networkMode: 'always' },
      queries: {
        networkMode: 'always',
        staleTime: 30_000,
        // A refusal is an answer; only a server that could not be reached is asked again.
        retry: (count, error) => !(error instanceof ApiProblem && error.status > 0) && count < 2,
      },
    },
  })
}

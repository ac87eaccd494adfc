import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { renderToString } from 'react-dom/server'
import { describe, expect, it } from 'vitest'
import type { Schemas } from '../api/client'
import { useMayWrite } from './session'

type Role = Schemas['Me']['practices'][number]['role']

function Told({ practiceId }: { practiceId: string }) {
  return useMayWrite(practiceId) ? 'writes' : 'reads'
}

/** What a member with a role in practice `mine` may do in a practice; without a role nobody is known yet. */
function told(practiceId: string, role?: Role): string {
  const queries = new QueryClient()
  const practices = role && [{ id: 'mine', name: 'The Weir Room', role }]
  if (practices) queries.setQueryData(['get', '/api/auth/me', {}], { signed_in: true, practices })
  return renderToString(
    <QueryClientProvider client={queries}>
      <Told practiceId={practiceId} />
    </QueryClientProvider>,
  )
}

describe('what a member may change', () => {
  it.each<[Role, string]>([
    ['owner', 'writes'],
    ['therapist', 'writes'],
    ['reader', 'reads'],
  ])('a %s %s', (role, expected) => {
    expect(told('mine', role)).toBe(expected)
  })

  it('nothing in another practice', () => {
    expect(told('theirs', 'owner')).toBe('reads')
  })

  it('nothing before it is known who is there', () => {
    expect(told('mine')).toBe('reads')
  })
})

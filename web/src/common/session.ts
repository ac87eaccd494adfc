import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useNavigate } from 'react-router'
import { api, unwrap } from '../api/client'
import { forgetDrafts } from './drafts'

export const ME = ['me'] as const

export function useMe() {
  return useQuery({ queryKey: ME, queryFn: () => unwrap(api.GET('/api/auth/me')) })
}

/** Whether this member may change things in a practice; readers look. The server decides anyway. */
export function useMayWrite(practiceId: string): boolean {
  const me = useMe()
  const practice = me.data?.practices.find((each) => each.id === practiceId)
  return practice !== undefined && practice.role !== 'reader'
}

export function useSignOut() {
  const queries = useQueryClient()
  const navigate = useNavigate()
  return useMutation({
    mutationFn: () => unwrap(api.POST('/api/auth/sign-out')),
    onSuccess: (me) => {
      forgetDrafts()
      queries.clear()
      queries.setQueryData(ME, me)
      void navigate('/sign-in')
    },
  })
}

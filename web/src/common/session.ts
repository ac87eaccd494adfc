import { useQueryClient } from '@tanstack/react-query'
import { useEffect, useState } from 'react'
import { useNavigate } from 'react-router'
import { query, resume, type Schemas, SIGNED_OUT } from '../api/client'
import { forgetDrafts } from './drafts'

const ME = query.queryOptions('get', '/api/auth/me', {}).queryKey

/** Dispatched on `window` when the person whose session had ended is back. */
const SIGNED_IN = 'asketa:signed-in'

export function useMe() {
  // Who is signed in changes only by signing in or out; a session that ended is told by any answer.
  return query.useQuery('get', '/api/auth/me', {}, { staleTime: Infinity })
}

/** Whether this member may change things in a practice; readers look. The server decides anyway. */
export function useMayWrite(practiceId: string): boolean {
  const me = useMe()
  const practice = me.data?.practices.find((each) => each.id === practiceId)
  return practice !== undefined && practice.role !== 'reader'
}

/** Whether the session ended under an open page, until somebody signed in again. */
export function useSessionEnded(): boolean {
  const [ended, setEnded] = useState(false)
  useEffect(() => {
    const on = () => {
      setEnded(true)
    }
    const off = () => {
      setEnded(false)
    }
    window.addEventListener(SIGNED_OUT, on)
    window.addEventListener(SIGNED_IN, off)
    return () => {
      window.removeEventListener(SIGNED_OUT, on)
      window.removeEventListener(SIGNED_IN, off)
    }
  }, [])
  return ended
}

/** Sign in where one is: the page and what was typed on it stay. */
export function useSignIn() {
  const queries = useQueryClient()
  return query.useMutation('post', '/api/auth/sign-in', {
    onSuccess: (me) => {
      const before = queries.getQueryData<Schemas['Me']>(ME)
      if (before?.signed_in === true && before.id !== me.id) {
        // Somebody else than before finds nothing of the one before, and nothing of theirs is sent.
        forgetDrafts()
        window.location.assign('/')
        return
      }
      queries.setQueryData(ME, me)
      resume()
      window.dispatchEvent(new Event(SIGNED_IN))
    },
  })
}

export function useSignOut() {
  const queries = useQueryClient()
  const navigate = useNavigate()
  return query.useMutation('post', '/api/auth/sign-out', {
    onSuccess: (me) => {
      forgetDrafts()
      queries.clear()
      queries.setQueryData(ME, me)
      void navigate('/sign-in')
    },
  })
}

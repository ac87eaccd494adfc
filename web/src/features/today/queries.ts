import { useQueryClient } from '@tanstack/react-query'
import { query } from '../../api/client'
import { forget, forgetLists } from '../../common/changes'
import { usePracticeId } from '../../common/route'

const PRACTICE = '/api/practices/{practice_id}'
const TODAY = `${PRACTICE}/today` as const
const OUTLOOK = `${PRACTICE}/clients/{client_id}/outlook` as const
const ONE = `${PRACTICE}/appointments/{appointment_id}` as const

/** A day's appointments; of the day it is at the practice when none is named. */
export function useDay(date: string | undefined) {
  const practice_id = usePracticeId()
  return query.useQuery('get', TODAY, {
    params: { path: { practice_id }, query: date === undefined ? {} : { date } },
  })
}

/** What to know of a client before they come: an answer of its own, because it is slow. */
export function useOutlook(client_id: string, date: string) {
  const practice_id = usePracticeId()
  return query.useQuery('get', OUTLOOK, { params: { path: { practice_id, client_id }, query: { date } } })
}

/** A change that was refused may be so because another day stands: the lists are asked for again either way. */
function useDaysChanged() {
  const queries = useQueryClient()
  return {
    onSettled: () => {
      forgetLists(queries)
    },
  }
}

export function useBook() {
  return query.useMutation('post', `${PRACTICE}/appointments`, useDaysChanged())
}

export function useMove() {
  return query.useMutation('put', ONE, useDaysChanged())
}

export function useCancel() {
  return query.useMutation('post', `${ONE}/cancel`, useDaysChanged())
}

export function useRestore() {
  return query.useMutation('post', `${ONE}/restore`, useDaysChanged())
}

/** Whether a hold had settled by the next morning. */
export function useMorning(client_id: string) {
  const queries = useQueryClient()
  return query.useMutation('post', `${PRACTICE}/clients/{client_id}/items/{item_id}/morning`, {
    onSuccess: () => {
      forget(queries, 'holds', client_id)
    },
  })
}

/** Plan the same as last time. */
export function useSameAgain(client_id: string) {
  const queries = useQueryClient()
  return query.useMutation('post', `${PRACTICE}/clients/{client_id}/plan/again`, {
    onSuccess: () => {
      forget(queries, 'plan', client_id)
    },
  })
}

import { useQueryClient } from '@tanstack/react-query'
import { useSearchParams } from 'react-router'
import { query, type Schemas } from '../../api/client'
import { useChanged } from '../../common/changes'
import { useClientPath, usePracticeId } from '../../common/route'

const PRACTICE = '/api/practices/{practice_id}'
const CLIENT = `${PRACTICE}/clients/{client_id}` as const
const PLAN = `${CLIENT}/plan` as const

/** The day of the address; the day it is at the practice when none is named. */
export function useDate(): { date?: string } {
  const date = useSearchParams()[0].get('date')
  return date === null ? {} : { date }
}

/** Which plan is asked about. */
export function usePlanOf() {
  return { path: useClientPath(), query: useDate() }
}

export function usePlan() {
  return query.useQuery('get', PLAN, { params: usePlanOf() })
}

function useKept() {
  const queries = useQueryClient()
  const params = usePlanOf()
  const changed = useChanged('plan', [PLAN])
  return {
    onSuccess: (plan: Schemas['PlanOut']) => {
      queries.setQueryData(query.queryOptions('get', PLAN, { params }).queryKey, plan)
      changed()
    },
  }
}

export function useSavePlan() {
  return query.useMutation('put', PLAN, useKept())
}

/** The same as last time, or as a template has it. */
export function useAgain() {
  return query.useMutation('post', `${PLAN}/again`, useKept())
}

export function useAdd() {
  return query.useMutation('post', `${PLAN}/poses`, useKept())
}

export function useBreath() {
  return query.useMutation('put', `${CLIENT}/breath`, useKept())
}

/** The order suggested for what is planned; asked for when it is wanted. */
export function useSuggest() {
  const queries = useQueryClient()
  const params = usePlanOf()
  return () => queries.query(query.queryOptions('get', `${PLAN}/order`, { params }, { staleTime: 0 }))
}

const TEMPLATES = `${PRACTICE}/templates` as const

export function useTemplates() {
  const practice_id = usePracticeId()
  return query.useQuery('get', TEMPLATES, { params: { path: { practice_id } } })
}

function useTemplatesChanged() {
  const queries = useQueryClient()
  return {
    onSuccess: () => {
      void queries.invalidateQueries({ queryKey: ['get', TEMPLATES] })
    },
  }
}

export function useKeepTemplate() {
  return query.useMutation('post', TEMPLATES, useTemplatesChanged())
}

export function usePutTemplateAway() {
  return query.useMutation('delete', `${TEMPLATES}/{template_id}`, useTemplatesChanged())
}

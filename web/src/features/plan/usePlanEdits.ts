import { useEffect, useState } from 'react'
import { ApiProblem, type Schemas } from '../../api/client'
import { bodyOf, type Edit, editsOf, onto } from './model'
import { usePlanOf, useSavePlan } from './queries'

/** What was changed is stored after nothing more came for so long. */
const SETTLED_MS = 500

interface Edited {
  poses: readonly Edit[]
  minutes: number | undefined
}

export interface PlanEdits {
  /** What was changed and not stored yet; `null` while everything is. */
  edits: readonly Edit[] | null
  change: (after: (edits: Edit[]) => Edit[]) => void
  setMinutes: (minutes: number) => void
  saving: boolean
  error: Error | null
  /** Somebody else changed the plan in between: put one's own on top of it, or take theirs. */
  stale: { keep: () => void; drop: () => void } | null
}

/** Changes to a plan: shown at once, stored together when they settle, one request at a time. */
export function usePlanEdits(
  plan: Schemas['PlanOut'] | undefined,
  refetch: () => Promise<unknown>,
): PlanEdits {
  const [edited, setEdited] = useState<Edited | null>(null)
  const save = useSavePlan()
  const params = usePlanOf()
  const { mutate, reset, isPending, error } = save
  const version = plan?.version
  const { path, query } = params
  const { practice_id, client_id } = path
  const { date } = query
  useEffect(() => {
    if (edited === null || isPending || error !== null || version === undefined) return
    const timer = window.setTimeout(() => {
      mutate(
        {
          params: { path: { practice_id, client_id }, query: date === undefined ? {} : { date } },
          body: bodyOf(version, edited.poses, edited.minutes),
        },
        {
          onSuccess: () => {
            // What came while it was on its way is stored next.
            setEdited((now) => (now === edited ? null : now))
          },
        },
      )
    }, SETTLED_MS)
    return () => {
      window.clearTimeout(timer)
    }
  }, [edited, isPending, error, version, mutate, practice_id, client_id, date])
  const isStale = error instanceof ApiProblem && error.problem.code === 'stale'
  const own = plan === undefined ? [] : editsOf(plan)
  return {
    edits: edited?.poses ?? null,
    change: (after) => {
      if (error !== null && !isStale) reset()
      setEdited((now) => ({ poses: after([...(now?.poses ?? own)]), minutes: now?.minutes }))
    },
    setMinutes: (minutes) => {
      if (error !== null && !isStale) reset()
      setEdited((now) => ({ poses: now?.poses ?? own, minutes }))
    },
    saving: edited !== null,
    error: isStale ? null : error,
    stale: isStale
      ? {
          keep: () => {
            void refetch().then((answer) => {
              const now = (answer as { data?: Schemas['PlanOut'] }).data
              if (now !== undefined)
                setEdited((mine) => (mine === null ? null : { ...mine, poses: onto(mine.poses, now) }))
              reset()
            })
          },
          drop: () => {
            setEdited(null)
            void refetch().then(reset)
          },
        }
      : null,
  }
}

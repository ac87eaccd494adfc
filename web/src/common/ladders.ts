import { useQueries, type UseQueryResult } from '@tanstack/react-query'
import { query, type Schemas, type Side } from '../api/client'
import { useClientPath, usePracticeId } from './route'

const CLIENT = '/api/practices/{practice_id}/clients/{client_id}'

/** What ladders are for, in the order practitioners reach for it. */
export function usePurposes() {
  const practice_id = usePracticeId()
  return query.useQuery(
    'get',
    '/api/practices/{practice_id}/library/purposes',
    { params: { path: { practice_id } } },
    { staleTime: Infinity },
  )
}

/** Every family there is, by name, with what this client has worked on. */
export function useFamilies() {
  return query.useQuery('get', `${CLIENT}/families`, { params: { path: useClientPath() } })
}

/** Some families as two lanes, judged for today; each arrives on its own. */
export function useLadders(families: readonly string[]) {
  const path = useClientPath()
  return useQueries({
    queries: families.map((family_id) =>
      query.queryOptions('get', `${CLIENT}/ladders/{family_id}`, {
        params: { path: { ...path, family_id } },
      }),
    ),
    combine: (results) => ({
      data: results.flatMap((result) => (result.data === undefined ? [] : [result.data])),
      isPending: results.some((result) => result.isPending),
      /** Ladders that could not be had, each with its own way to try again. */
      failed: results.flatMap((result, index) =>
        result.isError && result.data === undefined
          ? [{ family: families[index] ?? '', error: result.error, again: () => void result.refetch() }]
          : [],
      ),
    }),
  })
}

/** Ladders judged in one answer. */
const HANDFUL = 6

/** Every one of some families as two lanes, a handful in each answer; the order of the families has to stay the same. */
export function useOverview(families: readonly string[]) {
  const path = useClientPath()
  const handfuls = Array.from({ length: Math.ceil(families.length / HANDFUL) }, (_, place) =>
    families.slice(place * HANDFUL, (place + 1) * HANDFUL),
  )
  const { data, isPending, failed } = useQueries({
    queries: handfuls.map((family) =>
      query.queryOptions('get', `${CLIENT}/ladders`, { params: { path, query: { family } } }),
    ),
    combine: handfulsTogether,
  })
  return {
    data,
    isPending,
    /** Handfuls that could not be had, each with its own way to try again. */
    failed: failed.map(({ place, ...how }) => ({ ...how, families: handfuls[place] ?? [] })),
  }
}

/** Always the same function, so that answers are put together anew only when one of them changed. */
function handfulsTogether(results: UseQueryResult<Schemas['LadderOut'][]>[]) {
  return {
    data: results.flatMap((result) => result.data ?? []),
    isPending: results.some((result) => result.isPending),
    failed: results.flatMap((result, place) =>
      result.isError && result.data === undefined
        ? [{ place, error: result.error, again: () => void result.refetch() }]
        : [],
    ),
  }
}

/** The figures of a ladder's rungs by side and rung, asked for after its verdicts are there. */
export function useDrawings(family_id: string): Schemas['DrawingsOut'] | undefined {
  const path = useClientPath()
  return query.useQuery('get', `${CLIENT}/ladders/{family_id}/drawings`, {
    params: { path: { ...path, family_id } },
  }).data
}

/** The family a rung belongs to. */
export function familyOf(rung: string): string {
  return rung.split('.')[0] ?? rung
}

/** With these a rung may be done today. */
export const OPEN: readonly Schemas['Verdict'][] = ['clear', 'with_setup', 'with_eye']

/** Where a side would work today: the offered step, else where it stands, else the most that is open without a caution. */
export function startingRung(ladder: Schemas['LadderOut'], side: Side): string | undefined {
  const lane = ladder[side]
  const open = lane.rungs.filter((rung) => OPEN.includes(rung.verdict))
  // What flared twice is not offered again by itself: start from the most held up.
  if (lane.decision.action === 'leave_out') return open[0]?.variation
  const wanted = lane.decision.step?.variation ?? lane.decision.here
  if (wanted !== null && open.some((rung) => rung.variation === wanted)) return wanted
  return (open.filter((rung) => rung.cautions === 0).at(-1) ?? open[0] ?? lane.rungs[0])?.variation
}

type Ladder = Schemas['LadderOut']

/** The ladder a rung stands on. */
export function ladderWith(ladders: readonly Ladder[], rung: string | undefined): Ladder | undefined {
  return ladders.find((ladder) => ladder.rungs.some((each) => each.id === rung))
}

/** The families to set up, from the address; nothing named opens one that was worked on, else the first. */
export function familiesFrom(
  families: readonly Schemas['FamilyLine'][],
  search: URLSearchParams,
): Record<Side, string | undefined> {
  const named = { left: search.get('left'), right: search.get('right') }
  const start = (families.find((family) => family.last !== null) ?? families[0])?.family
  const of = (side: Side, other: Side) => {
    const rung = named[side] ?? named[other]
    return rung === null ? start : familyOf(rung)
  }
  return { left: of('left', 'right'), right: of('right', 'left') }
}

/** The rungs to set up, from the address; a side it does not name starts where its ladder stands. */
export function rungsFrom(
  ladders: readonly Ladder[],
  families: Record<Side, string | undefined>,
  search: URLSearchParams,
): Record<Side, string | undefined> {
  const rung = (side: Side) => {
    const ladder = ladders.find((each) => each.family === families[side])
    const named = search.get(side)
    // An address may name only the family: its side starts where its ladder stands.
    if (named !== null && !named.endsWith('.')) return named
    return ladder === undefined ? undefined : startingRung(ladder, side)
  }
  return { left: rung('left'), right: rung('right') }
}

import { useQuery } from '@tanstack/react-query'
import { api, type Schemas, type Side, unwrap } from '../api/client'
import { useClientPath } from './route'

/** Every family as two lanes, judged for today. */
export function useLadders() {
  const path = useClientPath()
  return useQuery({
    queryKey: ['client', path.client_id, 'ladders'],
    queryFn: () =>
      unwrap(api.GET('/api/practices/{practice_id}/clients/{client_id}/ladders', { params: { path } })),
  })
}

const OPEN: readonly Schemas['Verdict'][] = ['clear', 'with_setup']

/** Where a side would work today: the offered step, else where it stands, else the most that is open without a caution. */
export function startingRung(ladder: Schemas['LadderOut'], side: Side): string | undefined {
  const lane = ladder[side]
  const open = lane.rungs.filter((rung) => OPEN.includes(rung.verdict))
  // What flared twice is not offered again by itself: start from the most held up.
  if (lane.decision.action === 'leave_out') return open[0]?.variation
  const wanted = lane.decision.step?.variation ?? lane.decision.here
  if (wanted !== undefined && open.some((rung) => rung.variation === wanted)) return wanted ?? undefined
  return (open.filter((rung) => rung.cautions === 0).at(-1) ?? open[0] ?? lane.rungs[0])?.variation
}

type Ladder = Schemas['LadderOut']

/** The ladder a rung stands on. */
export function ladderWith(ladders: readonly Ladder[], rung: string | undefined): Ladder | undefined {
  return ladders.find((ladder) => ladder.rungs.some((each) => each.id === rung))
}

/** Which ladder to open when nothing was chosen: one that was worked on, else the first. */
export function startingLadder(ladders: readonly Ladder[]): Ladder | undefined {
  const worked = ladders.find((ladder) =>
    [ladder.left, ladder.right].some((lane) => lane.decision.action !== 'not_tried'),
  )
  return worked ?? ladders[0]
}

/** The rungs to set up, from the address; a side it does not name starts on the other side's ladder. */
export function rungsFrom(
  ladders: readonly Ladder[],
  search: URLSearchParams,
): Record<Side, string | undefined> {
  const named = { left: search.get('left') ?? undefined, right: search.get('right') ?? undefined }
  const ladder = ladderWith(ladders, named.left ?? named.right) ?? startingLadder(ladders)
  const start = (side: Side) => (ladder === undefined ? undefined : startingRung(ladder, side))
  return { left: named.left ?? start('left'), right: named.right ?? start('right') }
}

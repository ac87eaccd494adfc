import type { Lane, Schemas, Side } from '../../api/client'

type Family = Schemas['MatFamily']

/** One lane of one pose: where one works beside the mat. */
export interface Stop {
  family: string
  lane: Lane
}

/** Where one is beside the mat. */
export type Place = 'arrival' | 'summary' | Stop

/** The planned lanes of a pose in the order they are worked. */
export function lanesOf(family: Family): Lane[] {
  if (family.shared) return family.left === null && family.right === null ? [] : ['both']
  return (['left', 'right'] as const).filter((side) => family[side] !== null)
}

export function sideOf(lane: Lane): Side {
  return lane === 'right' ? 'right' : 'left'
}

export function partOf(family: Family, lane: Lane): Schemas['MatSide'] | null {
  return family[sideOf(lane)] ?? (lane === 'both' ? family.right : null)
}

/** How many rounds a lane still has to go. */
function toGo(family: Family, lane: Lane): number {
  const part = partOf(family, lane)
  return part === null ? 0 : Math.max(0, part.rounds - part.logged_today.length)
}

/** Whether every planned round of a pose was logged. */
export function isDone(family: Family): boolean {
  return lanesOf(family).every((lane) => toGo(family, lane) === 0)
}

/** The other planned lane of a pose, if it has one. */
export function otherLane(family: Family, lane: Lane): Lane | null {
  return lanesOf(family).find((each) => each !== lane) ?? null
}

/** Where one begins, or goes on after a break: the first lane with a round to go. */
export function firstOpen(families: readonly Family[]): Place {
  for (const family of families) {
    const lane = lanesOf(family).find((each) => toGo(family, each) > 0)
    if (lane !== undefined) return { family: family.family, lane }
  }
  return 'summary'
}

/** Where one goes from a lane: to the other side while that is behind, round again, and on to the next pose. */
export function nextOf(families: readonly Family[], at: Stop): Place {
  const here = families.findIndex(({ family }) => family === at.family)
  const family = families[here]
  if (family === undefined) return firstOpen(families)
  const other = otherLane(family, at.lane)
  if (other !== null && toGo(family, other) > 0 && toGo(family, other) >= toGo(family, at.lane))
    return { family: at.family, lane: other }
  if (toGo(family, at.lane) > 0) return at
  if (other !== null && toGo(family, other) > 0) return { family: at.family, lane: other }
  return onFrom(families, here)
}

/** Past a lane that is left as it is: to the other side while that has a round to go, else on to the next pose. */
export function past(families: readonly Family[], at: Stop): Place {
  const here = families.findIndex(({ family }) => family === at.family)
  const family = families[here]
  if (family === undefined) return firstOpen(families)
  const lanes = lanesOf(family)
  const later = lanes[lanes.indexOf(at.lane) + 1]
  if (later !== undefined && toGo(family, later) > 0) return { family: at.family, lane: later }
  return onFrom(families, here)
}

function onFrom(families: readonly Family[], here: number): Place {
  const next = families[here + 1]
  const lane = next === undefined ? undefined : lanesOf(next)[0]
  return next === undefined || lane === undefined ? 'summary' : { family: next.family, lane }
}

/** Seconds of the poses that are not done, from the one one is at on. */
export function secondsLeft(families: readonly Family[], at: Place): number {
  if (at === 'summary') return 0
  const here =
    at === 'arrival'
      ? 0
      : Math.max(
          0,
          families.findIndex(({ family }) => family === at.family),
        )
  return families.slice(here).reduce((sum, family) => sum + (isDone(family) ? 0 : family.seconds), 0)
}

/** Whether a place is still on the plan: what was taken out in between is no place any more. */
export function isThere(families: readonly Family[], at: Place): boolean {
  if (typeof at === 'string') return true
  const family = families.find((each) => each.family === at.family)
  return family !== undefined && lanesOf(family).includes(at.lane)
}

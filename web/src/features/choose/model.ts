import type { Schemas, Side } from '../../api/client'
import { OPEN } from '../../common/ladders'
import { meant } from '../../common/search'

export type Family = Schemas['FamilyLine']
export type Ladder = Schemas['LadderOut']
export type Rung = Schemas['RungLane']

/** The rung picked out on each side, as an id. */
export type Chosen = Partial<Record<Side, string>>

/** A rung of one side, to be set beside others. */
export interface Beside {
  side: Side
  rung: string
}

/** Rungs that stand beside each other at most. */
export const MOST_BESIDE = 3

/** What the list is narrowed to. */
export interface Filters {
  open: boolean
  chair: boolean
  noFloor: boolean
  shelf: boolean
  /** Minutes for both sides at most; 0 for any. */
  minutes: number
}

export const ANY: Filters = { open: true, chair: false, noFloor: false, shelf: false, minutes: 0 }

export const MINUTES = [2, 4, 6, 10] as const

const DOWN: readonly Rung['level'][] = ['floor', 'lying']

/** Whether a rung may be done today: open by the limits, on a ladder that does not rest. */
export function isOpen(rung: Rung, action: Schemas['DecisionOut']['action']): boolean {
  return action !== 'leave_out' && OPEN.includes(rung.verdict)
}

/** Whether a rung is of the kind that is looked for, open or not. */
export function fits(rung: Rung, sides: number, filters: Filters): boolean {
  return (
    (!filters.chair || rung.level === 'seated') &&
    (!filters.noFloor || !DOWN.includes(rung.level)) &&
    (!filters.shelf || rung.drawn) &&
    (filters.minutes === 0 || rung.seconds * sides <= filters.minutes * 60)
  )
}

/** The lanes that tell of a ladder: one where both legs share the shape. */
export function lanesOf(ladder: Ladder): readonly Side[] {
  return ladder.shared ? ['left'] : ['left', 'right']
}

/** How many rungs of a ladder are looked for, on both sides together. */
export function countOf(ladder: Ladder, filters: Filters): number {
  const sides = lanesOf(ladder)
  return sides.flatMap((side) => {
    const { decision, rungs } = ladder[side]
    return rungs.filter(
      (rung) => (!filters.open || isOpen(rung, decision.action)) && fits(rung, sides.length, filters),
    )
  }).length
}

/** Levels a ladder can be worked at: of its open rungs, else of all. */
export function levelsOf(ladder: Ladder): Rung['level'][] {
  const every = lanesOf(ladder).flatMap((side) =>
    ladder[side].rungs.map((rung) => ({ rung, open: isOpen(rung, ladder[side].decision.action) })),
  )
  const open = every.filter((each) => each.open)
  return [...new Set((open.length > 0 ? open : every).map(({ rung }) => rung.level))]
}

/** Before anything is judged. */
export const NOT_JUDGED: ReadonlyMap<string, Ladder> = new Map()

/** What was done last comes first; then by how much is open, as a share of the ladder, and by name. Before every ladder is
 * judged the second is left out, so that nothing moves meanwhile. */
export function inOrder(lines: readonly Family[], ladders: ReadonlyMap<string, Ladder>): Family[] {
  const judged = lines.every(({ family }) => ladders.has(family))
  const share = ({ family }: Family) => {
    const ladder = ladders.get(family)
    if (!judged || ladder === undefined) return 0
    return countOf(ladder, ANY) / (ladder.rungs.length * lanesOf(ladder).length)
  }
  return [...lines].sort(
    (one, other) => (other.last ?? '').localeCompare(one.last ?? '') || share(other) - share(one),
  )
}

/** The latest a side was here and what came of it. */
export function lastOf(lane: Schemas['LaneOut']): Rung['last'] {
  return lane.rungs
    .map(({ last }) => last)
    .reduce(
      (found, last) => (last !== null && (found === null || last.date > found.date) ? last : found),
      null,
    )
}

/** A purpose of its own: what was worked on so far. */
const WORKED = 'worked_on'

/** What the list of ladders is narrowed to. */
interface Narrowed {
  picked: readonly string[]
  filters: Filters
  text: string
  /** What somebody opened on the list as it was before every ladder was judged; `null` where nobody did. */
  held: readonly string[] | null
}

/** The ladders to be listed in their order, and what they are for: each purpose with how many there are of it. What is
 * looked for by name is found whatever it is for, open or not; what is not judged yet may be open, and what somebody opened
 * before it was stays. */
export function overviewOf(
  lines: readonly Family[],
  ladders: ReadonlyMap<string, Ladder>,
  everyPurpose: readonly { code: string; words: string }[],
  { picked, filters, text, held }: Narrowed,
) {
  const fitting = inOrder(lines, held === null ? ladders : NOT_JUDGED).filter(({ family }) => {
    const ladder = ladders.get(family)
    return ladder === undefined || held?.includes(family) === true || countOf(ladder, filters) > 0
  })
  const isFor = (family: Family, purpose: string) =>
    purpose === WORKED ? family.last !== null : family.purposes.includes(purpose)
  const purposes = [{ code: WORKED, words: null }, ...everyPurpose]
    .filter(({ code }) => lines.some((family) => isFor(family, code)))
    .map(({ code, words }) => ({
      code,
      words,
      count: fitting.filter((family) => isFor(family, code)).length,
    }))
  const known = picked.filter((code) => purposes.some((purpose) => purpose.code === code))
  const shown =
    text.trim() !== ''
      ? meant(lines, text)
      : fitting.filter((family) => known.length === 0 || known.some((purpose) => isFor(family, purpose)))
  return { purposes, known, shown }
}

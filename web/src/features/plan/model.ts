import type { Schemas, Side } from '../../api/client'

type Plan = Schemas['PlanOut']
export type Pose = Schemas['PlannedPose']
export type Part = Schemas['PlannedPart']

/** How much of one side is planned. */
export interface Much {
  dose_s: number
  rounds: number
}

/** A planned ladder as far as it can be changed here: its place, whether it stays there, how much of each side. */
export interface Edit {
  family: string
  fixed: boolean
  left: Much | null
  right: Much | null
}

const SIDES: readonly Side[] = ['left', 'right']

function muchOf(part: Part | null): Much | null {
  return part === null ? null : { dose_s: part.dose_s, rounds: part.rounds }
}

export function editsOf(plan: Plan): Edit[] {
  return plan.poses.map(({ family, fixed, left, right }) => ({
    family,
    fixed,
    left: muchOf(left),
    right: muchOf(right),
  }))
}

/** What is sent of a plan: sides and poses that are not named are taken out. */
export function bodyOf(version: number, edits: readonly Edit[], minutes?: number): Schemas['PlanSave'] {
  return {
    version,
    poses: edits.map(({ family, fixed, left, right }) => ({
      family,
      fixed,
      ...(left === null ? {} : { left }),
      ...(right === null ? {} : { right }),
    })),
    ...(minutes === undefined ? {} : { minutes }),
  }
}

/** The same with the pose at one place at another. */
export function moved<Of>(list: readonly Of[], from: number, to: number): Of[] {
  const rest = list.filter((_, place) => place !== from)
  const one = list[from]
  return one === undefined ? [...list] : [...rest.slice(0, to), one, ...rest.slice(to)]
}

/** In another order, by family; what the order does not name stays at the end. */
export function inOrder(edits: readonly Edit[], families: readonly string[]): Edit[] {
  const place = (edit: Edit) => {
    const at = families.indexOf(edit.family)
    return at === -1 ? families.length : at
  }
  return [...edits].sort((a, b) => place(a) - place(b))
}

/** Changes made on an older plan, put on what stands now: poses that are gone are not brought back, new ones come last. */
export function onto(edits: readonly Edit[], plan: Plan): Edit[] {
  const there = editsOf(plan)
  const mine = edits.filter((edit) => there.some(({ family }) => family === edit.family))
  return [...mine, ...there.filter(({ family }) => !edits.some((edit) => edit.family === family))]
}

/** The poses as they are edited: in that order, with those doses, without the sides taken out. */
export function shownPoses(plan: Plan, edits: readonly Edit[] | null): Pose[] {
  if (edits === null) return plan.poses
  return edits.flatMap((edit) => {
    const pose = plan.poses.find(({ family }) => family === edit.family)
    if (pose === undefined) return []
    const [left, right] = SIDES.map((side) => edited(pose[side], edit[side]))
    return [{ ...pose, fixed: edit.fixed, left: left ?? null, right: right ?? null }]
  })
}

function edited(part: Part | null, much: Much | null): Part | null {
  if (part === null || much === null) return null
  const words = part.doses.find(({ seconds }) => seconds === much.dose_s)?.words ?? part.dose
  return { ...part, ...much, dose: words }
}

export function wholeMinutes(seconds: number): number {
  return Math.round(seconds / 60)
}

/** What differs from last time, for both sides at once where it is the same. */
export function sinceOf(pose: Pose): { side: Side | 'both'; text: string; why: string; changed: boolean }[] {
  const of = (side: Side) => {
    const part = pose[side]
    return part === null ? [] : [{ side, text: part.since, why: part.why, changed: part.changed }]
  }
  const [one, other] = SIDES.flatMap(of)
  if (one === undefined) return []
  if (other === undefined || (one.text === other.text && one.why === other.why))
    return [{ ...one, side: pose.shared || other !== undefined ? 'both' : one.side }]
  return [one, other]
}

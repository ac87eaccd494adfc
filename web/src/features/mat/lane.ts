import { type LogDraft, newDraft, type Used } from './model'

/** What is not stored yet of a lane: the hold being described, where one stepped back to, whether another round is on. */
export interface LaneDraft {
  log: LogDraft
  steppedTo: Used | null
  another: boolean
}

export type LaneStep =
  | { did: 'said'; log: LogDraft }
  | { did: 'stepped back'; to: Used }
  | { did: 'stepped forward' }
  | { did: 'went round again' }
  | { did: 'was asked' }
  | { did: 'sent'; held: number | null }
  | { did: 'logged' }

export function newLane(): LaneDraft {
  return { log: newDraft(), steppedTo: null, another: false }
}

/** A lane after one more thing happened beside the mat. */
export function laneAfter(lane: LaneDraft, step: LaneStep): LaneDraft {
  switch (step.did) {
    case 'said':
      return { ...lane, log: step.log }
    case 'stepped back':
      // Kept as it stood: a reload must not log the rung that was left. A second step stands on the first.
      return lane.steppedTo === null ? { ...lane, steppedTo: step.to, another: true } : lane
    case 'stepped forward':
      return { ...lane, steppedTo: null }
    case 'went round again':
      return { ...lane, another: true }
    case 'was asked':
      return { ...lane, log: { ...lane.log, asked: true } }
    case 'sent':
      return { ...lane, log: { ...lane.log, held: step.held } }
    case 'logged':
      // Where one stepped back to stays.
      return { ...newLane(), steppedTo: lane.steppedTo }
  }
}
/** Whether a lane holds words of somebody that are stored nowhere else. */
export function kindOfLane({ log }: LaneDraft): 'typed' | 'picked' {
  const silent =
    Object.values(log.scores).every((each) => each === null) &&
    log.kind === null &&
    log.place === null &&
    log.signs === null &&
    log.note === ''
  return silent ? 'picked' : 'typed'
}

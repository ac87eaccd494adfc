import type { Side } from '../../api/client'

/** One hold against the clock: the side it is for, when it went on, and what ran before a pause, ms. */
export interface Hold {
  side: Side | null
  since: number | null
  ran: number
}

export const NO_HOLD: Hold = { side: null, since: null, ran: 0 }

export function elapsedMs(hold: Hold, now: number): number {
  return hold.ran + (hold.since === null ? 0 : Math.max(0, now - hold.since))
}

/** Start or go on; a hold keeps the side it was begun on, whichever lane is touched meanwhile. */
export function started(hold: Hold, side: Side, now: number): Hold {
  return hold.since === null ? { ...hold, side: hold.side ?? side, since: now } : hold
}

export function paused(hold: Hold, now: number): Hold {
  return { ...hold, since: null, ran: elapsedMs(hold, now) }
}

/** Whole seconds held on a side; `null` when no clock ran for it. */
export function heldSeconds(hold: Hold, side: Side, now: number): number | null {
  return hold.side === side ? Math.round(elapsedMs(hold, now) / 1000) : null
}

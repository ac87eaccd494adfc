/** One hold against the clock: when it went on, what ran before a pause, ms, and repetitions counted. */
export interface Hold {
  since: number | null
  ran: number
  count: number
}

export const NO_HOLD: Hold = { since: null, ran: 0, count: 0 }

export function elapsedMs(hold: Hold, now: number): number {
  return hold.ran + (hold.since === null ? 0 : Math.max(0, now - hold.since))
}

/** Start or go on. */
export function started(hold: Hold, now: number): Hold {
  return hold.since === null ? { ...hold, since: now } : hold
}

export function paused(hold: Hold, now: number): Hold {
  return { ...hold, since: null, ran: elapsedMs(hold, now) }
}

/** One repetition more; the clock runs from the first. */
export function counted(hold: Hold, now: number): Hold {
  return { ...started(hold, now), count: hold.count + 1 }
}

/** Whole seconds held; `null` when no clock ran. */
export function heldSeconds(hold: Hold, now: number): number | null {
  return hold.since === null && hold.ran === 0 ? null : Math.round(elapsedMs(hold, now) / 1000)
}

export type Style = 'seconds' | 'breaths' | 'minutes' | 'reps'

/** What the clock shows: a large figure and what it is of, how far one is (0–1), and in how many parts that is cut. */
export interface Face {
  figure: string
  of: number
  set: number
  share: number
  parts: number
}

const MOST_PARTS = 20

/** The face of a clock in the unit a dose is counted in; `seconds` is what one round takes. */
export function faceOf(
  hold: Hold,
  now: number,
  dose: { style: Style; amount: number; sets: number; seconds: number },
): Face {
  const elapsed = elapsedMs(hold, now) / 1000
  const share = Math.min(1, elapsed / dose.seconds)
  switch (dose.style) {
    case 'reps': {
      const whole = dose.amount * dose.sets
      const full = hold.count > 0 && hold.count % dose.amount === 0
      return {
        figure: (full ? dose.amount : hold.count % dose.amount).toString(),
        of: dose.amount,
        set: Math.max(1, Math.ceil(hold.count / dose.amount)),
        share: Math.min(1, hold.count / whole),
        parts: dose.sets,
      }
    }
    case 'breaths': {
      const breath = dose.seconds / dose.amount
      return {
        figure: Math.floor(elapsed / breath).toString(),
        of: dose.amount,
        set: 1,
        share,
        parts: Math.min(MOST_PARTS, dose.amount),
      }
    }
    case 'minutes':
      return {
        figure: `${Math.floor(elapsed / 60).toString()}:${Math.floor(elapsed % 60)
          .toString()
          .padStart(2, '0')}`,
        of: dose.amount,
        set: 1,
        share,
        parts: Math.min(MOST_PARTS, dose.amount),
      }
    case 'seconds':
      return { figure: Math.floor(elapsed).toString(), of: dose.amount, set: 1, share, parts: 1 }
  }
}

import type { Schemas } from '../../api/client'
import { numberIn } from '../../common/forms/numbers'
import { UNFINISHED } from '../../common/forms/unfinished'

export type Next = 'mat' | 'plan' | 'choose'

/**
 * Where one goes on with an appointment: to the mat once something is planned for the day it is, to the plan where there
 * is one or a visit to begin from, else to choose.
 */
export function nextStop(
  { planned, last_visit }: Pick<Schemas['SessionOut'], 'planned' | 'last_visit'>,
  today: boolean,
): Next {
  if (planned > 0) return today ? 'mat' : 'plan'
  return last_visit === null ? 'choose' : 'plan'
}

/** An appointment as it is typed. */
export interface Typed {
  client: { id: string; name: string } | null
  date: string
  /** 'HH:MM', or nothing while it is no time yet. */
  time: string
  minutes: string
  place: string
  weeks: string
}

type Problem = 'client' | 'date' | 'time' | 'minutes' | 'weeks'

/** What is wrong with what was typed, in the order of the fields. */
export function problemsOf({ client, date, time, minutes, weeks }: Typed, moving: boolean): Problem[] {
  const whole = (text: string) => Number.isInteger(numberIn(text, 'plain'))
  const wrong: Record<Problem, boolean> = {
    client: !moving && client === null,
    date: date === '' || date === UNFINISHED,
    time: !/^\d\d:\d\d$/.test(time),
    minutes: !whole(minutes),
    weeks: !moving && !whole(weeks),
  }
  return (Object.keys(wrong) as Problem[]).filter((field) => wrong[field])
}

/** What is sent of an appointment that has no problem. */
export function bodyOf({ date, time, minutes, place }: Typed) {
  return { date, time, minutes: numberIn(minutes, 'plain') ?? 0, place: place.trim() }
}

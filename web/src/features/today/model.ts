import type { Schemas } from '../../api/client'
import { numberIn } from '../../common/forms/numbers'
import { UNFINISHED } from '../../common/forms/unfinished'

/** Where one goes on with an appointment: to the mat once something is planned for the day it is, before that to choose. */
export function nextStop(session: Pick<Schemas['SessionOut'], 'planned'>, today: boolean): 'choose' | 'mat' {
  return today && session.planned > 0 ? 'mat' : 'choose'
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

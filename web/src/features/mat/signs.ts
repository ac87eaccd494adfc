import type { Schemas } from '../../api/client'

type Check = Schemas['CheckOut']

export const NONE = 'none'

/** The signs said to be there today; what was said on an earlier day is asked again. */
export function saidOn(today: string, { asked_on, answered }: Check): readonly string[] {
  return asked_on === today ? answered : []
}

/** Whether any sign that belongs to a doctor is there today. */
export function isTold(checks: readonly Check[], today: string): boolean {
  return checks.some((check) => saidOn(today, check).some((sign) => sign !== NONE))
}

/** What is said once a sign is touched: added or taken away; with none left it is none of them. */
export function touched(said: readonly string[], sign: string): string[] {
  const others = said.filter((each) => each !== NONE && each !== sign)
  const signs = said.includes(sign) ? others : [...others, sign]
  return sign === NONE || signs.length === 0 ? [NONE] : signs
}

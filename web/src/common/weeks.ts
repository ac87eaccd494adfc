const DAY_MS = 86_400_000

/** Whole days from one ISO date to another; days of summer time are days like any other. */
export function daysBetween(from: string, to: string): number {
  return (Date.parse(to) - Date.parse(from)) / DAY_MS
}

/** The first day and every seventh after it, as ISO dates, up to the last. */
export function weeksOf(from: string, until: string): string[] {
  return Array.from({ length: Math.floor(daysBetween(from, until) / 7) + 1 }, (_, week) =>
    new Date(Date.parse(from) + week * 7 * DAY_MS).toISOString().slice(0, 10),
  )
}

const short = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short' })
const long = new Intl.DateTimeFormat('en-GB', {
  weekday: 'short',
  day: 'numeric',
  month: 'short',
  year: 'numeric',
})

/** '3 Nov' */
export function shortDate(iso: string): string {
  return short.format(new Date(`${iso}T12:00:00`))
}

/** 'Mon 14 Dec 2026' */
export function longDate(iso: string): string {
  return long.format(new Date(`${iso}T12:00:00`))
}

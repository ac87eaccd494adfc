import { locale } from './i18n/language'
import { disguised, PSEUDO } from './i18n/pseudo'
import { practiceManner } from './practice'

/** Locales that write a language's dates with the month first. */
const MONTH_FIRST: Record<string, string> = { 'en-GB': 'en-US' }

type Form = Intl.DateTimeFormatOptions

const SHORT: Form = { day: 'numeric', month: 'short' }
const LONG: Form = { weekday: 'short', day: 'numeric', month: 'short', year: 'numeric' }

function written(iso: string, form: Form): string {
  const { date_format } = practiceManner()
  const date = new Date(`${iso}T12:00:00`)
  if (date_format === 'year_month_day') {
    if (form.weekday === undefined) return iso
    return shown(new Intl.DateTimeFormat(locale(), { weekday: form.weekday }).format(date)) + ` ${iso}`
  }
  const own = locale()
  const order = date_format === 'month_day_year' ? (MONTH_FIRST[own] ?? own) : own
  return shown(new Intl.DateTimeFormat(order, form).format(date))
}

function shown(text: string): string {
  return document.documentElement.lang === PSEUDO ? disguised(text) : text
}

/** '3 Nov', with the year where it is another than this one. */
export function shortDate(iso: string): string {
  const { today } = practiceManner()
  const other = today !== '' && iso.slice(0, 4) !== today.slice(0, 4)
  return written(iso, other ? { ...SHORT, year: 'numeric' } : SHORT)
}

/** 'Mon, 14 Dec 2026' */
export function longDate(iso: string): string {
  return written(iso, LONG)
}

/** '14:05', of a time of the practice's own clock. */
export function clockTime(time: string): string {
  return timeOfDay(new Date(`2000-01-01T${time}`).getTime())
}

/** The day so many days after another. */
export function daysAfter(iso: string, days: number): string {
  const date = new Date(`${iso}T12:00:00Z`)
  date.setUTCDate(date.getUTCDate() + days)
  return date.toISOString().slice(0, 10)
}

/** '14:05', of a moment on this device. */
export function timeOfDay(at: number): string {
  return shown(new Intl.DateTimeFormat(locale(), { hour: '2-digit', minute: '2-digit' }).format(new Date(at)))
}

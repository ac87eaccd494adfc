import { locale } from './i18n/language'
import { disguised, PSEUDO } from './i18n/pseudo'

type Form = Intl.DateTimeFormatOptions

const SHORT: Form = { day: 'numeric', month: 'short' }
const LONG: Form = { weekday: 'short', day: 'numeric', month: 'short', year: 'numeric' }

function written(iso: string, form: Form): string {
  const text = new Intl.DateTimeFormat(locale(), form).format(new Date(`${iso}T12:00:00`))
  return document.documentElement.lang === PSEUDO ? disguised(text) : text
}

/** '3 Nov' */
export function shortDate(iso: string): string {
  return written(iso, SHORT)
}

/** 'Mon 14 Dec 2026' */
export function longDate(iso: string): string {
  return written(iso, LONG)
}

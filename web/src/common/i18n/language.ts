const KEPT = 'asketa:language'

/** How a language writes dates, where that is not its plain form. */
const REGIONS: Record<string, string> = { en: 'en-GB', 'en-XA': 'en-GB' }

/** The language this device reads in. */
export function keptLanguage(known: readonly string[]): string {
  const kept = localStorage.getItem(KEPT)
  return kept !== null && known.includes(kept) ? kept : 'en'
}

/** Read in another language from here on. Everything said so far was said in the one before: the page begins anew. */
export function switchLanguage(language: string): void {
  localStorage.setItem(KEPT, language)
  window.location.reload()
}

/** The locale in which the page's language writes dates. */
export function locale(): string {
  const language = document.documentElement.lang
  return REGIONS[language] ?? language
}

import i18next from 'i18next'
import { initReactI18next } from 'react-i18next'
import { first } from './en-first'
import { disguisedAll, PSEUDO } from './pseudo'

/** The first words of every language there is; another language is one more. */
export const FIRST: Record<string, typeof first> = { en: first, [PSEUDO]: disguisedAll(first) }

/** Say everything in a language from here on. What is not said before somebody signed in comes with `views`. */
export function start(language: string): void {
  void i18next.use(initReactI18next).init({
    lng: language,
    resources: Object.fromEntries(
      Object.entries(FIRST).map(([code, translation]) => [code, { translation }]),
    ),
    interpolation: { escapeValue: false },
  })
}

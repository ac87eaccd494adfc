import i18next from 'i18next'
import { initReactI18next } from 'react-i18next'
import { en } from './en'
import { disguisedAll, PSEUDO } from './pseudo'

/** Every catalogue there is; another language is one more. */
export const CATALOGUES: Record<string, typeof en> = { en, [PSEUDO]: disguisedAll(en) }

/** Say everything in a language from here on. */
export function start(language: string): void {
  void i18next.use(initReactI18next).init({
    lng: language,
    resources: Object.fromEntries(
      Object.entries(CATALOGUES).map(([code, translation]) => [code, { translation }]),
    ),
    interpolation: { escapeValue: false },
  })
}

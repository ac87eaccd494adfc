import i18next from 'i18next'
import { en } from './en'
import { disguisedAll, PSEUDO } from './pseudo'

/** Every catalogue there is; another language is one more. */
const CATALOGUES: Record<string, typeof en> = { en, [PSEUDO]: disguisedAll(en) }

// Whoever shows views of a practice imports this once: their words are there with them.
for (const [code, catalogue] of Object.entries(CATALOGUES)) {
  i18next.addResourceBundle(code, 'translation', catalogue, true, true)
}

import i18next from 'i18next'
import { sayProblemsWith } from '../../api/client'
import { keptLanguage } from './language'
import { FIRST, start } from './start'

const language = keptLanguage(Object.keys(FIRST))
// The server answers in the language of the page.
document.documentElement.lang = language
start(language)
sayProblemsWith({
  unreachable: i18next.t('common.unreachable'),
  broken: i18next.t('common.serverBroke'),
})

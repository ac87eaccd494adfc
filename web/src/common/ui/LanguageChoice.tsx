import MenuItem from '@mui/material/MenuItem'
import TextField from '@mui/material/TextField'
import { useTranslation } from 'react-i18next'
import { switchLanguage } from '../i18n/language'

/** In which of the languages there are one reads on this device; each is named in itself. */
export function LanguageChoice({ languages }: { languages: readonly string[] }) {
  const { t, i18n } = useTranslation()
  return (
    <TextField
      select
      label={t('common.language')}
      translate="no"
      value={i18n.language}
      onChange={(event) => {
        switchLanguage(event.target.value)
      }}
      sx={{ minWidth: 200 }}
    >
      {languages.map((each) => (
        <MenuItem key={each} value={each} translate="no">
          {new Intl.DisplayNames([each], { type: 'language' }).of(each)}
        </MenuItem>
      ))}
    </TextField>
  )
}

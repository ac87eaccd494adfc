import MenuItem from '@mui/material/MenuItem'
import Select from '@mui/material/Select'
import { useTranslation } from 'react-i18next'
import { switchLanguage } from '../../common/i18n/language'

/** In which of the languages there are one reads on this device; each is named in itself. */
export function LanguageChoice({ languages }: { languages: readonly string[] }) {
  const { t, i18n } = useTranslation()
  return (
    <Select
      size="small"
      variant="standard"
      disableUnderline
      translate="no"
      value={i18n.language}
      inputProps={{ 'aria-label': t('common.language') }}
      onChange={(event) => {
        switchLanguage(event.target.value)
      }}
      sx={{ color: 'inherit', '& svg': { color: 'inherit' } }}
    >
      {languages.map((each) => (
        <MenuItem key={each} value={each} translate="no">
          {new Intl.DisplayNames([each], { type: 'language' }).of(each)}
        </MenuItem>
      ))}
    </Select>
  )
}

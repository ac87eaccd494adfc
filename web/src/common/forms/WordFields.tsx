import MenuItem from '@mui/material/MenuItem'
import TextField from '@mui/material/TextField'
import { useTranslation } from 'react-i18next'
import type { Schemas } from '../../api/client'
import { DateField } from './DateField'

export type Who = Schemas['Clearance']['who']

const WHO: readonly Who[] = ['surgeon', 'doctor', 'physiotherapist', 'midwife']

interface Props {
  who: Who
  date: string
  problem: string | undefined
  onChange: (changed: { who?: Who; date?: string }) => void
}

/** Whose word it is, and of which day. */
export function WordFields({ who, date, problem, onChange }: Props) {
  const { t } = useTranslation()
  return (
    <>
      <TextField
        select
        label={t('said.who')}
        value={who}
        onChange={(event) => {
          onChange({ who: event.target.value as Who })
        }}
      >
        {WHO.map((each) => (
          <MenuItem key={each} value={each}>
            {t(`said.professionals.${each}`)}
          </MenuItem>
        ))}
      </TextField>
      <DateField
        label={t('said.date')}
        value={date}
        problem={problem}
        onChange={(changed) => {
          onChange({ date: changed })
        }}
      />
    </>
  )
}

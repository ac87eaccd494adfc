import { AdapterDayjs } from '@mui/x-date-pickers/AdapterDayjs'
import { LocalizationProvider } from '@mui/x-date-pickers/LocalizationProvider'
import { TimeField as Field } from '@mui/x-date-pickers/TimeField'
import dayjs, { type Dayjs } from 'dayjs'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'

interface Props {
  label: string
  /** 'HH:MM', or nothing while it is no time yet. */
  value: string
  onChange: (value: string) => void
  problem?: string | undefined
}

/** A time of day on a clock of 24 hours. */
export function TimeField({ label, value, onChange, problem }: Props) {
  const { t } = useTranslation()
  // What was typed stays in the field while it is no time yet: only this field knows its parts.
  const [typed, setTyped] = useState<{ said: string; time: Dayjs | null }>(() => ({
    said: value,
    time: timeOf(value),
  }))
  return (
    <LocalizationProvider
      dateAdapter={AdapterDayjs}
      localeText={{
        hours: t('common.date.hours'),
        minutes: t('common.date.minutes'),
        empty: t('common.date.empty'),
        fieldHoursPlaceholder: () => t('common.date.hour'),
        fieldMinutesPlaceholder: () => t('common.date.minute'),
      }}
    >
      <Field
        label={label}
        value={typed.said === value ? typed.time : timeOf(value)}
        format="HH:mm"
        size="small"
        onChange={(time) => {
          const said = time?.isValid() === true ? time.format('HH:mm') : ''
          setTyped({ said, time })
          if (said !== value) onChange(said)
        }}
        error={problem !== undefined}
        helperText={problem}
      />
    </LocalizationProvider>
  )
}

function timeOf(value: string): Dayjs | null {
  return value === '' ? null : dayjs(`2000-01-01T${value}`)
}

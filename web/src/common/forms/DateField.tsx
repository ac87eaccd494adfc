import { AdapterDayjs } from '@mui/x-date-pickers/AdapterDayjs'
import type { FieldRef } from '@mui/x-date-pickers/models'
import { DatePicker } from '@mui/x-date-pickers/DatePicker'
import { LocalizationProvider } from '@mui/x-date-pickers/LocalizationProvider'
import type { SxProps, Theme } from '@mui/material/styles'
import dayjs, { type Dayjs } from 'dayjs'
import updateLocale from 'dayjs/plugin/updateLocale'
import { useRef, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { longDate } from '../dates'
import { practiceManner } from '../practice'
import { UNFINISHED } from './unfinished'

dayjs.extend(updateLocale)

const FORMATS = {
  day_month_year: 'DD/MM/YYYY',
  month_day_year: 'MM/DD/YYYY',
  year_month_day: 'YYYY-MM-DD',
} as const

interface Props {
  label: string
  /** An ISO date, empty, or `UNFINISHED`. */
  value: string
  onChange: (value: string) => void
  problem?: string | undefined
  sx?: SxProps<Theme>
}

/** A date in the practice's own order, typed or picked; half a date is told as `UNFINISHED`. */
export function DateField({ label, value, onChange, problem, sx }: Props) {
  const { t } = useTranslation()
  const { date_format, first_day_of_week } = practiceManner()
  dayjs.updateLocale('en', { weekStart: first_day_of_week })
  // What was typed stays in the field while it is no date yet: only this field knows its parts.
  const [typed, setTyped] = useState<{ said: string; date: Dayjs | null }>(() => ({
    said: value,
    date: dateOf(value),
  }))
  const field = useRef<FieldRef<Dayjs | null>>(null)
  // Half a date changes nothing by itself; leaving the field shows it.
  const leave = () => {
    const parts = field.current?.getSections() ?? []
    const filled = parts.filter((part) => part.value !== '').length
    const said = filled === 0 ? '' : filled < parts.length ? UNFINISHED : value
    if (said === value) return
    setTyped({ said, date: null })
    onChange(said)
  }
  const shown = typed.said === value ? typed.date : dateOf(value)
  return (
    <LocalizationProvider dateAdapter={AdapterDayjs} adapterLocale="en">
      <DatePicker
        label={label}
        value={shown}
        format={FORMATS[date_format]}
        onChange={(date) => {
          const said = isoOf(date)
          setTyped({ said, date })
          if (said !== value) onChange(said)
        }}
        localeText={{
          openDatePickerDialogue: () =>
            dateOf(value) === null
              ? t('common.date.choose')
              : t('common.date.change', { date: longDate(value) }),
          fieldDayPlaceholder: () => t('common.date.day'),
          fieldMonthPlaceholder: () => t('common.date.month'),
          fieldYearPlaceholder: () => t('common.date.year'),
          day: t('common.date.dayName'),
          month: t('common.date.monthName'),
          year: t('common.date.yearName'),
          empty: t('common.date.empty'),
          previousMonth: t('common.date.before'),
          nextMonth: t('common.date.after'),
          dateTableLabel: t('common.date.table'),
          calendarViewSwitchingButtonAriaLabel: (view) =>
            t(view === 'year' ? 'common.date.toDays' : 'common.date.toYears'),
        }}
        slotProps={{
          field: { fieldRef: field, onBlur: leave },
          textField: { size: 'small', error: problem !== undefined, helperText: problem, sx: sx ?? {} },
        }}
      />
    </LocalizationProvider>
  )
}

function dateOf(iso: string): Dayjs | null {
  return iso === '' || iso === UNFINISHED ? null : dayjs(iso)
}

function isoOf(date: Dayjs | null): string {
  if (date === null) return ''
  return date.isValid() && date.year() >= 1000 ? date.format('YYYY-MM-DD') : UNFINISHED
}

import InputAdornment from '@mui/material/InputAdornment'
import TextField, { type TextFieldProps } from '@mui/material/TextField'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { practiceManner } from '../practice'
import { isUnreadable, readNumber, type Unit } from './numbers'
import { notANumber, signOf } from './words'

interface Props {
  label?: string
  /** For a field without a label of its own. */
  name?: string
  unit: Unit
  /** What is typed, kept word for word. */
  text: string
  onType: (text: string) => void
  /** What is wrong with the number itself, said by the server or by the form it stands in. */
  problem?: string | undefined
  hint?: string | undefined
  placeholder?: string
  /** Whether a bare number is meant in the field's own unit, whatever the practice writes. */
  metric?: boolean
  sx?: TextFieldProps['sx']
}

/** A field for one number. What is no number stays in it as it was typed, and says so. */
export function NumberField({
  label,
  name,
  unit,
  text,
  onType,
  problem,
  hint,
  placeholder,
  metric,
  sx,
}: Props) {
  const { t } = useTranslation()
  const [left, setLeft] = useState(false)
  const units = metric === true ? 'metric' : practiceManner().units
  const read = text.trim() === '' ? null : readNumber(text, unit, units)
  const unreadable = left && isUnreadable(text, unit) ? notANumber(t, unit) : undefined
  const shown = problem ?? unreadable
  const sign = signOf(t, unit, units === 'metric')
  const meant = read?.converted === true ? `= ${read.value.toString()} ${signOf(t, unit, true)}` : undefined
  return (
    <TextField
      label={label}
      value={text}
      placeholder={placeholder}
      error={shown !== undefined}
      helperText={shown ?? meant ?? hint}
      onChange={(event) => {
        onType(event.target.value)
      }}
      onFocus={() => {
        setLeft(false)
      }}
      onBlur={() => {
        setLeft(true)
      }}
      slotProps={{
        htmlInput: { inputMode: 'decimal', 'aria-label': name },
        inputLabel: { shrink: true },
        input: {
          endAdornment: sign === '' ? undefined : <InputAdornment position="end">{sign}</InputAdornment>,
        },
      }}
      sx={sx ?? {}}
    />
  )
}

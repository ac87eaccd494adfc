import TextField, { type TextFieldProps } from '@mui/material/TextField'

/** What stands for a date that was begun and not finished: it is typed, so it is neither absent nor a date. */
export const UNFINISHED = 'unfinished'

interface Props {
  label: string
  value: string
  onChange: (value: string) => void
  problem?: string | undefined
  sx?: TextFieldProps['sx']
}

/** A date in the browser's own field, which hands out nothing while a date is half typed: said as `UNFINISHED`. */
export function DateField({ label, value, onChange, problem, sx }: Props) {
  const tell = (field: HTMLInputElement) => {
    const next = field.validity.badInput ? UNFINISHED : field.value
    if (next !== value) onChange(next)
  }
  return (
    <TextField
      type="date"
      label={label}
      value={value === UNFINISHED ? '' : value}
      error={problem !== undefined}
      helperText={problem}
      slotProps={{ inputLabel: { shrink: true } }}
      onChange={(event) => {
        tell(event.target as HTMLInputElement)
      }}
      // Half a date raises no change; leaving the field shows it.
      onBlur={(event) => {
        tell(event.target as HTMLInputElement)
      }}
      sx={sx ?? {}}
    />
  )
}

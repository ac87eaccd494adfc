import Typography from '@mui/material/Typography'
import { useState } from 'react'
import { NumberField } from '../../common/forms/NumberField'
import { numberIn, type Unit } from '../../common/forms/numbers'

interface Props {
  label: string
  unit?: Unit
  value: number
  onChange: (value: number) => void
}

/** A figure that may be typed freely; what is no number is kept as it stands and told as no number (`NaN`). */
export function FigureField({ label, unit = 'plain', value, onChange }: Props) {
  const [text, setText] = useState(Number.isFinite(value) ? value.toString() : '')
  return (
    <NumberField
      label={label}
      unit={unit}
      text={text}
      onType={(typed) => {
        setText(typed)
        onChange(numberIn(typed, unit) ?? NaN)
      }}
      sx={{ width: 104 }}
    />
  )
}

/** What is wrong with a row of fields, beneath it. */
export function FieldProblem({ text }: { text: string }) {
  return (
    <Typography
      role="alert"
      color="error"
      sx={{ fontSize: '0.92rem', '&::first-letter': { textTransform: 'uppercase' } }}
    >
      {text}
    </Typography>
  )
}

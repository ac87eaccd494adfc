import Typography from '@mui/material/Typography'
import { useState } from 'react'
import { NumberField } from '../../common/forms/NumberField'
import { readNumber, type Unit } from '../../common/forms/numbers'
import type { Figure } from './model'

interface Props {
  label?: string
  name?: string
  unit?: Unit
  value: Figure
  onChange: (value: Figure) => void
}

/** A figure that may be typed freely; what is no number is kept as it was typed. */
export function FigureField({ label, name, unit = 'plain', value, onChange }: Props) {
  const [text, setText] = useState(typeof value === 'number' ? value.toString() : value.typed)
  return (
    <NumberField
      {...(label === undefined ? {} : { label })}
      {...(name === undefined ? {} : { name })}
      unit={unit}
      // A variation's file is written in centimetres.
      metric
      text={text}
      onType={(typed) => {
        setText(typed)
        onChange(readNumber(typed, unit, 'metric')?.value ?? { typed })
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

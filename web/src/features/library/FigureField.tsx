import TextField from '@mui/material/TextField'
import Typography from '@mui/material/Typography'
import { useState } from 'react'
import { figureFrom } from './model'

interface Props {
  label: string
  value: number
  onChange: (value: number) => void
}

/** A figure that may be typed freely; what stands in the field is kept while it is typed. */
export function FigureField({ label, value, onChange }: Props) {
  const [text, setText] = useState(value.toString())
  return (
    <TextField
      label={label}
      value={text}
      sx={{ width: 96 }}
      slotProps={{ htmlInput: { inputMode: 'decimal' } }}
      onChange={(event) => {
        setText(event.target.value)
        onChange(figureFrom(event.target.value))
      }}
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

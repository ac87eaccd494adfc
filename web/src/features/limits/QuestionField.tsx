import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Checkbox from '@mui/material/Checkbox'
import FormControlLabel from '@mui/material/FormControlLabel'
import FormHelperText from '@mui/material/FormHelperText'
import FormLabel from '@mui/material/FormLabel'
import IconButton from '@mui/material/IconButton'
import MenuItem from '@mui/material/MenuItem'
import TextField from '@mui/material/TextField'
import { useTranslation } from 'react-i18next'
import { DateField } from '../../common/forms/DateField'
import { NumberField } from '../../common/forms/NumberField'
import { Row } from '../../common/ui/layout'
import type { Question } from './forms'
import { newRow, rowsFrom, ticked } from './model'

interface FieldProps {
  question: Question
  value: string
  problem: string | undefined
  onChange: (value: string) => void
}

/** One question of a guided record. */
export function QuestionField(props: FieldProps) {
  const { question, value, problem, onChange } = props
  switch (question.type) {
    case 'ticks':
      return <Ticks {...props} />
    case 'list':
      return <List {...props} />
    case 'date':
      return <DateField label={question.label} value={value} problem={problem} onChange={onChange} />
    case 'number':
      return (
        <NumberField
          label={question.label}
          unit={question.unit}
          text={value}
          problem={problem}
          onType={onChange}
        />
      )
    case 'choice':
      return <Choice {...props} />
  }
}

function Choice({ question, value, problem, onChange }: FieldProps) {
  return (
    <TextField
      select
      slotProps={{ inputLabel: { shrink: true } }}
      label={question.label}
      value={value}
      error={problem !== undefined}
      helperText={problem}
      onChange={(event) => {
        onChange(event.target.value)
      }}
    >
      {question.options.map((option) => (
        <MenuItem key={option.value} value={option.value}>
          {option.label}
        </MenuItem>
      ))}
    </TextField>
  )
}

/** A list to go through together; "none of these" is an answer of its own. */
function Ticks({ question, value, problem, onChange }: FieldProps) {
  const chosen = value === '' ? [] : value.split(',')
  return (
    <Box component="fieldset" sx={{ gridColumn: '1 / -1', border: 0, p: 0, m: 0 }}>
      <FormLabel component="legend" error={problem !== undefined}>
        {question.label}
      </FormLabel>
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', columnGap: 2 }}>
        {question.options.map((option) => (
          <FormControlLabel
            key={option.value}
            sx={{ gridColumn: option.value === 'none' ? '1 / -1' : 'auto', mr: 0 }}
            slotProps={{ typography: { sx: { fontSize: '0.92rem', lineHeight: 1.3 } } }}
            label={option.label}
            control={
              <Checkbox
                size="small"
                checked={chosen.includes(option.value)}
                onChange={() => {
                  onChange(ticked(value, option.value))
                }}
              />
            }
          />
        ))}
      </Box>
      {problem !== undefined && <FormHelperText error>{problem}</FormHelperText>}
    </Box>
  )
}

/** Things one by one; "there was none" is an answer of its own. */
function List({ question, value, problem, onChange }: FieldProps) {
  const { t } = useTranslation()
  const rows = rowsFrom(value)
  const change = (at: number, column: string, text: string) => {
    onChange(JSON.stringify(rows.map((row, k) => (k === at ? { ...row, [column]: text } : row))))
  }
  return (
    <Box component="fieldset" sx={{ gridColumn: '1 / -1', border: 0, p: 0, m: 0, display: 'grid', gap: 1 }}>
      <FormLabel component="legend" error={problem !== undefined} sx={{ mb: 1 }}>
        {question.label}
        {value === '[]' && `: ${t('limits.list.isNone')}`}
      </FormLabel>
      {rows.map((row, at) => (
        <Box
          key={at}
          sx={{
            display: 'grid',
            gridTemplateColumns: `repeat(${question.columns.length.toString()}, 1fr) 34px`,
            gap: 1,
          }}
        >
          {question.columns.map((column) => (
            <QuestionField
              key={column.name}
              question={column}
              value={row[column.name] ?? ''}
              problem={undefined}
              onChange={(text) => {
                change(at, column.name, text)
              }}
            />
          ))}
          <IconButton
            aria-label={t('limits.list.remove')}
            onClick={() => {
              onChange(JSON.stringify(rows.filter((_, k) => k !== at)))
            }}
          >
            ×
          </IconButton>
        </Box>
      ))}
      <Row align="stretch">
        <Button
          size="small"
          variant="outlined"
          onClick={() => {
            onChange(JSON.stringify([...rows, newRow(question)]))
          }}
        >
          {t('limits.list.add')}
        </Button>
        {rows.length === 0 && value !== '[]' && (
          <Button
            size="small"
            onClick={() => {
              onChange('[]')
            }}
          >
            {t('limits.list.none')}
          </Button>
        )}
      </Row>
      {problem !== undefined && <FormHelperText error>{problem}</FormHelperText>}
    </Box>
  )
}

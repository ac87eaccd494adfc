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
import { unitOf } from '../../common/forms/numbers'
import { type FractureDraft, fracturesFrom, type Question, ticked } from './model'

interface FieldProps {
  question: Question
  value: string
  problem: string | undefined
  onChange: (value: string) => void
}

/** One question of a guided record. */
export function QuestionField({ question, value, problem, onChange }: FieldProps) {
  const { t } = useTranslation()
  const label = t(`limits.facts.${question.name}` as 'limits.facts.date')
  if (question.type === 'ticks') {
    return <Ticks question={question} label={label} value={value} problem={problem} onChange={onChange} />
  }
  if (question.type === 'fractures') {
    return <Fractures label={label} value={value} problem={problem} onChange={onChange} />
  }
  const common = {
    label,
    value,
    error: problem !== undefined,
    helperText: problem,
    onChange: (event: { target: { value: string } }) => {
      onChange(event.target.value)
    },
  }
  if (question.type === 'choice') {
    return (
      <TextField select slotProps={{ inputLabel: { shrink: true } }} {...common}>
        {question.options?.map((option) => (
          <MenuItem key={option} value={option}>
            {t(`limits.values.${option}` as 'limits.values.yes')}
          </MenuItem>
        ))}
      </TextField>
    )
  }
  if (question.type === 'date') {
    return <DateField label={label} value={value} problem={problem} onChange={onChange} />
  }
  return (
    <NumberField
      label={label}
      unit={unitOf(question.name)}
      text={value}
      problem={problem}
      onType={onChange}
    />
  )
}

/** A list to go through together; "none of these" is an answer of its own. */
function Ticks({ question, label, value, problem, onChange }: FieldProps & { label: string }) {
  const { t } = useTranslation()
  const chosen = value === '' ? [] : value.split(',')
  return (
    <Box component="fieldset" sx={{ gridColumn: '1 / -1', border: 0, p: 0, m: 0 }}>
      <FormLabel component="legend" error={problem !== undefined}>
        {label}
      </FormLabel>
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', columnGap: 2 }}>
        {question.options?.map((option) => (
          <FormControlLabel
            key={option}
            sx={{ gridColumn: option === 'none' ? '1 / -1' : 'auto', mr: 0 }}
            slotProps={{ typography: { sx: { fontSize: '0.92rem', lineHeight: 1.3 } } }}
            label={t(`limits.ticks.${option}` as 'limits.ticks.none')}
            control={
              <Checkbox
                size="small"
                checked={chosen.includes(option)}
                onChange={() => {
                  onChange(ticked(value, option))
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

const BONES = ['vertebra', 'hip', 'upper_arm', 'pelvis', 'wrist', 'other'] as const

/** Fractures one by one; "there was none" is an answer of its own. */
function Fractures({
  label,
  value,
  problem,
  onChange,
}: {
  label: string
  value: string
  problem: string | undefined
  onChange: (value: string) => void
}) {
  const { t } = useTranslation()
  const rows = fracturesFrom(value)
  const change = (at: number, field: keyof FractureDraft, text: string) => {
    onChange(JSON.stringify(rows.map((row, k) => (k === at ? { ...row, [field]: text } : row))))
  }
  return (
    <Box component="fieldset" sx={{ gridColumn: '1 / -1', border: 0, p: 0, m: 0, display: 'grid', gap: 1 }}>
      <FormLabel component="legend" error={problem !== undefined}>
        {label}
        {value === '[]' && `: ${t('limits.noFracture')}`}
      </FormLabel>
      {rows.map((row, at) => (
        <Box key={at} sx={{ display: 'grid', gridTemplateColumns: '1fr 150px 1fr 34px', gap: 1 }}>
          <TextField
            select
            label={t('limits.fracture.bone')}
            value={row.bone}
            onChange={(event) => {
              change(at, 'bone', event.target.value)
            }}
          >
            {BONES.map((bone) => (
              <MenuItem key={bone} value={bone}>
                {t(`limits.bones.${bone}`)}
              </MenuItem>
            ))}
          </TextField>
          <DateField
            label={t('limits.fracture.date')}
            value={row.date}
            onChange={(date) => {
              change(at, 'date', date)
            }}
          />
          <TextField
            select
            label={t('limits.fracture.low_energy')}
            value={row.low_energy}
            onChange={(event) => {
              change(at, 'low_energy', event.target.value)
            }}
          >
            {(['yes', 'no', 'unknown'] as const).map((each) => (
              <MenuItem key={each} value={each}>
                {t(`limits.values.${each}`)}
              </MenuItem>
            ))}
          </TextField>
          <IconButton
            aria-label={t('limits.fracture.remove')}
            onClick={() => {
              onChange(JSON.stringify(rows.filter((_, k) => k !== at)))
            }}
          >
            ×
          </IconButton>
        </Box>
      ))}
      <Box sx={{ display: 'flex', gap: 1 }}>
        <Button
          size="small"
          variant="outlined"
          onClick={() => {
            onChange(JSON.stringify([...rows, { bone: 'vertebra', date: '', low_energy: 'unknown' }]))
          }}
        >
          {t('limits.fracture.add')}
        </Button>
        {rows.length === 0 && value !== '[]' && (
          <Button
            size="small"
            onClick={() => {
              onChange('[]')
            }}
          >
            {t('limits.fracture.none')}
          </Button>
        )}
      </Box>
      {problem !== undefined && <FormHelperText error>{problem}</FormHelperText>}
    </Box>
  )
}

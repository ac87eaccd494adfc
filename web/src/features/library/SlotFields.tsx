import Box from '@mui/material/Box'
import Checkbox from '@mui/material/Checkbox'
import FormControlLabel from '@mui/material/FormControlLabel'
import { useTranslation } from 'react-i18next'
import { Row } from '../../common/ui/layout'
import { FieldProblem, FigureField } from './FigureField'
import type { Slot } from './model'

interface Props {
  slot: Slot
  problem: string | undefined
  onChange: (part: Partial<Slot>) => void
}

/** What may be set of one slot: its span and where it starts, or which stacks may serve. */
export function SlotFields({ slot, problem, onChange }: Props) {
  return (
    <Box>
      <Row role="group" aria-label={slot.label} gap={1.5} wrap>
        <Box sx={{ width: 190 }}>{slot.label}</Box>
        {slot.type === 'stack' ? (
          <StackFields slot={slot} onChange={onChange} />
        ) : (
          <NumberFields slot={slot} onChange={onChange} />
        )}
      </Row>
      {problem !== undefined && <FieldProblem text={problem} />}
    </Box>
  )
}

type Fields = Omit<Props, 'problem'>

function NumberFields({ slot, onChange }: Fields) {
  const { t } = useTranslation()
  const unit = slot.type === 'angle' ? 'deg' : 'cm'
  const { plain } = slot
  return (
    <>
      {(['from', 'to', 'step'] as const).map((name) => (
        <FigureField
          key={name}
          label={t(`library.slot.${name}`)}
          unit={unit}
          value={slot[name] ?? 0}
          onChange={(value) => {
            onChange({ [name]: value })
          }}
        />
      ))}
      {typeof plain === 'object' && 'percent' in plain ? (
        <FigureField
          label={t('library.slot.percent')}
          unit="percent"
          value={plain.percent}
          onChange={(percent) => {
            onChange({ plain: { ...plain, percent } })
          }}
        />
      ) : (
        <FigureField
          label={t('library.slot.plain')}
          unit={unit}
          value={typeof plain === 'string' ? Number(plain) : plain}
          onChange={(value) => {
            onChange({ plain: value })
          }}
        />
      )}
    </>
  )
}

function StackFields({ slot, onChange }: Fields) {
  const { t } = useTranslation()
  const { base, between_cm: between, max_layers: layers, plain, required } = slot
  return (
    <>
      {between !== undefined &&
        ([0, 1] as const).map((end) => (
          <FigureField
            key={end}
            label={t(end === 0 ? 'library.slot.from' : 'library.slot.to')}
            unit="cm"
            value={between[end]}
            onChange={(value) => {
              onChange({ between_cm: end === 0 ? [value, between[1]] : [between[0], value] })
            }}
          />
        ))}
      <FigureField
        label={t('library.slot.layers')}
        value={layers ?? 1}
        onChange={(value) => {
          onChange({ max_layers: value })
        }}
      />
      {(typeof plain === 'number' || (typeof plain === 'object' && 'typed' in plain)) && (
        <FigureField
          label={t('library.slot.plain')}
          unit="cm"
          value={plain}
          onChange={(value) => {
            onChange({ plain: value })
          }}
        />
      )}
      <FormControlLabel
        label={t(base === 'chair' ? 'library.slot.neverBareChair' : 'library.slot.neverBareFloor')}
        control={
          <Checkbox
            size="small"
            checked={required ?? false}
            onChange={(_, checked) => {
              onChange({ required: checked })
            }}
          />
        }
      />
    </>
  )
}

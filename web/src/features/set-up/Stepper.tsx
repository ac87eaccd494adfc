import Box from '@mui/material/Box'
import IconButton from '@mui/material/IconButton'
import { useTranslation } from 'react-i18next'
import type { Schemas } from '../../api/client'
import { colours } from '../../app/theme'
import { stepTo, verdictAt } from './model'

interface Props {
  axis: Schemas['AxisOut']
  axes: Schemas['AxisOut'][]
  grid: Schemas['GridOut']
  indices: number[]
  at: number
  onStep: (index: number) => void
}

/** One slot. The buttons go only to what the room can build; a hatched one leads where a limit closes. */
export function Stepper({ axis, axes, grid, indices, at, onStep }: Props) {
  const { t } = useTranslation()
  const choice = axis.choices[indices[at] ?? 0]
  const unit = axis.kind === 'angle' ? '°' : ' cm'
  const number =
    choice?.number === null || choice?.number === undefined ? '' : `${choice.number.toFixed(0)}${unit}`
  const detail = choice?.label === '' || choice?.label === undefined ? '' : choice.label
  const button = (by: 1 | -1, sign: string, word: string) => {
    const index = stepTo(axes, grid, indices, at, by)
    const next =
      index === null
        ? null
        : verdictAt(
            grid,
            indices.map((each, k) => (k === at ? index : each)),
          )
    const closed = next === 'leave_out' || next === 'check_first'
    const label = `${axis.label}: ${word}${next !== null && closed ? ` (${t(`verdict.${next}`)})` : ''}`
    return (
      <IconButton
        size="small"
        disabled={index === null}
        aria-label={label}
        title={label}
        onClick={() => {
          if (index !== null) onStep(index)
        }}
        sx={{
          width: 30,
          height: 30,
          border: `1px solid ${colours.line}`,
          borderRadius: 1,
          fontSize: '1.05rem',
          color: colours.ink,
          backgroundImage: closed
            ? 'repeating-linear-gradient(-45deg, transparent 0 4px, #CFC5B0 4px 5px)'
            : 'none',
        }}
      >
        {sign}
      </IconButton>
    )
  }
  return (
    <Box
      sx={{
        display: 'flex',
        alignItems: 'center',
        gap: 0.5,
        py: 0.5,
        borderBottom: `1px solid ${colours.line}`,
        minHeight: 46,
      }}
    >
      <Box sx={{ flex: 1, lineHeight: 1.25, fontSize: '0.9rem' }}>
        <Box sx={{ color: 'text.secondary', fontSize: '0.84rem' }}>{axis.label}</Box>
        <strong>{axis.kind === 'stack' && choice?.number === 0 ? '' : number}</strong> {detail}
      </Box>
      {button(-1, '−', t('setUp.less'))}
      {button(1, '+', t('setUp.more'))}
    </Box>
  )
}

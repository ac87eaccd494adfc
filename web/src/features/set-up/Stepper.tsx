import Box from '@mui/material/Box'
import IconButton from '@mui/material/IconButton'
import { type ChangeEvent, type KeyboardEvent, useState } from 'react'
import { useTranslation } from 'react-i18next'
import type { Schemas } from '../../api/client'
import { colours } from '../../app/theme'
import { nearestTo, stepTo, verdictAt } from './model'

interface Props {
  axis: Schemas['AxisOut']
  axes: Schemas['AxisOut'][]
  grid: Schemas['GridOut']
  indices: number[]
  at: number
  onStep: (index: number) => void
}

/** One slot; its figure may be typed, and the nearest that can be built is taken. The buttons go only to what the room can build; a hatched one leads where a limit closes. */
export function Stepper({ axis, axes, grid, indices, at, onStep }: Props) {
  const { t } = useTranslation()
  const [typed, setTyped] = useState<string | null>(null)
  const choice = axis.choices[indices[at] ?? 0]
  const unit = axis.kind === 'angle' ? 'deg' : 'cm'
  const none = axis.kind === 'stack' && choice?.number === 0
  const number =
    choice?.number === null || choice?.number === undefined || none
      ? ''
      : t(`common.amount.${unit}`, { value: choice.number.toFixed(0) })
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
  const take = () => {
    const wanted = Number((typed ?? '').replace(',', '.'))
    if (typed !== null && typed.trim() !== '' && Number.isFinite(wanted)) {
      onStep(nearestTo(axes, grid, indices, at, wanted))
    }
    setTyped(null)
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
        {typed === null ? (
          <strong>
            {number !== '' && axis.choices.length > 2 ? (
              <Box
                component="button"
                type="button"
                title={t('setUp.typeFigure')}
                aria-label={`${axis.label}: ${number}, ${t('setUp.typeFigure')}`}
                onClick={() => {
                  setTyped('')
                }}
                sx={{
                  font: 'inherit',
                  color: 'inherit',
                  bgcolor: 'transparent',
                  border: 0,
                  borderBottom: `1px dotted ${colours.muted}`,
                  p: 0,
                  cursor: 'text',
                }}
              >
                {number}
              </Box>
            ) : (
              number
            )}
          </strong>
        ) : (
          <Box
            component="input"
            autoFocus
            inputMode="decimal"
            aria-label={`${axis.label}${unit}`}
            value={typed}
            placeholder={number}
            onChange={(event: ChangeEvent<HTMLInputElement>) => {
              setTyped(event.target.value)
            }}
            onBlur={take}
            onKeyDown={(event: KeyboardEvent) => {
              if (event.key === 'Enter') take()
              if (event.key === 'Escape') setTyped(null)
            }}
            sx={{ font: 'inherit', width: 64 }}
          />
        )}{' '}
        {detail}
      </Box>
      {/* What only lies at the body comes as it does: there is nothing to step through. */}
      {axis.choices.length > 1 && (
        <>
          {button(-1, '−', t('setUp.less'))}
          {button(1, '+', t('setUp.more'))}
        </>
      )}
    </Box>
  )
}

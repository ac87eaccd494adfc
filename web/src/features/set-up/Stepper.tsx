import Box from '@mui/material/Box'
import IconButton from '@mui/material/IconButton'
import InputBase from '@mui/material/InputBase'
import { type KeyboardEvent, useId, useState } from 'react'
import { useTranslation } from 'react-i18next'
import type { Schemas } from '../../api/client'
import { type Unit, numberIn } from '../../common/forms/numbers'
import { length } from '../../common/practice'
import { HIDDEN } from '../../common/ui/Hidden'
import { hatching } from '../../theme/theme'
import { nearestTo, stepTo, verdictWith } from './model'

interface Props {
  axis: Schemas['AxisOut']
  axes: Schemas['AxisOut'][]
  grid: Schemas['GridOut']
  indices: number[]
  at: number
  onStep: (index: number) => void
}

/**
 * One slot as a spinbutton: arrows and buttons go only to what the room can build, and its figure may be typed: the
 * nearest that can be built is taken. A hatched button leads where a limit closes.
 */
export function Stepper({ axis, axes, grid, indices, at, onStep }: Props) {
  const { t } = useTranslation()
  const [typed, setTyped] = useState<string | null>(null)
  const [told, setTold] = useState('')
  const id = useId()
  const place = indices[at] ?? 0
  const choice = axis.choices[place]
  const unit: Unit = axis.kind === 'angle' ? 'deg' : 'cm'
  const shown = (each: Schemas['ChoiceOut'] | undefined): [string, string] => {
    const none = axis.kind === 'stack' && each?.number === 0
    const number =
      each?.number === null || each?.number === undefined || none
        ? ''
        : unit === 'deg'
          ? t('common.amount.deg', { value: each.number.toFixed(0) })
          : length(t, each.number)
    return [number, each?.label ?? '']
  }
  const [number, detail] = shown(choice)
  const whole = (each: Schemas['ChoiceOut'] | undefined) => shown(each).filter(Boolean).join(', ')
  const go = (index: number) => {
    onStep(index)
    const verdict = verdictWith(grid, indices, at, index)
    setTold([whole(axis.choices[index]), verdict === null ? '' : t(`verdict.${verdict}`)].join(', '))
  }
  const step = (by: 1 | -1) => {
    const index = stepTo(axes, grid, indices, at, by)
    if (index !== null) go(index)
  }
  const take = () => {
    const wanted = typed === null ? undefined : numberIn(typed, unit)
    if (wanted !== undefined) go(nearestTo(axes, grid, indices, at, wanted))
    setTyped(null)
  }
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key === 'ArrowUp') step(1)
    else if (event.key === 'ArrowDown') step(-1)
    else if (event.key === 'Enter') take()
    else if (event.key === 'Escape') setTyped(null)
    else return
    event.preventDefault()
  }
  const button = (by: 1 | -1, sign: string, word: string) => {
    const index = stepTo(axes, grid, indices, at, by)
    const next = index === null ? null : verdictWith(grid, indices, at, index)
    const closed = next === 'leave_out' || next === 'check_first'
    return (
      <IconButton
        disabled={index === null}
        aria-label={`${axis.label}: ${word}${closed ? ` (${t(`verdict.${next}`)})` : ''}`}
        // Arrow keys in the field do the same.
        tabIndex={-1}
        onClick={() => {
          step(by)
        }}
        sx={{
          width: 44,
          height: 44,
          flex: 'none',
          border: 1,
          borderColor: index === null ? 'divider' : 'surface.field',
          borderRadius: 1,
          fontSize: '1.15rem',
          color: 'text.primary',
          backgroundImage: closed ? hatching(4) : 'none',
        }}
      >
        {sign}
      </IconButton>
    )
  }
  const only = axis.choices.length < 2
  const canType = number !== '' && axis.choices.length > 2
  return (
    <Box
      sx={{
        display: 'flex',
        alignItems: 'center',
        gap: 0.5,
        py: 0.5,
        borderBottom: 1,
        borderColor: 'divider',
        minHeight: 46,
        // Less left of right in every language: a stepper is no text.
        direction: 'ltr',
      }}
    >
      <Box sx={{ flex: 1, minWidth: 0, lineHeight: 1.25, fontSize: '0.9rem' }}>
        <Box
          component="label"
          htmlFor={id}
          sx={{ display: 'block', color: 'text.secondary', fontSize: '0.84rem' }}
        >
          {axis.label}
        </Box>
        {only ? (
          <strong>{number}</strong>
        ) : (
          <InputBase
            id={id}
            value={typed ?? (number === '' ? detail : number)}
            readOnly={!canType}
            onFocus={(event) => {
              if (canType) event.target.select()
            }}
            onChange={(event) => {
              setTyped(event.target.value)
            }}
            onBlur={take}
            onKeyDown={onKeyDown}
            slotProps={{
              input: {
                role: 'spinbutton',
                inputMode: 'decimal',
                'aria-valuenow': place,
                'aria-valuemin': 0,
                'aria-valuemax': axis.choices.length - 1,
                'aria-valuetext': whole(choice),
                size: Math.max(5, (number === '' ? detail : number).length),
              },
            }}
            sx={{
              font: 'inherit',
              maxWidth: '100%',
              '& input': {
                p: 0,
                height: 24,
                fontWeight: 700,
                fontFamily: 'inherit',
                borderBottom: canType ? '1px dotted' : 0,
                borderColor: 'text.secondary',
                fieldSizing: 'content',
              },
              '&.Mui-focused': { outline: '3px solid var(--focus)', outlineOffset: 1 },
            }}
          />
        )}
        {number !== '' && detail !== '' && <div>{detail}</div>}
        {only && number === '' && detail}
        <Box component="span" role="status" sx={HIDDEN}>
          {told}
        </Box>
      </Box>
      {/* What only lies at the body comes as it does: there is nothing to step through. */}
      {!only && (
        <>
          {button(-1, '−', t('setUp.less'))}
          {button(1, '+', t('setUp.more'))}
        </>
      )}
    </Box>
  )
}

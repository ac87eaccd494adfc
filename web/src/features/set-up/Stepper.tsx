import ButtonBase from '@mui/material/ButtonBase'
import { styled } from '@mui/material/styles'
import { type KeyboardEvent, useId, useState } from 'react'
import { useTranslation } from 'react-i18next'
import type { Schemas } from '../../api/client'
import { type Unit, numberIn } from '../../common/forms/numbers'
import { length } from '../../common/practice'
import { HIDDEN } from '../../common/ui/Hidden'
import { colours, hatching } from '../../theme/theme'
import { nearestTo, stepTo, verdictWith } from './model'

interface Props {
  axis: Schemas['AxisOut']
  axes: Schemas['AxisOut'][]
  grid: Schemas['GridOut']
  indices: number[]
  at: number
  onStep: (index: number) => void
}

/** The look of a slot, told once: all of a lane are drawn anew at every step. */
const Slot = styled('div')(({ theme }) => ({
  display: 'flex',
  alignItems: 'center',
  gap: theme.spacing(0.5),
  paddingBlock: theme.spacing(0.5),
  borderBottom: `1px solid ${colours.line}`,
  minHeight: 46,
  // Less left of right in every language: a stepper is no text.
  direction: 'ltr',
  '& .words': { flex: 1, minWidth: 0, lineHeight: 1.25, fontSize: '0.9rem' },
  '& label': { display: 'block', color: colours.muted, fontSize: '0.84rem' },
  '& input': {
    font: 'inherit',
    fontWeight: 700,
    color: 'inherit',
    background: 'none',
    border: 0,
    borderBottom: `1px dotted ${colours.muted}`,
    padding: 0,
    height: 24,
    maxWidth: '100%',
    fieldSizing: 'content',
    '&:read-only': { borderBottom: 0 },
    '&:focus-visible': { outline: '3px solid var(--focus)', outlineOffset: 1 },
  },
  '& button': {
    width: 44,
    height: 44,
    flex: 'none',
    border: `1px solid ${theme.vars?.palette.surface.field ?? ''}`,
    borderRadius: theme.shape.borderRadius,
    fontSize: '1.15rem',
    '&:disabled': { borderColor: colours.line, opacity: 0.5 },
    '&.closed': { backgroundImage: hatching(4) },
  },
}))

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
      <ButtonBase
        disabled={index === null}
        aria-label={`${axis.label}: ${word}${closed ? ` (${t(`verdict.${next}`)})` : ''}`}
        // Arrow keys in the field do the same.
        tabIndex={-1}
        onClick={() => {
          step(by)
        }}
        className={closed ? 'closed' : ''}
      >
        {sign}
      </ButtonBase>
    )
  }
  const only = axis.choices.length < 2
  const canType = number !== '' && axis.choices.length > 2
  return (
    <Slot>
      <div className="words">
        <label htmlFor={id}>{axis.label}</label>
        {only ? (
          <strong>{number}</strong>
        ) : (
          <input
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
            role="spinbutton"
            inputMode="decimal"
            aria-valuenow={place}
            aria-valuemin={0}
            aria-valuemax={axis.choices.length - 1}
            aria-valuetext={whole(choice)}
            size={Math.max(5, (number === '' ? detail : number).length)}
          />
        )}
        {number !== '' && detail !== '' && <div>{detail}</div>}
        {only && number === '' && detail}
        <span role="status" style={HIDDEN}>
          {told}
        </span>
      </div>
      {/* What only lies at the body comes as it does: there is nothing to step through. */}
      {!only && (
        <>
          {button(-1, '−', t('setUp.less'))}
          {button(1, '+', t('setUp.more'))}
        </>
      )}
    </Slot>
  )
}

import ButtonBase from '@mui/material/ButtonBase'
import { styled } from '@mui/material/styles'
import { useTranslation } from 'react-i18next'
import type { Schemas } from '../../api/client'
import { colours } from '../../theme/theme'

const Found = styled('div')(({ theme }) => ({
  display: 'flex',
  flexWrap: 'wrap',
  gap: theme.spacing(0.75),
  marginTop: theme.spacing(0.75),
  '& button': {
    border: `1px solid ${colours.line}`,
    borderRadius: theme.shape.borderRadius,
    backgroundColor: 'var(--asketa-palette-background-paper)',
    padding: theme.spacing(0.5, 1),
    minHeight: 44,
    flexDirection: 'column',
    alignItems: 'flex-start',
    justifyContent: 'center',
    textAlign: 'left',
    fontSize: '0.88rem',
    lineHeight: 1.25,
  },
  '& button[aria-pressed=true]': { border: `2px solid ${colours.ink}`, paddingInline: 7 },
  '& .gives': { color: colours.muted, fontSize: '0.84rem' },
}))

interface Props {
  options: Schemas['OptionOut'][]
  chosen: number[]
  onChoose: (indices: number[]) => void
}

/** The best few set-ups found, each with what it trades in words; where schools differ, with what is left to the back. */
export function Options({ options, chosen, onChoose }: Props) {
  const { t } = useTranslation()
  if (options.length < 2) return null
  return (
    <Found role="group" aria-label={t('setUp.options')}>
      {options.map((option) => {
        const { purpose_percent, index } = option.detail
        const value = `${Math.max(0, Math.round(option.spine_deg / 5) * 5).toString()}°`
        const gives = [
          option.words === '' ? t('setUp.nothingToFetch') : option.words,
          purpose_percent === null ? '' : `${t('setUp.purpose')} ${purpose_percent.toFixed(0)} %`,
        ]
        return (
          <ButtonBase
            key={option.trade}
            aria-pressed={index.every((each, place) => each === chosen[place])}
            onClick={() => {
              onChoose(index)
            }}
          >
            <strong>
              {option.school ? t('setUp.rounding', { what: option.trade, value }) : option.trade}
            </strong>
            <span className="gives">{gives.filter(Boolean).join(' · ')}</span>
          </ButtonBase>
        )
      })}
    </Found>
  )
}

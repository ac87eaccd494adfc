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
    minHeight: 34,
    fontSize: '0.88rem',
    lineHeight: 1.25,
    [theme.breakpoints.down('lg')]: { minHeight: 44 },
  },
  '& button[aria-pressed=true]': { border: `2px solid ${colours.ink}`, paddingInline: 7 },
  '& .gives': { color: colours.muted, marginLeft: theme.spacing(0.75), fontVariantNumeric: 'tabular-nums' },
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
        const what = option.words === '' ? t('setUp.nothingToFetch') : option.words
        const keeps = purpose_percent === null ? '' : `${t('setUp.purpose')} ${purpose_percent.toFixed(0)} %`
        return (
          <ButtonBase
            key={option.trade}
            title={[what, keeps].filter(Boolean).join(' · ')}
            aria-pressed={index.every((each, place) => each === chosen[place])}
            onClick={() => {
              onChoose(index)
            }}
          >
            <strong>
              {option.school ? t('setUp.rounding', { what: option.trade, value }) : option.trade}
            </strong>
            {purpose_percent !== null && <span className="gives">{purpose_percent.toFixed(0)} %</span>}
          </ButtonBase>
        )
      })}
    </Found>
  )
}

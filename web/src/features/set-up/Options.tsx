import Box from '@mui/material/Box'
import ButtonBase from '@mui/material/ButtonBase'
import { useTranslation } from 'react-i18next'
import type { Schemas } from '../../api/client'
import { colours } from '../../theme/theme'

interface Props {
  options: Schemas['OptionOut'][]
  chosen: number[]
  onChoose: (indices: number[]) => void
}

/** The best few set-ups found, each with what it trades. */
export function Options({ options, chosen, onChoose }: Props) {
  const { t } = useTranslation()
  return (
    <Box
      role="group"
      aria-label={t('setUp.options')}
      sx={{
        display: 'grid',
        gridTemplateColumns: 'repeat(auto-fit, minmax(132px, 1fr))',
        gap: 0.75,
        mt: 1,
      }}
    >
      {options.map((option) => {
        const on = option.detail.index.every((index, k) => index === chosen[k])
        return (
          <ButtonBase
            key={option.trade}
            aria-pressed={on}
            onClick={() => {
              onChoose(option.detail.index)
            }}
            sx={{
              display: 'flex',
              flexDirection: 'column',
              alignItems: 'stretch',
              justifyContent: 'flex-start',
              textAlign: 'left',
              border: on ? `2px solid ${colours.ink}` : `1px solid ${colours.line}`,
              bgcolor: 'background.paper',
              borderRadius: 1,
              p: 0.9,
              fontSize: '0.84rem',
              lineHeight: 1.32,
              verticalAlign: 'top',
            }}
          >
            <strong>{option.trade}</strong>
            <div>{option.words === '' ? t('setUp.nothingToFetch') : option.words}</div>
            <Box sx={{ color: 'text.secondary' }}>
              {t('setUp.purpose')} {option.detail.purpose_percent?.toFixed(0) ?? '–'} %
              {option.school && (
                <div>
                  {t('setUp.spineLeft', { value: Math.max(0, Math.round(option.spine_deg / 5) * 5) })}
                </div>
              )}
            </Box>
          </ButtonBase>
        )
      })}
    </Box>
  )
}

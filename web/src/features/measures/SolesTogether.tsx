import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Typography from '@mui/material/Typography'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import type { Side } from '../../api/client'
import { NumberField } from '../../common/forms/NumberField'
import { laneColour } from '../../theme/theme'
import { Row } from '../../common/ui/layout'
import { type TapeReading, tapeFrom } from './model'
import { useTurnedOut } from './queries'

interface Props {
  onUse: (side: Side, reading: TapeReading) => void
}

/** Sitting with the soles together: knee heights by tape, turned into the open turning-out on the spot. */
export function SolesTogether({ onUse }: Props) {
  const { t } = useTranslation()
  const [typed, setTyped] = useState<Record<string, string>>({})
  const field = (name: string, label: string) => (
    <NumberField
      label={label}
      unit="cm"
      text={typed[name] ?? ''}
      onType={(text) => {
        setTyped({ ...typed, [name]: text })
      }}
      sx={{ width: 138 }}
    />
  )
  const knee = (side: Side) => field(`knee.${side}`, t('measures.soles.knee', { side: t(`side.${side}`) }))
  return (
    <Box
      component="section"
      aria-label={t('measures.soles.title')}
      sx={{
        display: 'grid',
        gridTemplateColumns: { xs: '1fr', md: '1fr 270px 1fr' },
        gap: 1.5,
        alignItems: 'start',
        pt: 2,
      }}
    >
      <Box
        sx={{
          display: 'flex',
          flexWrap: 'wrap',
          gap: 1.5,
          justifyContent: { md: 'flex-end' },
          alignItems: 'flex-start',
        }}
      >
        <Answer side="left" typed={typed} onUse={onUse} />
        {knee('left')}
      </Box>
      <Box sx={{ textAlign: 'center', px: 1 }}>
        <Box sx={{ fontWeight: 600 }}>{t('measures.soles.title')}</Box>
        <Box sx={{ fontSize: '0.8rem', color: 'text.secondary', lineHeight: 1.3, mb: 1.25 }}>
          {t('measures.soles.how')}
        </Box>
        <Row wrap align="stretch" justify="center">
          {field('foot', t('measures.soles.foot'))}
          {field('seat', t('measures.soles.seat'))}
        </Row>
      </Box>
      <Row gap={1.5} wrap align="flex-start">
        {knee('right')}
        <Answer side="right" typed={typed} onUse={onUse} />
      </Row>
    </Box>
  )
}

function Answer({ side, typed, onUse }: Props & { side: Side; typed: Record<string, string> }) {
  const { t } = useTranslation()
  const tape = tapeFrom(side, typed)
  const turned = useTurnedOut(tape)
  if (tape === null) return null
  if (turned.isError) {
    return <Typography sx={{ maxWidth: 220, fontSize: '0.85rem' }}>{turned.error.message}</Typography>
  }
  if (turned.data === undefined) return null
  const { value_deg, error_deg } = turned.data
  return (
    <Box sx={{ textAlign: side === 'left' ? 'right' : 'left', color: laneColour(side) }}>
      <strong>
        {t('measures.soles.gives', { value: value_deg.toFixed(0), error: error_deg.toFixed(0) })}
      </strong>
      <div>
        <Button
          size="small"
          variant="outlined"
          onClick={() => {
            onUse(side, {
              text: value_deg.toFixed(0),
              error: Math.max(1, error_deg),
              conditions: {
                knee_height_cm: tape.knee_height_cm,
                foot_distance_cm: tape.foot_distance_cm,
                seat_height_cm: tape.seat_height_cm,
              },
            })
          }}
        >
          {t('measures.soles.use')}
        </Button>
      </div>
    </Box>
  )
}

import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import { useTranslation } from 'react-i18next'
import type { Lane, Schemas } from '../../api/client'
import { laneColour } from '../../theme/theme'

interface Props {
  side: Lane
  holds: Schemas['ItemOut'][]
  onCorrect: (hold: Schemas['ItemOut']) => void
}

/** Today's holds of one side in their order, each with its own rung, and the way to correct it. */
export function LoggedHolds({ side, holds, onCorrect }: Props) {
  const { t } = useTranslation()
  if (holds.length === 0) return null
  return (
    <Box
      component="ol"
      aria-label={t('mat.loggedToday', { side: t(`side.${side}`) })}
      sx={{ listStyle: 'none', m: 0, p: 0, display: 'grid', gap: 0.5 }}
    >
      {holds.map((hold) => (
        <Box
          component="li"
          key={hold.id}
          sx={{
            border: `1px solid ${laneColour(side)}`,
            borderRadius: 1,
            px: 1.25,
            py: 0.5,
            display: 'flex',
            alignItems: 'center',
            gap: 1,
          }}
        >
          <Box sx={{ flex: 1, lineHeight: 1.25, fontSize: '0.95rem' }}>
            <strong>✓ {hold.short}</strong>,{' '}
            {hold.held_s === null ? hold.dose : t('mat.held', { held: hold.held_s, dose: hold.dose })}
            <div>
              {scoresOf(hold, t('mat.during'), t('mat.after'))} → {t(`mat.tolerance.${hold.tolerance}`)}
            </div>
          </Box>
          <Button
            variant="outlined"
            color="inherit"
            onClick={() => {
              onCorrect(hold)
            }}
          >
            {t('mat.correct')}
          </Button>
        </Box>
      ))}
    </Box>
  )
}

/** 'during 3, after 1'; what nobody said is left out. */
export function scoresOf(
  hold: Pick<Schemas['ItemOut'], 'during' | 'after'>,
  during: string,
  after: string,
): string {
  const said = `${during} ${hold.during.toString()}`
  return hold.after === null ? said : `${said}, ${after} ${hold.after.toString()}`
}

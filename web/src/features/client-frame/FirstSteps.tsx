import Button from '@mui/material/Button'
import { styled } from '@mui/material/styles'
import { useTranslation } from 'react-i18next'
import { Link } from 'react-router'
import type { Schemas } from '../../api/client'
import { useClientPath } from '../../common/route'
import { addressOf, stopScreen, useScreen } from '../../common/screens'
import { colours } from '../../theme/theme'

type Stop = Schemas['StopOut']['stop']

/** Stops a new client is led over, each with the one after it. */
const NEXT: Partial<Record<Stop, Stop>> = {
  limits: 'measures',
  measures: 'choose',
  choose: 'plan',
  set_up: 'plan',
}

const Line = styled('aside')(({ theme }) => ({
  display: 'flex',
  flexWrap: 'wrap',
  alignItems: 'center',
  justifyContent: 'space-between',
  gap: theme.spacing(0.5, 2),
  marginBottom: theme.spacing(1.5),
  padding: theme.spacing(0.75, 1.5),
  borderLeft: `4px solid ${colours.accent}`,
  backgroundColor: theme.vars?.palette.surface.panel,
  fontSize: '0.92rem',
  lineHeight: 1.4,
  '& p': { margin: 0, maxWidth: 720 },
}))

/** With somebody who was never on the mat: what to do at this stop and why, and the way to the next. */
export function FirstSteps({ band }: { band: readonly Schemas['StopOut'][] }) {
  const { t } = useTranslation()
  const { practice_id, client_id } = useClientPath()
  const here = useScreen()?.stop
  const next = here === undefined ? undefined : NEXT[here]
  const isNew = band.some(({ stop, state }) => stop === 'responses' && state === 'open')
  if (!isNew || next === undefined) return null
  return (
    <Line aria-label={t('first.label')}>
      <p>{t(`first.${here as 'limits' | 'measures' | 'choose' | 'set_up'}`)}</p>
      <Button
        component={Link}
        size="small"
        variant="outlined"
        to={addressOf(stopScreen(next), practice_id, client_id)}
      >
        {t('first.next', { stop: t(`band.${next}`) })}
      </Button>
    </Line>
  )
}

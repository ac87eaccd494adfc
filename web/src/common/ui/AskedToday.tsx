import { styled } from '@mui/material/styles'
import { useTranslation } from 'react-i18next'
import type { Lane, Schemas } from '../../api/client'
import { laneColour } from '../../theme/theme'
import { useDaily } from '../daily'
import { useClientPath } from '../route'
import { Scores } from './Scores'
import { Refused } from './States'

const Small = styled('div')(({ theme }) => ({
  margin: theme.spacing(0.75, 0),
  '& .what': { fontWeight: 700, fontSize: '0.92rem', lineHeight: 1.3, marginBottom: 3 },
  '& [role="group"]': { gap: 4 },
  '& button': { minHeight: 30, minWidth: 29, padding: 0, fontSize: '0.92rem' },
}))

/** How a sore joint is today, answered in one touch where it decides something. */
export function AskedToday({ asked }: { asked: Schemas['AskedOut'] }) {
  const { t } = useTranslation()
  const path = useClientPath()
  const daily = useDaily()
  const { entry_id, label, side, pain_today, irritable } = asked
  const lane: Lane = side ?? 'both'
  const words = t('mind.painToday', { what: label })
  return (
    <Small>
      <div className="what" style={{ color: laneColour(lane) }} aria-hidden>
        {words}
      </div>
      <Scores
        side={lane}
        of={{ words }}
        value={daily.isPending ? (daily.variables.body.pain_today ?? null) : pain_today}
        named={(score) => t('mat.arrival.painIs', { score, what: label })}
        onScore={(score) => {
          if (daily.isPending) return
          daily.mutate({ params: { path: { ...path, entry_id } }, body: { pain_today: score, irritable } })
        }}
      />
      <Refused error={daily.error} />
    </Small>
  )
}

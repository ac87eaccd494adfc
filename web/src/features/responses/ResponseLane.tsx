import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Typography from '@mui/material/Typography'
import { useId, useState } from 'react'
import { useTranslation } from 'react-i18next'
import type { Lane, Schemas } from '../../api/client'
import { shortDate } from '../../common/dates'
import { useClientPath } from '../../common/route'
import { useMayWrite } from '../../common/session'
import { SideHead } from '../../common/ui/SideHead'
import { DecideDialog } from './DecideDialog'
import type { Span } from './model'
import { ResponseChart } from './ResponseChart'
import { laneColour } from '../../theme/theme'

interface Props {
  family: Pick<Schemas['ResponseFamily'], 'family' | 'name'>
  lane: Schemas['ResponseLane']
  name: Lane
  rungs: Schemas['RungName'][]
  allowed: number
  span: Span
}

/** One side over time, the decision for next time, and what would change it. */
export function ResponseLane({ family, lane, name, rungs, allowed, span }: Props) {
  const { t } = useTranslation()
  const { practice_id } = useClientPath()
  const mayWrite = useMayWrite(practice_id)
  const [deciding, setDeciding] = useState(false)
  return (
    <Box sx={{ borderTop: `5px solid ${laneColour(name)}`, pt: 0.75 }}>
      <SideHead side={name} />
      {lane.points.length === 0 ? (
        <Typography color="text.secondary">{t('responses.noneOnSide')}</Typography>
      ) : (
        <>
          <Typography variant="small">{t('responses.legend')}</Typography>
          <ResponseChart lane={lane} name={name} rungs={rungs} allowed={allowed} span={span} />
          <Counts trend={lane.trend} />
          <Typography sx={{ fontSize: '0.95rem', lineHeight: 1.4 }}>
            <strong>{t('responses.next')}:</strong> {lane.decision.reason}
          </Typography>
          <Typography variant="note">
            {t('responses.wouldChange')}
            {lane.change}
          </Typography>
          {mayWrite && (
            <Button
              size="small"
              variant="outlined"
              sx={{ mt: 0.75 }}
              onClick={() => {
                setDeciding(true)
              }}
            >
              {t('responses.decide.open')}
            </Button>
          )}
        </>
      )}
      {lane.trials.length > 0 && <Trials trials={lane.trials} />}
      {deciding && (
        <DecideDialog
          family={family}
          lane={name}
          own={lane.decision.own}
          onClose={() => {
            setDeciding(false)
          }}
        />
      )}
    </Box>
  )
}

/** What was tried both ways, the latest first, and which was kept. */
function Trials({ trials }: { trials: Schemas['TrialOut'][] }) {
  const { t } = useTranslation()
  const heading = useId()
  return (
    <div>
      <Typography variant="note" component="p" id={heading} sx={{ mt: 0.5 }}>
        {t('responses.tried.title')}
      </Typography>
      <ul
        aria-labelledby={heading}
        style={{ margin: 0, paddingLeft: 18, lineHeight: 1.4, fontSize: '0.95rem' }}
      >
        {trials.map((each) => (
          <li key={each.id}>
            {t('responses.tried.line', {
              date: shortDate(each.date),
              what: each.label,
              kept: each.kept,
              feltKept: each.felt_kept,
              other: each.other,
              feltOther: each.felt_other,
            })}
          </li>
        ))}
      </ul>
    </div>
  )
}

/** What all the sessions of a side come to. */
function Counts({ trend }: { trend: Schemas['TrendOut'] }) {
  const { t } = useTranslation()
  return (
    <div style={{ lineHeight: 1.4, marginBottom: 6, fontSize: '0.95rem' }}>
      <strong>{t('responses.counts.calm', { count: trend.calm_in_a_row })}</strong>
      {' · '}
      {t('responses.counts.flares', { count: trend.flares })}
      {' · '}
      {t('responses.counts.sessions', { count: trend.sessions })}
      {trend.furthest !== '' && (
        <div>
          {t('responses.counts.furthest')} {trend.furthest}
        </div>
      )}
      <Typography variant="note">{trend.slope}</Typography>
    </div>
  )
}

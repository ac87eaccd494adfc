import Button from '@mui/material/Button'
import { styled } from '@mui/material/styles'
import Typography from '@mui/material/Typography'
import { useTranslation } from 'react-i18next'
import { Link } from 'react-router'
import type { Lane, Schemas } from '../../api/client'
import { timeOfDay } from '../../common/dates'
import { useClientPath } from '../../common/route'
import { addressOf, screenById } from '../../common/screens'
import { Row } from '../../common/ui/layout'
import { VisitNote } from '../../common/ui/VisitNote'
import { colours, laneColour, serif } from '../../theme/theme'
import { scoresOf } from './LoggedHolds'
import { lanesOf, partOf } from './road'

const Page = styled('div')(({ theme }) => ({
  overflowY: 'auto',
  padding: theme.spacing(2, 2.5, 3),
  width: '100%',
  maxWidth: 980,
  marginInline: 'auto',
  '& h2': { fontFamily: serif, fontSize: '1.6rem', fontWeight: 600, margin: 0 },
  '& h3': { fontFamily: serif, fontSize: '1.15rem', fontWeight: 600, margin: 0 },
  '& section': { borderTop: `1px solid ${colours.line}`, padding: theme.spacing(1.25, 0) },
  '& .lanes': {
    display: 'grid',
    direction: 'ltr',
    gap: theme.spacing(2),
    gridTemplateColumns: 'repeat(2, minmax(0, 1fr))',
  },
  '& .lane': { borderLeft: '3px solid var(--lane)', paddingLeft: theme.spacing(1.25), lineHeight: 1.4 },
  '& .lane > strong': { color: 'var(--lane)' },
}))

interface Props {
  mat: Schemas['MatOut']
  onBack: () => void
}

/** The end of a visit: what was done on each side and what follows, and on to the responses. */
export function Summary({ mat, onBack }: Props) {
  const { t } = useTranslation()
  const { practice_id, client_id } = useClientPath()
  return (
    <Page>
      <Row wrap gap={1.5} align="baseline">
        <h2>{t('mat.summary.title')}</h2>
      </Row>
      {mat.families.map((family) => (
        <section key={family.family} aria-label={family.name}>
          <h3>{family.name}</h3>
          <div className="lanes">
            {lanesOf(family).map((lane) => (
              <LaneEnd key={lane} lane={lane} part={partOf(family, lane)} />
            ))}
          </div>
        </section>
      ))}
      {mat.incidents.map(({ at, text }) => (
        <section key={at} aria-label={t('mat.card.incident')}>
          <h3>
            {t('mat.card.incident')}, {timeOfDay(new Date(at).getTime())}
          </h3>
          <div translate="no">{text}</div>
        </section>
      ))}
      <VisitNote date={mat.date} notes={mat.notes} />
      <Row wrap gap={1.5} style={{ marginTop: 16 }}>
        <Button
          component={Link}
          to={addressOf(screenById('responses'), practice_id, client_id)}
          variant="contained"
          size="large"
        >
          {t('mat.summary.toResponses')}
        </Button>
        <Button variant="outlined" size="large" onClick={onBack}>
          {t('mat.summary.back')}
        </Button>
        <Button component={Link} to={addressOf(screenById('today'), practice_id)} size="large">
          {t('mat.summary.toToday')}
        </Button>
      </Row>
    </Page>
  )
}

function LaneEnd({ lane, part }: { lane: Lane; part: Schemas['MatSide'] | null }) {
  const { t } = useTranslation()
  if (part === null) return null
  return (
    <div className="lane" style={{ '--lane': laneColour(lane) } as object}>
      <strong>{t(`side.${lane}`)}</strong>
      {part.logged_today.length === 0 && <div>{t('mat.summary.notDone')}</div>}
      {part.logged_today.map((hold) => (
        <div key={hold.id}>
          {hold.short},{' '}
          {hold.held_s === null ? hold.dose : t('mat.held', { held: hold.held_s, dose: hold.dose })}:{' '}
          {scoresOf(hold, t('mat.during'), t('mat.after'))} → {t(`mat.tolerance.${hold.tolerance}`)}
        </div>
      ))}
      {part.logged_today.length > 0 && (
        <Typography variant="note">
          {t('responses.next')}: {part.decision.reason}
        </Typography>
      )}
    </div>
  )
}

import Button from '@mui/material/Button'
import { styled } from '@mui/material/styles'
import Typography from '@mui/material/Typography'
import { useTranslation } from 'react-i18next'
import { Link, useNavigate } from 'react-router'
import type { Lane, Schemas } from '../../api/client'
import { clockTime } from '../../common/dates'
import { usePracticeId } from '../../common/route'
import { addressOf, screenById } from '../../common/screens'
import { Rest, Row } from '../../common/ui/layout'
import { Refused } from '../../common/ui/States'
import { colours, laneColour, serif } from '../../theme/theme'
import { type Next, nextStop } from './model'
import { Outlook } from './Outlook'
import { useSameAgain } from './queries'

type Appointment = Schemas['SessionOut']

const Card = styled('li')(({ theme }) => ({
  display: 'grid',
  gap: theme.spacing(1, 2),
  gridTemplateColumns: '76px minmax(0, 1fr)',
  padding: theme.spacing(2, 0),
  borderTop: `1px solid ${colours.line}`,
  '& .time': { fontFamily: serif, fontSize: '1.3rem', fontWeight: 600 },
  '& .name': {
    fontFamily: serif,
    fontSize: '1.2rem',
    fontWeight: 600,
    color: 'inherit',
    textDecoration: 'none',
  },
  '& .lanes': {
    display: 'grid',
    direction: 'ltr',
    gap: theme.spacing(1),
    gridTemplateColumns: 'repeat(3, minmax(0, 1fr))',
    marginBlock: theme.spacing(1),
    fontSize: '0.95rem',
    lineHeight: 1.4,
  },
  '& .lane': { borderTop: '3px solid var(--lane)', paddingTop: theme.spacing(0.5) },
  '& .lane strong': { color: 'var(--lane)' },
}))

const LANES: readonly { lane: Lane; of: 'left' | 'middle' | 'right' }[] = [
  { lane: 'left', of: 'left' },
  { lane: 'both', of: 'middle' },
  { lane: 'right', of: 'right' },
]

interface Props {
  session: Appointment
  /** Whether it is on the day it is now: only then is there a mat to go to. */
  today: boolean
  mayWrite: boolean
  onMove: () => void
  onCancel: () => void
}

/** One appointment: when and who, what each side brings, what changed and what comes, and how far it is prepared. */
export function Session({ session, today, mayWrite, onMove, onCancel }: Props) {
  const { t } = useTranslation()
  const practiceId = usePracticeId()
  const to = (id: 'limits' | Next) =>
    addressOf(screenById(id), practiceId, session.client_id) +
    (id === 'plan' && !today ? `?date=${session.date}` : '')
  const next = nextStop(session, today)
  const again = session.planned === 0 && session.last_visit !== null && mayWrite
  return (
    <Card aria-labelledby={`time-${session.id} name-${session.id}`}>
      <div>
        <div className="time" id={`time-${session.id}`}>
          {clockTime(session.time)}
        </div>
        <Typography variant="note">{t('today.minutes', { count: session.minutes })}</Typography>
      </div>
      <div>
        <Row wrap gap={1.5} align="baseline">
          <Link className="name" id={`name-${session.id}`} to={to('limits')} translate="no">
            {session.name}
          </Link>
          <Typography variant="note" translate="no">
            {[session.age, session.occupation, session.place].filter(Boolean).join(' · ')}
          </Typography>
          <Rest />
          <Typography variant="note">
            {session.logged > 0
              ? t('today.logged', { count: session.logged })
              : session.planned > 0
                ? t('today.planned', { count: session.planned })
                : t('today.planNone')}
          </Typography>
          {again && <SameAgain session={session} today={today} to={to('plan')} />}
          <Button component={Link} to={to(next)} variant={again ? 'outlined' : 'contained'} size="small">
            {t(`today.to.${next}`)}
          </Button>
          {next === 'mat' && (
            <Button component={Link} to={to('plan')} variant="outlined" size="small">
              {t('today.to.plan')}
            </Button>
          )}
          {mayWrite && (
            <>
              <Button size="small" variant="outlined" onClick={onMove}>
                {t('today.move')}
              </Button>
              <Button size="small" onClick={onCancel}>
                {t('today.cancel')}
              </Button>
            </>
          )}
        </Row>
        <div className="lanes">
          {LANES.map(({ lane, of }) => (
            <div key={lane} className="lane" style={{ '--lane': laneColour(lane) } as object}>
              <strong>{t(`side.${lane}`)}</strong>
              {session[of].map((line) => (
                <div key={line}>{line}</div>
              ))}
            </div>
          ))}
        </div>
        <Outlook session={session} mayWrite={mayWrite} />
      </div>
    </Card>
  )
}

/** One touch: every ladder of the last visit with each side's next step, and on to the plan. */
function SameAgain({ session, today, to }: { session: Appointment; today: boolean; to: string }) {
  const { t } = useTranslation()
  const navigate = useNavigate()
  const practice_id = usePracticeId()
  const again = useSameAgain(session.client_id)
  return (
    <>
      <Refused error={again.error} />
      <Button
        variant="contained"
        size="small"
        disabled={again.isPending}
        onClick={() => {
          again.mutate(
            {
              params: {
                path: { practice_id, client_id: session.client_id },
                query: today ? {} : { date: session.date },
              },
              body: {},
            },
            { onSuccess: () => void navigate(to) },
          )
        }}
      >
        {t('today.same')}
      </Button>
    </>
  )
}

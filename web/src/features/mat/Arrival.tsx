import Button from '@mui/material/Button'
import { styled } from '@mui/material/styles'
import Typography from '@mui/material/Typography'
import { useTranslation } from 'react-i18next'
import { Link } from 'react-router'
import type { Lane, Schemas } from '../../api/client'
import { shortDate } from '../../common/dates'
import { LANE_HEAD } from '../../common/lanes'
import { useClientPath } from '../../common/route'
import { addressOf, screenById } from '../../common/screens'
import { Lanes, Row } from '../../common/ui/layout'
import { Refused } from '../../common/ui/States'
import { laneColour, serif } from '../../theme/theme'
import { Touch } from '../../common/ui/Touch'
import { MorningChecks } from '../../common/ui/MorningChecks'
import { useNews } from './queries'
import { isTold } from './signs'
import { SignsCheck } from './SignsCheck'
import { HowItIs } from '../../common/ui/AskedToday'
import { Scores } from '../../common/ui/Scores'

const NEWS = ['fall', 'flare', 'illness', 'new_pain', 'procedure'] as const

const Page = styled('div')(({ theme }) => ({
  overflowY: 'auto',
  padding: theme.spacing(1.5, 2.5, 3),
  display: 'grid',
  gap: theme.spacing(2.5),
  alignContent: 'start',
  width: '100%',
  maxWidth: 940,
  marginInline: 'auto',
  '& h2': {
    fontFamily: serif,
    fontSize: '1.2rem',
    fontWeight: 600,
    margin: 0,
    marginBottom: theme.spacing(0.75),
  },
}))

/** What is known of the arrival before it is stored with the first hold. */
export interface Arrived {
  before: number | null
  news: string | null
}

interface Props {
  mat: Schemas['MatOut']
  arrived: Arrived
  onArrived: (arrived: Arrived) => void
  onBegin: () => void
}

/** Before the first pose: how the morning was, how it is today, and whether anything is new. */
export function Arrival({ mat, arrived, onArrived, onBegin }: Props) {
  const { t } = useTranslation()
  const path = useClientPath()
  const news = useNews()
  // Left on the left, right on the right; what has no side stands with the left.
  const asked = [
    mat.asked.filter(({ side }) => side !== 'right'),
    mat.asked.filter(({ side }) => side === 'right'),
  ]
  const lastNote = mat.notes.find(({ date }) => date < mat.date)
  return (
    <Page>
      {mat.morning_open.length > 0 && <MorningChecks items={mat.morning_open} />}
      <section>
        <h2 id="arrival-before">{t('mat.arrival.before')}</h2>
        <Scores
          side="both"
          of={{ id: 'arrival-before' }}
          value={arrived.before}
          named={(score) => t('mat.arrival.beforeIs', { score })}
          onScore={(score) => {
            onArrived({ ...arrived, before: arrived.before === score ? null : score })
          }}
        />
      </section>
      {asked.some((side) => side.length > 0) && (
        <Lanes one={asked.filter((side) => side.length > 0).length === 1}>
          {asked.map(
            (side, place) =>
              side.length > 0 && (
                <div key={place}>
                  {side.map((each) => (
                    <Pain key={each.entry_id} asked={each} />
                  ))}
                </div>
              ),
          )}
        </Lanes>
      )}
      <section>
        <h2 id="arrival-news">{t('mat.arrival.news')}</h2>
        <Row wrap gap={0.75} role="group" aria-labelledby="arrival-news">
          <Touch
            side="both"
            on={arrived.news === 'nothing'}
            onTouch={() => {
              onArrived({ ...arrived, news: 'nothing' })
            }}
          >
            {t('mat.arrival.nothing')}
          </Touch>
          {NEWS.map((what) => (
            <Touch
              key={what}
              side="both"
              on={arrived.news === what}
              onTouch={() => {
                if (arrived.news === what || news.isPending) return
                news.mutate(
                  {
                    params: { path },
                    body: {
                      entry: { kind: 'something_new', facts: { what, on: mat.date, where: 'unknown' } },
                    },
                  },
                  {
                    onSuccess: () => {
                      onArrived({ ...arrived, news: what })
                    },
                  },
                )
              }}
            >
              {t(`mat.arrival.kinds.${what}`)}
            </Touch>
          ))}
        </Row>
        {arrived.news !== null && arrived.news !== 'nothing' && (
          <Typography role="status" sx={{ mt: 1 }}>
            {t('mat.arrival.recorded')}{' '}
            <Link to={addressOf(screenById('limits'), path.practice_id, path.client_id)}>
              {t('mat.arrival.toLimits')}
            </Link>
          </Typography>
        )}
        <Refused error={news.error} />
      </section>
      {mat.checks.length > 0 && <SignsCheck checks={mat.checks} today={mat.date} />}
      {lastNote !== undefined && (
        <section>
          <h2>{t('visitNote.last', { date: shortDate(lastNote.date) })}</h2>
          <div translate="no">{lastNote.text}</div>
        </section>
      )}
      <Button
        variant={isTold(mat.checks, mat.date) ? 'outlined' : 'contained'}
        size="large"
        onClick={onBegin}
        style={{ justifySelf: 'start', minHeight: 60, minWidth: 260, fontSize: '1.15rem' }}
      >
        {t('mat.arrival.begin')}
      </Button>
    </Page>
  )
}

/** How one sore joint is today. */
function Pain({ asked }: { asked: Schemas['AskedOut'] }) {
  const { t } = useTranslation()
  const { entry_id, label, side } = asked
  const lane: Lane = side ?? 'both'
  return (
    <section>
      <h2 id={`asked-${entry_id}`} style={{ color: laneColour(lane) }}>
        {t('mat.arrival.pain', { what: label, side: t(`side.${LANE_HEAD[lane]}`) })}
      </h2>
      <HowItIs asked={asked} of={{ id: `asked-${entry_id}` }} />
    </section>
  )
}

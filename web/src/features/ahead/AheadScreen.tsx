import { styled } from '@mui/material/styles'
import Typography from '@mui/material/Typography'
import { useTranslation } from 'react-i18next'
import { Link } from 'react-router'
import { useAhead } from '../../common/ahead'
import { longDate } from '../../common/dates'
import { usePracticeId } from '../../common/route'
import { addressOf, screenById } from '../../common/screens'
import { Main } from '../../common/ui/Main'
import { Failure, Working } from '../../common/ui/States'
import { ViewTitle } from '../../common/ui/ViewTitle'
import { WeekStrip } from '../../common/ui/WeekStrip'
import { colours } from '../../theme/theme'
import { daysOf } from './model'

const Columns = styled('div')(({ theme }) => ({
  display: 'grid',
  gap: theme.spacing(2, 5),
  alignItems: 'start',
  [theme.breakpoints.up('md')]: { gridTemplateColumns: 'minmax(0, 1.7fr) minmax(0, 1fr)' },
  '& h2': { margin: theme.spacing(0, 0, 1), fontSize: '1.1rem' },
  '& ul': { listStyle: 'none', margin: 0, padding: 0 },
  '& li': { lineHeight: 1.42, marginBottom: theme.spacing(1) },
  '& .day': {
    display: 'grid',
    gridTemplateColumns: '9.5rem minmax(0, 1fr)',
    gap: theme.spacing(0, 2),
    borderTop: `1px solid ${colours.line}`,
    padding: theme.spacing(1, 0, 0.5),
    [theme.breakpoints.down('sm')]: { gridTemplateColumns: 'minmax(0, 1fr)' },
  },
  '& .when': { color: colours.muted, fontWeight: 400, display: 'block' },
  '& .waiting': { backgroundColor: colours.note, padding: theme.spacing(1.5, 2) },
}))

/** What the coming weeks change for anybody, day by day, and whose word is waited for. */
export function AheadScreen() {
  const { t } = useTranslation()
  const practiceId = usePracticeId()
  const ahead = useAhead()
  const limitsOf = (clientId: string) => addressOf(screenById('limits'), practiceId, clientId)
  return (
    <Main sx={{ maxWidth: 1160, mx: 'auto', px: { xs: 1.5, md: 3 }, py: { xs: 1.5, md: 3 } }}>
      <ViewTitle />
      <Typography variant="h1" component="p">
        {t('ahead.title')}
      </Typography>
      {ahead.isPending && <Working />}
      {ahead.isError && <Failure error={ahead.error} again={() => void ahead.refetch()} />}
      {ahead.data !== undefined && (
        <>
          <WeekStrip
            today={ahead.data.today}
            until={ahead.data.until}
            marks={daysOf(ahead.data.changes).map(({ date, tightens, changes }) => ({
              date,
              tightens,
              text: changes.length.toString(),
            }))}
          />
          <Columns>
            <section aria-labelledby="ahead-changes">
              <h2 id="ahead-changes">{t('ahead.changes')}</h2>
              {ahead.data.changes.length === 0 && (
                <div>{t('limits.calendar.none', { until: longDate(ahead.data.until) })}</div>
              )}
              {daysOf(ahead.data.changes).map(({ date, tightens, changes }) => (
                <div key={date} className="day">
                  <strong>
                    {longDate(date)}
                    <span className="when">
                      {t(tightens ? 'limits.calendar.tightens' : 'limits.calendar.loosens')}
                    </span>
                  </strong>
                  <ul>
                    {changes.map(({ client_id, name, lines }) => (
                      <li key={client_id}>
                        <Link to={limitsOf(client_id)} translate="no">
                          {name}
                        </Link>
                        {lines.map((line) => (
                          <div key={line}>{line}</div>
                        ))}
                      </li>
                    ))}
                  </ul>
                </div>
              ))}
            </section>
            <section className="waiting" aria-labelledby="ahead-waiting">
              <h2 id="ahead-waiting">{t('ahead.waiting')}</h2>
              {ahead.data.waiting.length === 0 && <div>{t('ahead.nobodyWaits')}</div>}
              <ul>
                {ahead.data.waiting.map(({ client_id, name, lines }) => (
                  <li key={client_id}>
                    <Link to={limitsOf(client_id)} translate="no">
                      {name}
                    </Link>
                    {lines.map((line) => (
                      <div key={line}>{line}</div>
                    ))}
                  </li>
                ))}
              </ul>
            </section>
          </Columns>
        </>
      )}
    </Main>
  )
}

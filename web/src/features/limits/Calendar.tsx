import { styled } from '@mui/material/styles'
import { useTranslation } from 'react-i18next'
import { longDate } from '../../common/dates'
import { WeekStrip } from '../../common/ui/WeekStrip'
import { colours } from '../../theme/theme'
import { useCalendar } from './queries'

const Page = styled('section')(({ theme }) => ({
  marginTop: theme.spacing(4),
  borderTop: `2px solid ${colours.ink}`,
  paddingTop: theme.spacing(1.25),
  '& ol': { margin: 0, paddingLeft: 22, display: 'grid', gap: theme.spacing(1), maxWidth: 900 },
  '& li': { lineHeight: 1.42 },
  '& li .what': { display: 'block' },
  '& li .rungs': { display: 'block', color: colours.muted },
}))

/** What the calendar changes in the six weeks ahead: when, what, and what it opens or closes of what is worked on. */
export function Calendar() {
  const { t } = useTranslation()
  const calendar = useCalendar().data
  if (calendar === undefined) return null
  const { today, until, changes } = calendar
  return (
    <Page aria-labelledby="calendar-title">
      <h2 id="calendar-title" style={{ margin: 0, fontSize: '1.1rem' }}>
        {t('limits.calendar.title')}
      </h2>
      <WeekStrip
        today={today}
        until={until}
        marks={changes.map(({ date, tightens }, place) => ({
          date,
          tightens,
          text: (place + 1).toString(),
        }))}
      />
      {changes.length === 0 && <div>{t('limits.calendar.none', { until: longDate(until) })}</div>}
      <ol>
        {changes.map(({ date, lines, rungs, tightens }) => (
          <li key={date}>
            <strong>{longDate(date)}</strong>{' '}
            <span style={{ color: colours.muted }}>
              {t(tightens ? 'limits.calendar.tightens' : 'limits.calendar.loosens')}
            </span>
            {lines.map((line) => (
              <span key={line} className="what">
                {line}
              </span>
            ))}
            {rungs.map((line) => (
              <span key={line} className="rungs">
                {line}
              </span>
            ))}
          </li>
        ))}
      </ol>
    </Page>
  )
}

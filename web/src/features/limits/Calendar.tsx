import { styled } from '@mui/material/styles'
import { useTranslation } from 'react-i18next'
import { longDate, shortDate } from '../../common/dates'
import { colours } from '../../theme/theme'
import { useCalendar } from './queries'
import { daysBetween, weeksOf } from './strip'

const Page = styled('section')(({ theme }) => ({
  marginTop: theme.spacing(4),
  borderTop: `2px solid ${colours.ink}`,
  paddingTop: theme.spacing(1.25),
  '& .strip': {
    position: 'relative',
    height: 54,
    margin: theme.spacing(1, 1.5, 2),
    direction: 'ltr',
    forcedColorAdjust: 'none',
  },
  '& .line': { position: 'absolute', top: 16, left: 0, right: 0, borderTop: `2px solid ${colours.muted}` },
  '& .week': {
    position: 'absolute',
    top: 12,
    height: 10,
    borderLeft: `1px solid ${colours.muted}`,
    fontSize: '0.82rem',
    color: colours.muted,
    whiteSpace: 'nowrap',
  },
  // The first and the last stay within the strip.
  '& .week span': { position: 'absolute', top: 16, left: 0, transform: 'translateX(-50%)' },
  '& .week.first span': { transform: 'none' },
  '& .week.last span': { transform: 'translateX(-100%)' },
  '& .change': {
    position: 'absolute',
    top: 7,
    width: 20,
    height: 20,
    marginLeft: -10,
    borderRadius: '50%',
    border: `2px solid ${colours.ink}`,
    backgroundColor: 'var(--asketa-palette-background-default)',
    color: colours.ink,
    fontSize: '0.78rem',
    fontWeight: 700,
    lineHeight: '16px',
    textAlign: 'center',
  },
  '& .change.tightens': { backgroundColor: colours.ink, color: 'var(--asketa-palette-background-default)' },
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
  const span = daysBetween(today, until)
  const at = (date: string) => `${((100 * daysBetween(today, date)) / span).toFixed(2)}%`
  return (
    <Page aria-labelledby="calendar-title">
      <h2 id="calendar-title" style={{ margin: 0, fontSize: '1.1rem' }}>
        {t('limits.calendar.title')}
      </h2>
      <div className="strip" aria-hidden>
        <div className="line" />
        {weeksOf(today, until).map((date) => (
          <div
            key={date}
            className={['week', date === today && 'first', date === until && 'last']
              .filter(Boolean)
              .join(' ')}
            style={{ left: at(date) }}
          >
            <span>{date === today ? t('limits.calendar.today') : shortDate(date)}</span>
          </div>
        ))}
        {changes.map(({ date, tightens }, place) => (
          <div key={date} className={tightens ? 'change tightens' : 'change'} style={{ left: at(date) }}>
            {place + 1}
          </div>
        ))}
      </div>
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

import { styled } from '@mui/material/styles'
import { useTranslation } from 'react-i18next'
import { colours } from '../../theme/theme'
import { shortDate } from '../dates'
import { daysBetween, weeksOf } from '../weeks'

const Strip = styled('div')(({ theme }) => ({
  position: 'relative',
  height: 54,
  margin: theme.spacing(1, 1.5, 2),
  direction: 'ltr',
  forcedColorAdjust: 'none',
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
}))

interface Props {
  today: string
  until: string
  /** What stands on the strip: a few characters on a day, filled where something new binds. */
  marks: readonly { date: string; text: string; tightens: boolean }[]
}

/** The weeks ahead as a line; what stands on it is told in words beneath, so that it says nothing to who cannot see. */
export function WeekStrip({ today, until, marks }: Props) {
  const { t } = useTranslation()
  const span = daysBetween(today, until)
  const at = (date: string) => `${((100 * daysBetween(today, date)) / span).toFixed(2)}%`
  return (
    <Strip aria-hidden>
      <div className="line" />
      {weeksOf(today, until).map((date) => (
        <div
          key={date}
          className={['week', date === today && 'first', date === until && 'last'].filter(Boolean).join(' ')}
          style={{ left: at(date) }}
        >
          <span>{date === today ? t('limits.calendar.today') : shortDate(date)}</span>
        </div>
      ))}
      {marks.map(({ date, text, tightens }) => (
        <div key={date} className={tightens ? 'change tightens' : 'change'} style={{ left: at(date) }}>
          {text}
        </div>
      ))}
    </Strip>
  )
}

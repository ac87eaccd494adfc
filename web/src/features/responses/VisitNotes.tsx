import Button from '@mui/material/Button'
import Typography from '@mui/material/Typography'
import { styled } from '@mui/material/styles'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { shortDate } from '../../common/dates'
import { practiceManner } from '../../common/practice'
import { usePracticeId } from '../../common/route'
import { useMayWrite } from '../../common/session'
import { Failure } from '../../common/ui/States'
import { VisitNote } from '../../common/ui/VisitNote'
import { useVisitNotes } from './queries'

/** Notes shown at first. */
const LATEST = 4

const Notes = styled('section')(({ theme }) => ({
  display: 'grid',
  gap: theme.spacing(0.5, 3),
  marginBottom: theme.spacing(2.5),
  [theme.breakpoints.up('lg')]: { gridTemplateColumns: 'minmax(0, 1fr) minmax(0, 1fr)' },
  '& h2': { gridColumn: '1 / -1' },
  '& h3': { margin: theme.spacing(0, 0, 0.75), fontSize: '1rem' },
  '& dl': { margin: 0 },
  '& dl > div': {
    display: 'grid',
    gridTemplateColumns: '4.5rem 1fr',
    gap: theme.spacing(0.5, 1.5),
    paddingBlock: 3,
    lineHeight: 1.4,
  },
  '& dt': { fontWeight: 700 },
  '& dd': { margin: 0, whiteSpace: 'pre-line' },
  '& small': { color: theme.palette.text.secondary, fontSize: '0.86rem' },
}))

/** What was written of each visit, the latest first, and what is written of today's. */
export function VisitNotes() {
  const { t } = useTranslation()
  const notes = useVisitNotes()
  const [all, setAll] = useState(false)
  const { today } = practiceManner()
  const mayWrite = useMayWrite(usePracticeId())
  if (notes.isPending) return null
  if (notes.isError) return <Failure error={notes.error} again={() => void notes.refetch()} />
  const before = notes.data.filter(({ date }) => !mayWrite || date !== today)
  return (
    <Notes>
      <Typography variant="h2">{t('visitNote.all')}</Typography>
      {mayWrite && <VisitNote date={today} notes={notes.data} />}
      {before.length > 0 && (
        <div>
          <h3>{t('visitNote.before')}</h3>
          <dl>
            {before.slice(0, all ? undefined : LATEST).map(({ id, date, text, by }) => (
              <div key={id}>
                <dt>{shortDate(date)}</dt>
                <dd translate="no">
                  {text} <small>— {by}</small>
                </dd>
              </div>
            ))}
          </dl>
          {before.length > LATEST && !all && (
            <Button
              size="small"
              onClick={() => {
                setAll(true)
              }}
            >
              {t('visitNote.earlier', { count: before.length - LATEST })}
            </Button>
          )}
        </div>
      )}
    </Notes>
  )
}

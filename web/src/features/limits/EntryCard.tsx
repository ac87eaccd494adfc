import Accordion from '@mui/material/Accordion'
import AccordionDetails from '@mui/material/AccordionDetails'
import AccordionSummary from '@mui/material/AccordionSummary'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Typography from '@mui/material/Typography'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import type { Schemas } from '../../api/client'
import { colours } from '../../app/theme'
import { longDate, shortDate } from '../../common/dates'
import { ClearanceDialog } from './ClearanceDialog'
import { DailyDialog } from './DailyDialog'
import { LimitList } from './LimitList'
import { useWithdrawEntry } from './queries'

/** One record: what it is, what was cleared, how it is today, and the limits it turns into. */
export function EntryCard({ entry, onCorrect }: { entry: Schemas['EntryOut']; onCorrect: () => void }) {
  const { t } = useTranslation()
  const withdraw = useWithdrawEntry()
  const [dialog, setDialog] = useState<'clearance' | 'daily' | null>(null)
  const { kind, side } = entry.entry
  // What is asked anew at every arrival.
  const asked =
    kind === 'knee_pain' || (entry.entry.kind === 'pregnancy' && entry.entry.facts.girdle_pain !== 'no')
  const close = () => {
    setDialog(null)
  }
  return (
    <Box
      sx={{
        border: `1px solid ${colours.line}`,
        bgcolor: 'background.paper',
        borderRadius: 1,
        p: 1.75,
        mb: 2,
      }}
    >
      <Typography variant="h3">{entry.label}</Typography>
      {entry.entry.kind === 'hip_replacement' && entry.entry.facts.date && (
        <Typography color="text.secondary">{longDate(entry.entry.facts.date)}</Typography>
      )}
      {entry.clearances.map((given) => (
        <Typography key={`${given.who}${given.date}`} sx={{ mt: 0.5 }}>
          {t('limits.clearedBy', {
            who: t(`limits.clearanceForm.${given.who}`),
            date: longDate(given.date),
            scope: given.scope.map((scope) => t(`limits.clearanceForm.${scope}`)).join(', '),
          })}
        </Typography>
      ))}
      {asked && entry.pain_today !== null && entry.daily_date !== null && (
        <Typography sx={{ mt: 0.5 }}>
          {t('limits.painOf', { pain: entry.pain_today, date: shortDate(entry.daily_date) })}
        </Typography>
      )}
      <Typography
        variant="overline"
        component="h4"
        color="text.secondary"
        sx={{ mt: 1.25, display: 'block' }}
      >
        {t('limits.turnsInto')}
      </Typography>
      <LimitList limits={entry.limits} side={side ?? 'left'} />
      <Accordion disableGutters sx={{ bgcolor: 'transparent', '&::before': { display: 'none' }, mt: 1 }}>
        <AccordionSummary
          sx={{ p: 0, minHeight: 32, fontWeight: 600, textDecoration: 'underline', textUnderlineOffset: 3 }}
        >
          {t('limits.doctorTitle')}
        </AccordionSummary>
        <AccordionDetails sx={{ p: 0, pb: 1 }}>{t(`limits.doctor.${kind}`)}</AccordionDetails>
      </Accordion>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, mt: 1 }}>
        {asked && (
          <Button
            size="small"
            variant="contained"
            onClick={() => {
              setDialog('daily')
            }}
          >
            {t('limits.today')}
          </Button>
        )}
        <Button
          size="small"
          variant="outlined"
          onClick={() => {
            setDialog('clearance')
          }}
        >
          {t('limits.clearance')}
        </Button>
        <Button size="small" onClick={onCorrect}>
          {t('limits.correct')}
        </Button>
        <Button
          size="small"
          onClick={() => {
            withdraw.mutate(entry.id)
          }}
          disabled={withdraw.isPending}
        >
          {t('limits.withdraw')}
        </Button>
      </Box>
      {dialog === 'clearance' && <ClearanceDialog entry={entry} onClose={close} />}
      {dialog === 'daily' && <DailyDialog entry={entry} onClose={close} />}
    </Box>
  )
}

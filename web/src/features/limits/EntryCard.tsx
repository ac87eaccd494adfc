import Alert from '@mui/material/Alert'
import Accordion from '@mui/material/Accordion'
import AccordionDetails from '@mui/material/AccordionDetails'
import AccordionSummary from '@mui/material/AccordionSummary'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Typography from '@mui/material/Typography'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import type { Schemas } from '../../api/client'
import { longDate, shortDate } from '../../common/dates'
import { ClearanceDialog } from './ClearanceDialog'
import { DailyDialog } from './DailyDialog'
import { Differences } from './Differences'
import { InstructionDialog } from './InstructionDialog'
import { Instructions } from './Instructions'
import { LimitList } from './LimitList'
import { type Forms, leftOut } from './forms'
import { cardId, draftFrom, formOfEntry } from './model'
import { useWithdrawEntry } from './queries'
import { colours } from '../../theme/theme'
import { useClientPath } from '../../common/route'
import { useMayWrite } from '../../common/session'

interface Props {
  forms: Forms
  entry: Schemas['EntryOut']
  onCorrect: () => void
  /** Called once the record is taken back, so that it can be undone. */
  onWithdrawn: () => void
}

/** One record: what it is, what was cleared, how it is today, and the limits it turns into. */
export function EntryCard({ forms, entry, onCorrect, onWithdrawn }: Props) {
  const { t } = useTranslation()
  const path = useClientPath()
  const withdraw = useWithdrawEntry()
  const mayWrite = useMayWrite(path.practice_id)
  const [dialog, setDialog] = useState<'clearance' | 'daily' | 'word' | null>(null)
  const { kind } = entry.entry
  const form = formOfEntry(forms, entry.entry)
  const asked = entry.asked_today
  const missing =
    form === undefined || kind === 'unreadable' ? [] : leftOut(form, draftFrom(forms, entry.entry).facts)
  const close = () => {
    setDialog(null)
  }
  return (
    <Box
      component="article"
      id={cardId(entry.id)}
      tabIndex={-1}
      aria-label={entry.label}
      sx={{
        '&:focus': { outline: '3px solid var(--focus)', outlineOffset: 2 },
        scrollMarginTop: 80,
        border: `1px solid ${colours.line}`,
        bgcolor: 'background.paper',
        borderRadius: 1,
        p: 1.75,
        mb: 2,
      }}
    >
      <Typography variant="h3">{entry.label}</Typography>
      {entry.operated_on !== null && (
        <Typography color="text.secondary">{longDate(entry.operated_on)}</Typography>
      )}
      {kind === 'unreadable' && <Unreadable forms={forms} entry={entry.entry} />}
      {entry.clearances.map((given) => (
        <Typography key={`${given.who}${given.date}`} sx={{ mt: 0.5 }}>
          {t('limits.clearedBy', {
            who: t(`said.professionals.${given.who}`),
            date: longDate(given.date),
            scope: given.scope.map((scope) => form?.scopes[scope] ?? scope).join(', '),
          })}
        </Typography>
      ))}
      <Instructions entry={entry} mayWrite={mayWrite} />
      {asked && entry.pain_today !== null && entry.daily_date !== null && (
        <Typography sx={{ mt: 0.5 }}>
          {t('limits.painOf', { pain: entry.pain_today, date: shortDate(entry.daily_date) })}
        </Typography>
      )}
      {missing.length > 0 && (
        <Typography sx={{ mt: 0.5 }} color="text.secondary">
          {t('limits.missing', { what: missing.map(({ label }) => label).join(' · ') })}
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
      <LimitList limits={entry.limits} />
      <Accordion disableGutters sx={{ bgcolor: 'transparent', '&::before': { display: 'none' }, mt: 1 }}>
        <AccordionSummary
          sx={{ p: 0, minHeight: 32, fontWeight: 600, textDecoration: 'underline', textUnderlineOffset: 3 }}
        >
          {t('limits.doctorTitle')}
        </AccordionSummary>
        <AccordionDetails sx={{ p: 0, pb: 1 }}>
          {kind === 'unreadable' ? t('limits.unreadableDoctor') : form?.doctor}
        </AccordionDetails>
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
        {kind !== 'unreadable' && (
          <>
            {form !== undefined && form.offered_scopes.length > 0 && (
              <Button
                size="small"
                variant="outlined"
                onClick={() => {
                  setDialog('clearance')
                }}
              >
                {t('limits.clearance')}
              </Button>
            )}
            <Button
              size="small"
              variant="outlined"
              onClick={() => {
                setDialog('word')
              }}
            >
              {t('limits.word.record')}
            </Button>
            <Button size="small" onClick={onCorrect}>
              {t('limits.correct')}
            </Button>
          </>
        )}
        <Button
          size="small"
          onClick={() => {
            withdraw.mutate({ params: { path: { ...path, entry_id: entry.id } } }, { onSuccess: onWithdrawn })
          }}
          disabled={withdraw.isPending}
        >
          {t('limits.withdraw')}
        </Button>
      </Box>
      {entry.corrected && kind !== 'unreadable' && <Differences entry={entry} />}
      {withdraw.isError && (
        <Alert severity="error" sx={{ mt: 1 }}>
          <strong>{t('limits.notWithdrawn')}</strong> {withdraw.error.message}
        </Alert>
      )}
      {dialog === 'clearance' && form !== undefined && (
        <ClearanceDialog form={form} entry={entry} onClose={close} />
      )}
      {dialog === 'word' && <InstructionDialog entry={entry} onClose={close} />}
      {dialog === 'daily' && <DailyDialog entry={entry} onClose={close} />}
    </Box>
  )
}

/** What is left of a record that cannot be read, so that it can be entered anew. */
function Unreadable({ forms, entry }: { forms: Forms; entry: Schemas['EntryShown'] }) {
  const { t } = useTranslation()
  const stored = (entry.facts['stored'] ?? {}) as Record<string, string>
  const was = formOfEntry(forms, entry)
  const fact = entry.facts['fact']
  return (
    <Box sx={{ mt: 0.5, fontSize: '0.92rem' }}>
      <div>{t('limits.unreadable', { fact: typeof fact === 'string' ? fact : '' })}</div>
      {was !== undefined && <strong>{was.name}</strong>}
      {Object.entries(stored).map(([name, value]) => (
        <div key={name}>
          {/* A fact this version does not know keeps its stored name. */}
          {was?.facts.properties[name]?.title ?? name}: {value}
        </div>
      ))}
    </Box>
  )
}

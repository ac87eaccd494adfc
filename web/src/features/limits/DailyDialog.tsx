import Button from '@mui/material/Button'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogTitle from '@mui/material/DialogTitle'
import MenuItem from '@mui/material/MenuItem'
import TextField from '@mui/material/TextField'
import { type SubmitEvent } from 'react'
import { useTranslation } from 'react-i18next'
import { Refused } from '../../common/ui/States'
import type { Schemas } from '../../api/client'
import { useDaily } from '../../common/daily'
import { useKeptDraft } from '../../common/drafts'
import { useClientPath } from '../../common/route'
import { DraftNote } from '../../common/ui/DraftNote'
import { Fields } from '../../common/ui/layout'

const SCORES = Array.from({ length: 11 }, (_, score) => score)

type Draft = { pain: string; irritable: Schemas['DailyIn']['irritable'] }

/** What is asked at arrival about a sore joint. */
export function DailyDialog({ entry, onClose }: { entry: Schemas['EntryOut']; onClose: () => void }) {
  const { t } = useTranslation()
  const {
    value: draft,
    set: setDraft,
    clear,
    since,
  } = useKeptDraft<Draft>(`daily:${entry.root}`, {
    pain: '',
    irritable: entry.irritable ?? 'unknown',
  })
  const path = useClientPath()
  const answer = useDaily()
  const submit = (event: SubmitEvent) => {
    event.preventDefault()
    answer.mutate(
      {
        params: { path: { ...path, entry_id: entry.id } },
        body: {
          ...(draft.pain === '' ? {} : { pain_today: Number(draft.pain) }),
          irritable: draft.irritable,
        },
      },
      {
        onSuccess: () => {
          clear()
          onClose()
        },
      },
    )
  }
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="xs" aria-labelledby="daily-title">
      <form onSubmit={submit}>
        <DialogTitle id="daily-title">{t('limits.dailyForm.title')}</DialogTitle>
        <Fields>
          <DraftNote since={since} onDiscard={clear} />
          <Refused error={answer.error} />
          <TextField
            select
            label={t('limits.facts.pain_today')}
            value={draft.pain}
            onChange={(event) => {
              setDraft({ ...draft, pain: event.target.value })
            }}
          >
            {SCORES.map((score) => (
              <MenuItem key={score} value={String(score)}>
                {score}
              </MenuItem>
            ))}
          </TextField>
          {entry.irritable !== null && (
            <TextField
              select
              label={t('limits.facts.irritable')}
              value={draft.irritable}
              onChange={(event) => {
                setDraft({ ...draft, irritable: event.target.value as Schemas['DailyIn']['irritable'] })
              }}
            >
              {(['yes', 'no', 'unknown'] as const).map((value) => (
                <MenuItem key={value} value={value}>
                  {t(`limits.values.${value}`)}
                </MenuItem>
              ))}
            </TextField>
          )}
        </Fields>
        <DialogActions>
          <Button onClick={onClose}>{t('common.cancel')}</Button>
          <Button type="submit" variant="contained" disabled={answer.isPending}>
            {t('common.save')}
          </Button>
        </DialogActions>
      </form>
    </Dialog>
  )
}

import Alert from '@mui/material/Alert'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'
import MenuItem from '@mui/material/MenuItem'
import TextField from '@mui/material/TextField'
import Typography from '@mui/material/Typography'
import { type SubmitEvent, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { ApiProblem, type Schemas, type Side } from '../../api/client'
import { useKeptDraft } from '../../common/drafts'
import { useClientPath } from '../../common/route'
import { LimitList } from './LimitList'
import { notANumber } from '../../common/forms/words'
import { DraftNote } from '../../common/ui/DraftNote'
import { askedNow, formOf, type Forms, kindsFor } from './forms'
import { type Draft, draftFrom, entryFrom, unreadableFacts } from './model'
import { QuestionField } from './QuestionField'
import { useCorrectEntry, usePreview, useRecordEntry } from './queries'
import { colours } from '../../theme/theme'

interface Props {
  forms: Forms
  side: Side | null
  correcting: Schemas['EntryOut'] | null
  onClose: () => void
}

/** A short guided record: only the questions that matter for its kind, with the limits it would turn into. */
export function EntryDialog({ forms, side, correcting, onClose }: Props) {
  const { t } = useTranslation()
  const path = useClientPath()
  const initial: Draft =
    correcting === null ? { kind: '', side: side ?? '', facts: {} } : draftFrom(forms, correcting.entry)
  const {
    value: draft,
    set: setDraft,
    clear,
    since,
  } = useKeptDraft(`entry:${path.client_id}:${correcting?.root ?? side ?? 'whole'}`, initial)
  const [missing, setMissing] = useState<Record<string, string>>({})
  const add = useRecordEntry()
  const correct = useCorrectEntry()
  const record = correcting === null ? add : correct
  const form = formOf(forms, draft.kind)
  const entry = entryFrom(forms, draft)
  const unreadable = unreadableFacts(form, draft)
  const preview = usePreview(entry)
  const fromServer = record.error instanceof ApiProblem ? record.error.byField : {}
  const stale = record.error instanceof ApiProblem && record.error.status === 409
  // Once saving was refused the fields say why: it is not said twice.
  const marked = Object.keys(fromServer).length > 0
  // The server names a fact with the kind in front of it.
  const problem = (name: string): string | undefined =>
    missing[name] ?? Object.entries(fromServer).find(([field]) => field.split('.').at(-1) === name)?.[1]

  const submit = (event: SubmitEvent) => {
    event.preventDefault()
    const gaps: Record<string, string> = {}
    if (draft.kind === '') gaps['kind'] = t('limits.chooseKind')
    if (side !== null && draft.side === '') gaps['side'] = t('limits.chooseSide')
    for (const { name, type, unit } of unreadable) {
      gaps[name] = type === 'date' ? t('common.unfinishedDate') : notANumber(t, unit)
    }
    setMissing(gaps)
    if (entry === null) {
      record.reset()
      return
    }
    const onSuccess = () => {
      clear()
      onClose()
    }
    const body = { entry }
    if (correcting === null) add.mutate({ params: { path }, body }, { onSuccess })
    else correct.mutate({ params: { path: { ...path, entry_id: correcting.id } }, body }, { onSuccess })
  }
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="md" aria-labelledby="entry-title">
      <form onSubmit={submit} noValidate>
        <DialogTitle id="entry-title">
          {t(correcting === null ? 'limits.record' : 'limits.correct')}
        </DialogTitle>
        <DialogContent
          sx={{
            display: 'grid',
            gridTemplateColumns: { xs: '1fr', md: '1fr 300px' },
            gap: 3,
            pt: '8px !important',
          }}
        >
          <Box sx={{ display: 'grid', gap: 2, alignContent: 'start' }}>
            <DraftNote since={since} onDiscard={clear} />
            {record.isError && (
              <Alert severity="error">
                {stale ? (
                  <>
                    <strong>{t('limits.staleTitle')}.</strong> {t('limits.staleMore')}
                  </>
                ) : (
                  record.error.message
                )}
              </Alert>
            )}
            <Box sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr', sm: '1fr 1fr' }, gap: 2 }}>
              <TextField
                select
                label={t('limits.kind')}
                value={draft.kind}
                disabled={correcting !== null}
                autoFocus={correcting === null}
                error={problem('kind') !== undefined}
                helperText={problem('kind')}
                onChange={(event) => {
                  setDraft({ ...draft, kind: event.target.value })
                }}
              >
                {kindsFor(forms, side).map((each) => (
                  <MenuItem key={each.code} value={each.code}>
                    {each.name}
                  </MenuItem>
                ))}
              </TextField>
              {side !== null && (
                <TextField
                  select
                  label={t('limits.side')}
                  value={draft.side}
                  error={problem('side') !== undefined}
                  helperText={problem('side')}
                  onChange={(event) => {
                    setDraft({ ...draft, side: event.target.value as Side })
                  }}
                >
                  <MenuItem value="">—</MenuItem>
                  <MenuItem value="left">{t('side.left')}</MenuItem>
                  <MenuItem value="right">{t('side.right')}</MenuItem>
                </TextField>
              )}
            </Box>
            {form !== undefined && (
              <Box sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr', sm: '1fr 1fr' }, gap: 2 }}>
                {askedNow(form, draft.facts).map((question) => (
                  <QuestionField
                    key={question.name}
                    question={question}
                    value={draft.facts[question.name] ?? ''}
                    problem={problem(question.name)}
                    onChange={(value) => {
                      setMissing(
                        Object.fromEntries(
                          Object.entries(missing).filter(([name]) => name !== question.name),
                        ),
                      )
                      setDraft({ ...draft, facts: { ...draft.facts, [question.name]: value } })
                    }}
                  />
                ))}
              </Box>
            )}
          </Box>
          <Box
            sx={{
              bgcolor: colours.panel,
              borderRadius: 1,
              p: 2,
              alignSelf: 'start',
              maxHeight: '62vh',
              overflowY: 'auto',
              fontSize: '0.9rem',
            }}
          >
            <Typography variant="overline" component="h3" color="text.secondary">
              {t('limits.preview')}
            </Typography>
            {entry === null && (
              <Typography color="text.secondary">
                {t(unreadable.length > 0 ? 'limits.previewNeedsCorrecting' : 'limits.previewNeedsMore')}
              </Typography>
            )}
            {preview.isError && entry !== null && (
              <Typography color={marked ? 'text.secondary' : 'error'}>
                {marked ? t('limits.previewNeedsCorrecting') : whyNot(preview.error)}
              </Typography>
            )}
            {preview.data !== undefined && entry !== null && <LimitList limits={preview.data} />}
          </Box>
        </DialogContent>
        <DialogActions>
          <Button onClick={onClose}>{t('common.cancel')}</Button>
          <Button type="submit" variant="contained" disabled={record.isPending}>
            {t('common.save')}
          </Button>
        </DialogActions>
      </form>
    </Dialog>
  )
}

/** What stops a preview: what is said of its first field, else of the whole. */
function whyNot(error: Error): string {
  return error instanceof ApiProblem ? (Object.values(error.byField)[0] ?? error.message) : error.message
}

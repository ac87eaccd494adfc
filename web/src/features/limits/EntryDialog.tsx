import Alert from '@mui/material/Alert'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'
import MenuItem from '@mui/material/MenuItem'
import { styled } from '@mui/material/styles'
import TextField from '@mui/material/TextField'
import Typography from '@mui/material/Typography'
import { type SubmitEvent, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { ApiProblem, type Schemas, type Side } from '../../api/client'
import { useKeptDraft } from '../../common/drafts'
import { useClientHead } from '../../common/head'
import { useClientPath } from '../../common/route'
import { LimitList } from './LimitList'
import { notANumber } from '../../common/forms/words'
import { DraftNote } from '../../common/ui/DraftNote'
import { askedNow, formOf, type Forms, grouped, kindsFor, leftOut, type Question } from './forms'
import { type Draft, draftFrom, entryFrom, theirsIn, unreadableFacts } from './model'
import { QuestionField } from './QuestionField'
import { useCorrectEntry, usePreview, useRecordEntry } from './queries'
import { colours, laneColour } from '../../theme/theme'

const Questions = styled('fieldset')(({ theme }) => ({
  border: 0,
  margin: 0,
  padding: 0,
  display: 'grid',
  gap: theme.spacing(2),
  [theme.breakpoints.up('sm')]: { gridTemplateColumns: '1fr 1fr' },
  '& > legend': {
    fontWeight: 700,
    padding: 0,
    marginBottom: theme.spacing(1.25),
    width: '100%',
    borderTop: `1px solid ${colours.line}`,
    paddingTop: theme.spacing(1),
  },
}))

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
  const name = useClientHead().data?.client.name ?? ''
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
  const stale =
    record.error instanceof ApiProblem && record.error.status === 409
      ? (record.error.problem.current ?? {})
      : undefined
  // Once saving was refused the fields say why: it is not said twice.
  const marked = Object.keys(fromServer).length > 0
  // The server names a fact with the kind in front of it.
  const problem = (of: string): string | undefined =>
    missing[of] ?? Object.entries(fromServer).find(([field]) => field.split('.').at(-1) === of)?.[1]

  const submit = (event: SubmitEvent) => {
    event.preventDefault()
    const gaps: Record<string, string> = {}
    if (draft.kind === '') gaps['kind'] = t('limits.chooseKind')
    if (side !== null && draft.side === '') gaps['side'] = t('limits.chooseSide')
    for (const { name: of, type, unit } of unreadable) {
      gaps[of] = type === 'date' ? t('common.unfinishedDate') : notANumber(t, unit)
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
    else {
      // Whoever has read what was saved in between and saves again means it.
      const entry_id = typeof stale?.['id'] === 'string' ? stale['id'] : correcting.id
      correct.mutate({ params: { path: { ...path, entry_id } }, body }, { onSuccess })
    }
  }
  const field = (question: Question) => (
    <QuestionField
      key={question.name}
      question={question}
      value={draft.facts[question.name] ?? ''}
      problem={problem(question.name)}
      onChange={(value) => {
        setMissing(Object.fromEntries(Object.entries(missing).filter(([of]) => of !== question.name)))
        setDraft({ ...draft, facts: { ...draft.facts, [question.name]: value } })
      }}
    />
  )
  const whose = draft.side === '' ? (side ?? 'both') : draft.side
  const open = form === undefined ? [] : leftOut(form, draft.facts)
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="md" aria-labelledby="entry-title">
      <form onSubmit={submit} noValidate>
        <DialogTitle
          id="entry-title"
          sx={{ borderTop: `5px solid ${laneColour(whose)}`, display: 'flex', gap: 1, flexWrap: 'wrap' }}
        >
          <span>{t(correcting === null ? 'limits.recordFor' : 'limits.correctFor')}</span>
          <span translate="no">{name}</span>
          <span style={{ color: laneColour(whose) }}>
            {side === null ? t('limits.wholeBody') : draft.side === '' ? '' : t(`side.${draft.side}`)}
          </span>
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
            {stale !== undefined && (
              <Alert severity="warning" role="alert">
                <strong>{t('limits.staleTitle')}.</strong> {t('limits.staleMore')}
                <ul style={{ margin: '4px 0 0', paddingLeft: 18 }}>
                  {theirsIn(form, draft, stale).map((line) => (
                    <li key={line.label}>
                      {line.label}:{' '}
                      <strong>{line.words === '' ? t('limits.notRecorded') : line.words}</strong>
                    </li>
                  ))}
                </ul>
              </Alert>
            )}
            {record.isError && stale === undefined && <Alert severity="error">{record.error.message}</Alert>}
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
            {form !== undefined &&
              grouped(askedNow(form, draft.facts)).map(({ group, questions }) => (
                <Questions key={questions[0]?.name}>
                  {group !== undefined && <legend>{group}</legend>}
                  {questions.map(field)}
                </Questions>
              ))}
          </Box>
          <Box
            sx={{
              bgcolor: colours.panel,
              borderRadius: 1,
              p: 2,
              alignSelf: 'start',
              position: { md: 'sticky' },
              top: 0,
              maxHeight: '66vh',
              overflowY: 'auto',
              fontSize: '0.9rem',
            }}
          >
            {open.length > 0 && (
              <Typography sx={{ fontSize: 'inherit', mb: 1.5 }} role="status">
                <strong>{t('limits.leftOut')}</strong> {open.map(({ label }) => label).join(' · ')}
              </Typography>
            )}
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
            {t(stale === undefined ? 'common.save' : 'limits.saveOnTop')}
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

import Alert from '@mui/material/Alert'
import Autocomplete from '@mui/material/Autocomplete'
import Button from '@mui/material/Button'
import Checkbox from '@mui/material/Checkbox'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogTitle from '@mui/material/DialogTitle'
import FormControlLabel from '@mui/material/FormControlLabel'
import TextField from '@mui/material/TextField'
import { type SubmitEvent, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { ApiProblem, query, type Schemas } from '../../api/client'
import { clockTime, longDate } from '../../common/dates'
import { useKeptDraft } from '../../common/drafts'
import { DateField } from '../../common/forms/DateField'
import { NumberField } from '../../common/forms/NumberField'
import { numberIn } from '../../common/forms/numbers'
import { TimeField } from '../../common/forms/TimeField'
import { usePracticeId } from '../../common/route'
import { DraftNote } from '../../common/ui/DraftNote'
import { Fields } from '../../common/ui/layout'
import { Refused } from '../../common/ui/States'
import { bodyOf, problemsOf, type Typed } from './model'
import { useBook, useMove } from './queries'

interface Props {
  /** The appointment that is changed; none to book a new one. */
  moving: Schemas['SessionOut'] | null
  /** The day it is booked for unless another is said. */
  day: string
  onDone: (date: string) => void
  onClose: () => void
}

/** Books an appointment, or one a week, or changes one. */
export function AppointmentDialog({ moving, day, onDone, onClose }: Props) {
  const { t } = useTranslation()
  const practice_id = usePracticeId()
  const {
    value: typed,
    set,
    clear,
    since,
  } = useKeptDraft<Typed>(`appointment:${moving === null ? day : moving.id}`, startOf(moving, day))
  const [following, setFollowing] = useState(false)
  const [asked, setAsked] = useState(false)
  const book = useBook()
  const move = useMove()
  const error = book.error ?? move.error
  // What somebody else made of it in between: told, and replaced only when it is saved once more.
  const stands = standsNow(move.error)
  const refused = error instanceof ApiProblem ? error.byField : {}
  const wrong = asked ? problemsOf(typed, moving !== null) : []
  const problem = (field: (typeof wrong)[number], words: string) =>
    wrong.includes(field) ? words : refused[field]
  const change = (part: Partial<Typed>) => {
    set({ ...typed, ...part })
  }
  const submit = (event: SubmitEvent) => {
    event.preventDefault()
    setAsked(true)
    if (problemsOf(typed, moving !== null).length > 0) return
    const onSuccess = ({ date }: { date: string }) => {
      clear()
      onDone(date)
    }
    if (moving !== null) {
      move.mutate(
        {
          params: { path: { practice_id, appointment_id: moving.id } },
          body: { ...bodyOf(typed), version: stands?.version ?? moving.version, following },
        },
        { onSuccess },
      )
    } else if (typed.client !== null) {
      book.mutate(
        {
          params: { path: { practice_id } },
          body: { ...bodyOf(typed), client_id: typed.client.id, weeks: numberIn(typed.weeks, 'plain') ?? 1 },
        },
        { onSuccess },
      )
    }
  }
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="xs" aria-labelledby="appointment-title">
      <form onSubmit={submit} noValidate>
        <DialogTitle id="appointment-title">
          {t(moving === null ? 'today.form.title' : 'today.form.moveTitle')}
        </DialogTitle>
        <Fields>
          <DraftNote since={since} onDiscard={clear} />
          {stands === undefined ? (
            <Refused error={error} />
          ) : (
            <Alert severity="warning">
              {t('today.form.stale', {
                what: [
                  longDate(stands.date),
                  clockTime(stands.time),
                  t('today.minutes', { count: stands.minutes }),
                  stands.place,
                ]
                  .filter(Boolean)
                  .join(', '),
              })}
            </Alert>
          )}
          {moving === null && (
            <Who
              chosen={typed.client}
              problem={problem('client', t('today.form.chooseClient'))}
              onChoose={(client) => {
                change({ client })
              }}
            />
          )}
          <DateField
            label={t('today.form.date')}
            value={typed.date}
            problem={problem('date', t('common.unfinishedDate'))}
            onChange={(date) => {
              change({ date })
            }}
          />
          <TimeField
            label={t('today.form.time')}
            value={typed.time}
            problem={problem('time', t('today.form.chooseTime'))}
            onChange={(time) => {
              change({ time })
            }}
          />
          <NumberField
            label={t('today.form.minutes')}
            unit="plain"
            text={typed.minutes}
            problem={problem('minutes', t('common.notANumber'))}
            onType={(minutes) => {
              change({ minutes })
            }}
          />
          <TextField
            label={t('today.form.place')}
            value={typed.place}
            onChange={(event) => {
              change({ place: event.target.value })
            }}
          />
          {moving === null && (
            <NumberField
              label={t('today.form.weeks')}
              unit="plain"
              text={typed.weeks}
              problem={problem('weeks', t('common.notANumber'))}
              onType={(weeks) => {
                change({ weeks })
              }}
            />
          )}
          {moving !== null && moving.following > 0 && (
            <FormControlLabel
              label={t('today.form.following', { count: moving.following })}
              control={
                <Checkbox
                  checked={following}
                  onChange={(_, on) => {
                    setFollowing(on)
                  }}
                />
              }
            />
          )}
        </Fields>
        <DialogActions>
          <Button onClick={onClose}>{t('common.cancel')}</Button>
          <Button type="submit" variant="contained" disabled={book.isPending || move.isPending}>
            {t('common.save')}
          </Button>
        </DialogActions>
      </form>
    </Dialog>
  )
}

type Standing = Pick<Schemas['AppointmentOut'], 'date' | 'time' | 'minutes' | 'place' | 'version'>

/** The appointment as it stands on the server, when that is why a change was refused. */
function standsNow(error: Error | null): Standing | undefined {
  if (!(error instanceof ApiProblem) || error.problem.code !== 'stale') return undefined
  return (error.problem.current ?? undefined) as Standing | undefined
}

function startOf(moving: Schemas['SessionOut'] | null, day: string): Typed {
  if (moving === null) return { client: null, date: day, time: '', minutes: '45', place: '', weeks: '1' }
  const { client_id, name, date, time, minutes, place } = moving
  return {
    client: { id: client_id, name },
    date,
    time: time.slice(0, 5),
    minutes: minutes.toString(),
    place,
    weeks: '1',
  }
}

interface WhoProps {
  chosen: Typed['client']
  problem: string | undefined
  onChoose: (client: Typed['client']) => void
}

/** A client found by name. */
function Who({ chosen, problem, onChoose }: WhoProps) {
  const { t } = useTranslation()
  const practice_id = usePracticeId()
  const clients = query.useQuery('post', '/api/practices/{practice_id}/clients/search', {
    params: { path: { practice_id } },
    body: { archived: false, text: '' },
  })
  const known = (clients.data ?? []).map(({ id, name }) => ({ id, name }))
  return (
    <Autocomplete
      size="small"
      options={known}
      value={chosen}
      loading={clients.isPending}
      loadingText={t('common.loading')}
      noOptionsText={t('today.form.nobody')}
      clearText={t('common.list.clear')}
      openText={t('common.list.open')}
      closeText={t('common.list.close')}
      getOptionLabel={({ name }) => name}
      getOptionKey={({ id }) => id}
      isOptionEqualToValue={(one, other) => one.id === other.id}
      onChange={(_, client) => {
        onChoose(client)
      }}
      renderInput={(params) => (
        <TextField
          {...params}
          autoFocus
          label={t('today.form.client')}
          error={problem !== undefined}
          helperText={problem}
        />
      )}
    />
  )
}

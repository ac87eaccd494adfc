import Alert from '@mui/material/Alert'
import Button from '@mui/material/Button'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogTitle from '@mui/material/DialogTitle'
import MenuItem from '@mui/material/MenuItem'
import TextField from '@mui/material/TextField'
import { type SubmitEvent, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { ApiProblem, query, type Schemas } from '../../api/client'
import { useChanged } from '../../common/changes'
import { longDate } from '../../common/dates'
import { useKeptDraft } from '../../common/drafts'
import { ClientFields } from '../../common/forms/ClientFields'
import { UNFINISHED } from '../../common/forms/unfinished'
import { useClientPath } from '../../common/route'
import { DraftNote } from '../../common/ui/DraftNote'
import { Fields } from '../../common/ui/layout'
import { Refused } from '../../common/ui/States'
import { ContactFields } from './ContactFields'
import { useArchive } from './queries'

const ALLOWED = [0, 1, 2, 3, 4, 5]

interface Props {
  client: Schemas['ClientOut']
  onClose: () => void
}

/** Correct who somebody is, and how much discomfort is allowed. What somebody else saved in between is shown, not lost. */
export function EditClientDialog({ client, onClose }: Props) {
  const { t } = useTranslation()
  const path = useClientPath()
  const changed = useChanged('body')
  const archive = useArchive()
  const draft = useKeptDraft(`client:${client.id}`, {
    name: client.name,
    birth_date: client.birth_date ?? '',
    occupation: client.occupation,
    goals: client.goals,
    contacts: client.contacts,
    discomfort_allowed: client.discomfort_allowed,
  })
  const [unfinished, setUnfinished] = useState(false)
  const update = query.useMutation('put', '/api/practices/{practice_id}/clients/{client_id}', {
    onSuccess: () => {
      draft.clear()
      changed()
      onClose()
    },
  })
  const problem = update.error instanceof ApiProblem ? update.error : undefined
  const theirs = problem?.problem.code === 'stale' ? (problem.problem.current ?? undefined) : undefined
  const { name, birth_date, occupation, goals, contacts, discomfort_allowed } = draft.value
  const submit = (event: SubmitEvent) => {
    event.preventDefault()
    const open = birth_date === UNFINISHED
    setUnfinished(open)
    if (open) return
    const seen = theirs?.['version']
    update.mutate({
      params: { path },
      body: {
        name: name.trim(),
        occupation: occupation.trim(),
        goals: goals.trim(),
        contacts,
        ...(birth_date === '' ? {} : { birth_date }),
        discomfort_allowed,
        // Whoever has read what was saved in between and saves again means it.
        version: typeof seen === 'number' ? seen : client.version,
      },
    })
  }
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="sm" aria-labelledby="edit-client">
      <form onSubmit={submit} noValidate>
        <DialogTitle id="edit-client">{t('clients.edit')}</DialogTitle>
        <Fields>
          <DraftNote since={draft.since} onDiscard={draft.clear} />
          {theirs === undefined ? (
            <Refused error={update.error} />
          ) : (
            <Alert severity="warning" role="alert">
              {t('clients.theirs', { what: inWords(theirs) })}
            </Alert>
          )}
          <Refused error={archive.error} />
          <ClientFields
            draft={draft.value}
            problems={{
              ...problem?.byField,
              ...(unfinished ? { birth_date: t('common.unfinishedDate') } : {}),
            }}
            onDraft={(more) => {
              setUnfinished(false)
              draft.set({ ...draft.value, ...more })
            }}
          />
          <TextField
            label={t('clients.goals')}
            value={goals}
            multiline
            minRows={2}
            onChange={(event) => {
              draft.set({ ...draft.value, goals: event.target.value })
            }}
          />
          <ContactFields
            contacts={contacts}
            problem={contactsProblem(problem?.byField)}
            onContacts={(changed) => {
              draft.set({ ...draft.value, contacts: changed })
            }}
          />
          <TextField
            select
            label={t('clients.allowed')}
            helperText={t('clients.allowedMore')}
            value={discomfort_allowed}
            onChange={(event) => {
              draft.set({ ...draft.value, discomfort_allowed: Number(event.target.value) })
            }}
          >
            {ALLOWED.map((each) => (
              <MenuItem key={each} value={each}>
                {each}
              </MenuItem>
            ))}
          </TextField>
        </Fields>
        <DialogActions>
          {!client.archived && (
            <Button
              color="inherit"
              disabled={archive.isPending}
              onClick={() => {
                archive.mutate({ params: { path }, body: { archived: true } }, { onSuccess: onClose })
              }}
              sx={{ mr: 'auto' }}
            >
              {t('clients.putAway')}
            </Button>
          )}
          <Button onClick={onClose}>{t('common.cancel')}</Button>
          <Button type="submit" variant="contained" disabled={update.isPending}>
            {t('common.save')}
          </Button>
        </DialogActions>
      </form>
    </Dialog>
  )
}

/** What is wrong with one of the contacts, wherever among them. */
function contactsProblem(byField: Record<string, string> | undefined): string | undefined {
  return Object.entries(byField ?? {}).find(([field]) => field.startsWith('contacts'))?.[1]
}

/** What somebody else saved, as one line. */
function inWords(theirs: Record<string, unknown>): string {
  const { name, birth_date, occupation, goals } = theirs
  return [name, typeof birth_date === 'string' ? longDate(birth_date) : '', occupation, goals]
    .filter((each) => typeof each === 'string' && each !== '')
    .join(', ')
}

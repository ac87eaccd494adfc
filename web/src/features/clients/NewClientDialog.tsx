import Button from '@mui/material/Button'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogTitle from '@mui/material/DialogTitle'
import TextField from '@mui/material/TextField'
import { type SubmitEvent, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { useNavigate } from 'react-router'
import { Refused } from '../../common/ui/States'
import { ApiProblem, query } from '../../api/client'
import { useKeptDraft } from '../../common/drafts'
import { DateField } from '../../common/forms/DateField'
import { UNFINISHED } from '../../common/forms/unfinished'
import { usePracticeId } from '../../common/route'
import { addressOf, screenById } from '../../common/screens'
import { DraftNote } from '../../common/ui/DraftNote'
import { Fields } from '../../common/ui/layout'
import { useClientsChanged } from './queries'

const EMPTY = { name: '', birth_date: '', occupation: '' }

export function NewClientDialog({ onClose }: { onClose: () => void }) {
  const { t } = useTranslation()
  const practiceId = usePracticeId()
  const navigate = useNavigate()
  const changed = useClientsChanged()
  const { value: draft, set: setDraft, clear, since } = useKeptDraft(`new-client:${practiceId}`, EMPTY)
  const [local, setLocal] = useState<string>()
  const create = query.useMutation('post', '/api/practices/{practice_id}/clients', {
    onSuccess: (client) => {
      clear()
      changed()
      void navigate(addressOf(screenById('limits'), practiceId, client.id))
    },
  })
  const problems = create.error instanceof ApiProblem ? create.error.byField : {}
  const submit = (event: SubmitEvent) => {
    event.preventDefault()
    const unfinished = draft.birth_date === UNFINISHED
    setLocal(unfinished ? t('common.unfinishedDate') : undefined)
    if (unfinished) return
    create.mutate({
      params: { path: { practice_id: practiceId } },
      body: {
        name: draft.name.trim(),
        occupation: draft.occupation.trim(),
        ...(draft.birth_date === '' ? {} : { birth_date: draft.birth_date }),
        discomfort_allowed: 2,
      },
    })
  }
  const field = (name: keyof typeof EMPTY) => ({
    value: draft[name],
    error: problems[name] !== undefined,
    helperText: problems[name],
    onChange: (event: { target: { value: string } }) => {
      setDraft({ ...draft, [name]: event.target.value })
    },
  })
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="xs" aria-labelledby="new-client">
      <form onSubmit={submit} noValidate>
        <DialogTitle id="new-client">{t('clients.new')}</DialogTitle>
        <Fields>
          <DraftNote since={since} onDiscard={clear} />
          <Refused error={create.error} />
          <TextField label={t('clients.name')} autoFocus required {...field('name')} />
          <DateField
            label={t('clients.birthDate')}
            value={draft.birth_date}
            problem={local ?? problems['birth_date']}
            onChange={(birth_date) => {
              setLocal(undefined)
              setDraft({ ...draft, birth_date })
            }}
          />
          <TextField label={t('clients.occupation')} {...field('occupation')} />
        </Fields>
        <DialogActions>
          <Button onClick={onClose}>{t('common.cancel')}</Button>
          <Button type="submit" variant="contained" disabled={create.isPending}>
            {t('common.save')}
          </Button>
        </DialogActions>
      </form>
    </Dialog>
  )
}

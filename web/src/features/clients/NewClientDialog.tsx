import Button from '@mui/material/Button'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogTitle from '@mui/material/DialogTitle'
import { type SubmitEvent, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { useNavigate } from 'react-router'
import { Refused } from '../../common/ui/States'
import { ApiProblem, query } from '../../api/client'
import { useKeptDraft } from '../../common/drafts'
import { type ClientDraft, ClientFields } from '../../common/forms/ClientFields'
import { UNFINISHED } from '../../common/forms/unfinished'
import { usePracticeId } from '../../common/route'
import { addressOf, screenById } from '../../common/screens'
import { DraftNote } from '../../common/ui/DraftNote'
import { Fields } from '../../common/ui/layout'
import { useClientsChanged } from './queries'

const EMPTY: ClientDraft = { name: '', birth_date: '', occupation: '' }

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
        goals: '',
        contacts: [],
        ...(draft.birth_date === '' ? {} : { birth_date: draft.birth_date }),
        discomfort_allowed: 2,
      },
    })
  }
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="xs" aria-labelledby="new-client">
      <form onSubmit={submit} noValidate>
        <DialogTitle id="new-client">{t('clients.new')}</DialogTitle>
        <Fields>
          <DraftNote since={since} onDiscard={clear} />
          <Refused error={create.error} />
          <ClientFields
            draft={draft}
            problems={{ ...problems, ...(local === undefined ? {} : { birth_date: local }) }}
            onDraft={(more) => {
              setLocal(undefined)
              setDraft({ ...draft, ...more })
            }}
          />
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

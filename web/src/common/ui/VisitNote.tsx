import Alert from '@mui/material/Alert'
import Button from '@mui/material/Button'
import TextField from '@mui/material/TextField'
import Typography from '@mui/material/Typography'
import { useTranslation } from 'react-i18next'
import { ApiProblem, query, type Schemas } from '../../api/client'
import { useChanged } from '../changes'
import { useKeptDraft } from '../drafts'
import { useClientPath } from '../route'
import { Row } from './layout'
import { Refused } from './States'

interface Props {
  /** The day of the visit. */
  date: string
  /** What stands written of visits, that of today among them where there is one. */
  notes: readonly Schemas['VisitNoteOut'][]
}

/** What the therapist writes of today's visit; what somebody else wrote in between is shown beside it. */
export function VisitNote({ date, notes }: Props) {
  const { t } = useTranslation()
  const path = useClientPath()
  const standing = notes.find((note) => note.date === date)
  const draft = useKeptDraft(`visit-note:${path.client_id}:${date}`, standing?.text ?? '')
  const changed = useChanged('notes')
  const write = query.useMutation('post', '/api/practices/{practice_id}/clients/{client_id}/visit-notes', {
    onSuccess: () => {
      draft.clear()
      changed()
    },
  })
  const problem = write.error instanceof ApiProblem ? write.error.problem : undefined
  const theirs = problem?.code === 'stale' ? problem.current : undefined
  const text = draft.value.trim()
  return (
    <section aria-labelledby="visit-note">
      <h3 id="visit-note">{t('visitNote.title')}</h3>
      {theirs !== undefined && theirs !== null && (
        <Alert severity="warning" role="alert" sx={{ my: 1 }}>
          {t('visitNote.theirs', { text: typeof theirs['text'] === 'string' ? theirs['text'] : '' })}
        </Alert>
      )}
      <Row align="flex-start">
        <TextField
          multiline
          minRows={2}
          fullWidth
          value={draft.value}
          placeholder={t('visitNote.hint')}
          slotProps={{ htmlInput: { 'aria-labelledby': 'visit-note' } }}
          onChange={(event) => {
            draft.set(event.target.value)
          }}
        />
        <Button
          variant="outlined"
          size="large"
          sx={{ whiteSpace: 'nowrap', flex: 'none' }}
          disabled={write.isPending || text === (standing?.text ?? '')}
          onClick={() => {
            const replaces = typeof theirs?.['id'] === 'string' ? theirs['id'] : standing?.id
            write.mutate({
              params: { path },
              body: { text, ...(replaces === undefined ? {} : { replaces }) },
            })
          }}
        >
          {t('visitNote.keep')}
        </Button>
      </Row>
      {theirs === undefined && <Refused error={write.error} />}
      {standing !== undefined && text === standing.text && (
        <Typography variant="note" role="status">
          {t('visitNote.kept', { by: standing.by })}
        </Typography>
      )}
    </section>
  )
}

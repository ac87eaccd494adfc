import Button from '@mui/material/Button'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogTitle from '@mui/material/DialogTitle'
import TextField from '@mui/material/TextField'
import { type SubmitEvent, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { ApiProblem, type Schemas } from '../../api/client'
import { useKeptDraft } from '../../common/drafts'
import { undated } from '../../common/forms/dated'
import { type Who, WordFields } from '../../common/forms/WordFields'
import { useClientPath } from '../../common/route'
import { useSeen } from '../../common/signs'
import { DraftNote } from '../../common/ui/DraftNote'
import { Fields } from '../../common/ui/layout'
import { Refused } from '../../common/ui/States'

interface Props {
  call: Schemas['CallOut']
  onClose: () => void
}

/** What the doctor said of a sign: from then on it closes nothing any more. */
export function SeenDialog({ call, onClose }: Props) {
  const { t } = useTranslation()
  const path = useClientPath()
  const {
    value: draft,
    set: setDraft,
    clear,
    since,
  } = useKeptDraft<{ who: Who; date: string; text: string }>(`seen:${call.entry_id}`, {
    who: 'doctor',
    date: '',
    text: '',
  })
  const seen = useSeen()
  const [tried, setTried] = useState(false)
  const problems = seen.error instanceof ApiProblem ? seen.error.byField : {}
  const missing = undated(draft.date)
  const submit = (event: SubmitEvent) => {
    event.preventDefault()
    setTried(true)
    if (missing !== undefined) return
    seen.mutate(
      { params: { path: { ...path, entry_id: call.entry_id } }, body: { ...draft, text: draft.text.trim() } },
      {
        onSuccess: () => {
          clear()
          onClose()
        },
      },
    )
  }
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="xs" aria-labelledby="seen-title">
      <form onSubmit={submit} noValidate>
        <DialogTitle id="seen-title">{t('doctor.answerTitle')}</DialogTitle>
        <Fields>
          <DraftNote since={since} onDiscard={clear} />
          <Refused error={seen.error} />
          <div>{t('doctor.answerMore', { signs: call.signs.join(', ') })}</div>
          <WordFields
            who={draft.who}
            date={draft.date}
            problem={tried && missing !== undefined ? t(missing) : problems['date']}
            onChange={(changed) => {
              setDraft({ ...draft, ...changed })
            }}
          />
          <TextField
            label={t('limits.word.text')}
            value={draft.text}
            multiline
            minRows={3}
            onChange={(event) => {
              setDraft({ ...draft, text: event.target.value })
            }}
          />
        </Fields>
        <DialogActions>
          <Button onClick={onClose}>{t('common.cancel')}</Button>
          <Button type="submit" variant="contained" disabled={seen.isPending}>
            {t('common.save')}
          </Button>
        </DialogActions>
      </form>
    </Dialog>
  )
}

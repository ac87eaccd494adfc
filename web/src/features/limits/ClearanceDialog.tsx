import Button from '@mui/material/Button'
import Checkbox from '@mui/material/Checkbox'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogTitle from '@mui/material/DialogTitle'
import FormControlLabel from '@mui/material/FormControlLabel'
import FormGroup from '@mui/material/FormGroup'
import FormLabel from '@mui/material/FormLabel'
import { type SubmitEvent, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Refused } from '../../common/ui/States'
import { ApiProblem, type Schemas } from '../../api/client'
import { useKeptDraft } from '../../common/drafts'
import { undated } from '../../common/forms/dated'
import { type Who, WordFields } from '../../common/forms/WordFields'
import { useClientPath } from '../../common/route'
import { DraftNote } from '../../common/ui/DraftNote'
import { Fields } from '../../common/ui/layout'
import type { Form } from './forms'
import { useClearance } from './queries'

type Draft = { who: Who; date: string; scope: string[] }

/** A treating professional's dated word. */
export function ClearanceDialog({
  form,
  entry,
  onClose,
}: {
  form: Form
  entry: Schemas['EntryOut']
  onClose: () => void
}) {
  const { t } = useTranslation()
  const {
    value: draft,
    set: setDraft,
    clear,
    since,
  } = useKeptDraft<Draft>(`clearance:${entry.root}`, {
    who: 'surgeon',
    date: '',
    scope: form.offered_scopes.slice(0, 1),
  })
  const path = useClientPath()
  const give = useClearance()
  const [local, setLocal] = useState<string>()
  const problems = give.error instanceof ApiProblem ? give.error.byField : {}
  const submit = (event: SubmitEvent) => {
    event.preventDefault()
    const missing = undated(draft.date)
    if (missing !== undefined) {
      setLocal(t(missing))
      return
    }
    give.mutate(
      { params: { path: { ...path, entry_id: entry.id } }, body: draft },
      {
        onSuccess: () => {
          clear()
          onClose()
        },
      },
    )
  }
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="xs" aria-labelledby="clearance-title">
      <form onSubmit={submit} noValidate>
        <DialogTitle id="clearance-title">{t('limits.clearanceForm.title')}</DialogTitle>
        <Fields>
          <DraftNote since={since} onDiscard={clear} />
          <Refused error={give.error} />
          <WordFields
            who={draft.who}
            date={draft.date}
            problem={local ?? problems['date']}
            onChange={(changed) => {
              setLocal(undefined)
              setDraft({ ...draft, ...changed })
            }}
          />
          <FormGroup>
            <FormLabel>{t('limits.clearanceForm.scope')}</FormLabel>
            {form.offered_scopes.map((scope) => (
              <FormControlLabel
                key={scope}
                label={form.scopes[scope]}
                control={
                  <Checkbox
                    size="small"
                    checked={draft.scope.includes(scope)}
                    onChange={(_, checked) => {
                      setDraft({
                        ...draft,
                        scope: checked
                          ? [...draft.scope, scope]
                          : draft.scope.filter((each) => each !== scope),
                      })
                    }}
                  />
                }
              />
            ))}
          </FormGroup>
        </Fields>
        <DialogActions>
          <Button onClick={onClose}>{t('common.cancel')}</Button>
          <Button type="submit" variant="contained" disabled={give.isPending || draft.scope.length === 0}>
            {t('common.save')}
          </Button>
        </DialogActions>
      </form>
    </Dialog>
  )
}

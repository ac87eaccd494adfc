import Button from '@mui/material/Button'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogTitle from '@mui/material/DialogTitle'
import FormControlLabel from '@mui/material/FormControlLabel'
import Radio from '@mui/material/Radio'
import RadioGroup from '@mui/material/RadioGroup'
import TextField from '@mui/material/TextField'
import { type SubmitEvent, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { ApiProblem, type Lane, type Schemas } from '../../api/client'
import { useKeptDraft } from '../../common/drafts'
import { useClientPath } from '../../common/route'
import { DraftNote } from '../../common/ui/DraftNote'
import { Fields } from '../../common/ui/layout'
import { Refused } from '../../common/ui/States'
import { useDecide } from './queries'

type Action = Schemas['DecisionIn']['action']

const ACTIONS = ['stay', 'offer', 'step_back', 'leave_out'] as const

interface Props {
  family: Pick<Schemas['ResponseFamily'], 'family' | 'name'>
  lane: Lane
  /** Whether what stands was decided by somebody: then it can follow from the sessions again. */
  own: boolean
  onClose: () => void
}

/** Decide otherwise for next time, with the reason that will be shown then. */
export function DecideDialog({ family, lane, own, onClose }: Props) {
  const { t } = useTranslation()
  const path = useClientPath()
  const decide = useDecide()
  const draft = useKeptDraft(`decide:${path.client_id}:${family.family}:${lane}`, '')
  const [action, setAction] = useState<Action>('stay')
  const problems = decide.error instanceof ApiProblem ? decide.error.byField : {}
  const send = (chosen: Action, reason: string) => {
    decide.mutate(
      {
        params: { path },
        body: { family: family.family, side: lane === 'right' ? 'right' : 'left', action: chosen, reason },
      },
      {
        onSuccess: () => {
          draft.clear()
          onClose()
        },
      },
    )
  }
  const submit = (event: SubmitEvent) => {
    event.preventDefault()
    send(action, draft.value.trim())
  }
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="xs" aria-labelledby="decide-title">
      <form onSubmit={submit}>
        <DialogTitle id="decide-title">
          {t('responses.decide.title', { name: family.name, side: t(`side.${lane}`) })}
        </DialogTitle>
        <Fields>
          <DraftNote since={draft.since} onDiscard={draft.clear} />
          <RadioGroup
            aria-labelledby="decide-title"
            value={action}
            onChange={(_, chosen) => {
              setAction(chosen as Action)
            }}
          >
            {ACTIONS.map((each) => (
              <FormControlLabel
                key={each}
                value={each}
                control={<Radio />}
                label={t(`responses.decide.${each}`)}
              />
            ))}
          </RadioGroup>
          <TextField
            label={t('responses.decide.why')}
            value={draft.value}
            error={problems['reason'] !== undefined}
            helperText={problems['reason'] ?? t('responses.decide.whyMore')}
            onChange={(event) => {
              draft.set(event.target.value)
            }}
            multiline
          />
          <Refused error={problems['reason'] === undefined ? decide.error : null} />
        </Fields>
        <DialogActions>
          {own && (
            <Button
              disabled={decide.isPending}
              onClick={() => {
                send('as_computed', '')
              }}
            >
              {t('responses.decide.as_computed')}
            </Button>
          )}
          <Button onClick={onClose}>{t('common.cancel')}</Button>
          <Button type="submit" variant="contained" disabled={decide.isPending}>
            {t('responses.decide.save')}
          </Button>
        </DialogActions>
      </form>
    </Dialog>
  )
}

import Button from '@mui/material/Button'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogTitle from '@mui/material/DialogTitle'
import TextField from '@mui/material/TextField'
import Typography from '@mui/material/Typography'
import { type SubmitEvent, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { ApiProblem } from '../../api/client'
import { useClientPath } from '../../common/route'
import { Fields, Rest, Row } from '../../common/ui/layout'
import { Failure, Refused } from '../../common/ui/States'
import { useDate, useKeepTemplate, usePutTemplateAway, useTemplates } from './queries'

interface Props {
  /** Whether there is a plan to keep. */
  planned: boolean
  busy: boolean
  onUse: (templateId: string) => void
  onClose: () => void
}

/** Orders the practice plans from: take one, keep this plan as one, put one away. */
export function Templates({ planned, busy, onUse, onClose }: Props) {
  const { t } = useTranslation()
  const { practice_id, client_id } = useClientPath()
  const query = useDate()
  const templates = useTemplates()
  const keep = useKeepTemplate()
  const putAway = usePutTemplateAway()
  const [name, setName] = useState('')
  const problems = keep.error instanceof ApiProblem ? keep.error.byField : {}
  const submit = (event: SubmitEvent) => {
    event.preventDefault()
    keep.mutate(
      { params: { path: { practice_id }, query }, body: { name: name.trim(), client_id } },
      {
        onSuccess: () => {
          setName('')
        },
      },
    )
  }
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="sm" aria-labelledby="templates-title">
      <DialogTitle id="templates-title">{t('plan.templates.title')}</DialogTitle>
      <Fields>
        {templates.isError && <Failure error={templates.error} again={() => void templates.refetch()} />}
        {templates.data?.length === 0 && (
          <Typography color="text.secondary">{t('plan.templates.none')}</Typography>
        )}
        {templates.data?.map((each) => (
          <Row key={each.id} gap={1.5} role="group" aria-label={each.name}>
            <Rest>
              <strong>{each.name}</strong>
              <Typography variant="note">{each.families.join(' · ')}</Typography>
            </Rest>
            <Button
              variant="outlined"
              disabled={busy}
              onClick={() => {
                onUse(each.id)
              }}
            >
              {t('plan.templates.use')}
            </Button>
            <Button
              disabled={putAway.isPending}
              onClick={() => {
                putAway.mutate({ params: { path: { practice_id, template_id: each.id } } })
              }}
            >
              {t('plan.templates.putAway')}
            </Button>
          </Row>
        ))}
        {planned && (
          <form onSubmit={submit}>
            <Row align="flex-start" gap={1.5}>
              <TextField
                label={t('plan.templates.name')}
                value={name}
                error={problems.name !== undefined}
                helperText={problems.name ?? t('plan.templates.nameMore')}
                onChange={(event) => {
                  setName(event.target.value)
                }}
                fullWidth
              />
              <Button type="submit" variant="outlined" size="large" disabled={keep.isPending}>
                {t('plan.templates.keep')}
              </Button>
            </Row>
          </form>
        )}
        <Refused error={problems.name === undefined ? keep.error : null} />
        <Refused error={putAway.error} />
      </Fields>
      <DialogActions>
        <Button onClick={onClose}>{t('common.close')}</Button>
      </DialogActions>
    </Dialog>
  )
}

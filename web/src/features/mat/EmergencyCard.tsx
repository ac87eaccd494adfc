import Button from '@mui/material/Button'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogTitle from '@mui/material/DialogTitle'
import TextField from '@mui/material/TextField'
import Typography from '@mui/material/Typography'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import type { Schemas } from '../../api/client'
import { timeOfDay } from '../../common/dates'
import { useKeptDraft } from '../../common/drafts'
import { useClientPath } from '../../common/route'
import { Contacts } from '../../common/ui/Contacts'
import { Fields, Row } from '../../common/ui/layout'
import { Refused } from '../../common/ui/States'
import { laneColour } from '../../theme/theme'
import { useIncident } from './queries'

interface Props {
  mat: Schemas['MatOut']
  client: Pick<Schemas['ClientOut'], 'name' | 'age'>
  onClose: () => void
}

/** What somebody who helps has to know, and what went wrong in one's own words. */
export function EmergencyCard({ mat, client, onClose }: Props) {
  const { t } = useTranslation()
  const path = useClientPath()
  const incident = useIncident()
  const draft = useKeptDraft(`incident:${path.client_id}:${mat.date}`, '')
  const [id, setId] = useState(() => crypto.randomUUID())
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="sm" aria-labelledby="card-title">
      <DialogTitle id="card-title">
        <span translate="no">{client.name}</span>
        {client.age !== null && `, ${t('mat.card.age', { count: client.age })}`}
      </DialogTitle>
      <Fields>
        {mat.card.length === 0 && <Typography>{t('mat.card.none')}</Typography>}
        {mat.card.map(({ label, side, doctor }) => (
          <div key={`${side ?? ''} ${label}`}>
            <strong style={side === null ? {} : { color: laneColour(side) }}>
              {side !== null && `${t(`side.${side}`)}: `}
              {label}
            </strong>
            {doctor !== '' && (
              <Typography variant="note">
                {t('mat.card.doctor')} {doctor}
              </Typography>
            )}
          </div>
        ))}
        {mat.contacts.length > 0 && <Contacts contacts={mat.contacts} />}
        {mat.incidents.map(({ at, text }) => (
          <Typography key={at} translate="no">
            {timeOfDay(new Date(at).getTime())}: {text}
          </Typography>
        ))}
        <Row align="flex-start">
          <TextField
            label={t('mat.card.incident')}
            value={draft.value}
            onChange={(event) => {
              draft.set(event.target.value)
            }}
            multiline
            minRows={2}
            fullWidth
          />
          <Button
            variant="outlined"
            size="large"
            disabled={incident.isPending || draft.value.trim().length < 3}
            onClick={() => {
              incident.mutate(
                { params: { path }, body: { id, text: draft.value.trim() } },
                {
                  onSuccess: () => {
                    draft.clear()
                    setId(crypto.randomUUID())
                  },
                },
              )
            }}
          >
            {t('mat.card.keep')}
          </Button>
        </Row>
        <Refused error={incident.error} />
      </Fields>
      <DialogActions>
        <Button onClick={onClose}>{t('common.close')}</Button>
      </DialogActions>
    </Dialog>
  )
}

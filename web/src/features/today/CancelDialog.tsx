import Button from '@mui/material/Button'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'
import { useTranslation } from 'react-i18next'
import type { Schemas } from '../../api/client'
import { clockTime, longDate } from '../../common/dates'
import { usePracticeId } from '../../common/route'
import { Refused } from '../../common/ui/States'
import { useCancel } from './queries'

interface Props {
  session: Schemas['SessionOut']
  onCancelled: (cancelled: Schemas['AppointmentOut'], following: boolean) => void
  onClose: () => void
}

/** Whether one appointment is meant, or those of its series that follow, too. */
export function CancelDialog({ session, onCancelled, onClose }: Props) {
  const { t } = useTranslation()
  const practice_id = usePracticeId()
  const cancel = useCancel()
  const go = (following: boolean) => () => {
    cancel.mutate(
      {
        params: { path: { practice_id, appointment_id: session.id } },
        body: { version: session.version, following },
      },
      {
        onSuccess: (cancelled) => {
          onCancelled(cancelled, following)
        },
      },
    )
  }
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="xs" aria-labelledby="cancel-title">
      <DialogTitle id="cancel-title">
        {t('today.cancelTitle', { time: clockTime(session.time), name: session.name })}
      </DialogTitle>
      <DialogContent>
        {longDate(session.date)}
        <Refused error={cancel.error} sx={{ mt: 2 }} />
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>{t('today.keep')}</Button>
        {session.following > 0 && (
          <Button variant="outlined" disabled={cancel.isPending} onClick={go(true)}>
            {t('today.cancelFollowing')}
          </Button>
        )}
        <Button variant="contained" disabled={cancel.isPending} onClick={go(false)}>
          {t(session.following > 0 ? 'today.cancelOne' : 'today.cancel')}
        </Button>
      </DialogActions>
    </Dialog>
  )
}

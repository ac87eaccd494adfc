import Dialog from '@mui/material/Dialog'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'
import Typography from '@mui/material/Typography'
import { useTranslation } from 'react-i18next'
import { useSessionEnded } from '../../common/session'
import { SignInForm } from './SignInForm'

/** A sign-in over the page whose session ended. What waited for an answer then gets it. */
export function SessionEnded() {
  const { t } = useTranslation()
  return (
    // Over the dialogs of the screens beneath as well.
    <Dialog open={useSessionEnded()} aria-labelledby="session-ended" sx={{ zIndex: 1500 }}>
      <DialogTitle id="session-ended">{t('common.signedOutTitle')}</DialogTitle>
      <DialogContent sx={{ width: 420 }}>
        <Typography sx={{ mb: 2 }}>{t('common.signedOutMore')}</Typography>
        <SignInForm />
      </DialogContent>
    </Dialog>
  )
}

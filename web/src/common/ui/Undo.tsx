import Alert from '@mui/material/Alert'
import Button from '@mui/material/Button'
import Snackbar from '@mui/material/Snackbar'
import { useTranslation } from 'react-i18next'

const IN_SIGHT_MS = 20_000

interface Props {
  /** What was done. */
  text: string
  /** The way back; why it failed is said in its place. */
  back: { isPending: boolean; error: Error | null }
  onUndo: () => void
  onClose: () => void
}

/** Something was taken away: said, with the way back while it is in sight. */
export function Undo({ text, back, onUndo, onClose }: Props) {
  const { t } = useTranslation()
  return (
    <Snackbar
      open
      autoHideDuration={back.error === null ? IN_SIGHT_MS : null}
      onClose={(_, reason) => {
        if (reason !== 'clickaway') onClose()
      }}
    >
      <Alert
        severity={back.error === null ? 'info' : 'error'}
        variant="filled"
        action={
          <Button color="inherit" disabled={back.isPending} onClick={onUndo}>
            {t('common.undo')}
          </Button>
        }
      >
        {back.error === null ? text : back.error.message}
      </Alert>
    </Snackbar>
  )
}

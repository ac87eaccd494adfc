import Button from '@mui/material/Button'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'
import Typography from '@mui/material/Typography'
import { useTranslation } from 'react-i18next'
import { Refused } from '../../common/ui/States'
import { usePracticeId } from '../../common/route'
import { useRetireVariation } from './queries'

interface Props {
  variationId: string
  name: string
  number: number
  onClose: () => void
}

export function RetireDialog({ variationId, name, number, onClose }: Props) {
  const { t } = useTranslation()
  const practice_id = usePracticeId()
  const retire = useRetireVariation()
  return (
    <Dialog open onClose={onClose} maxWidth="xs" aria-labelledby="retire-title">
      <DialogTitle id="retire-title">{t('library.retireTitle', { name })}</DialogTitle>
      <DialogContent>
        <Typography>{t('library.retireMore')}</Typography>
        <Refused error={retire.error} sx={{ mt: 2 }} />
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>{t('common.cancel')}</Button>
        <Button
          variant="contained"
          disabled={retire.isPending}
          onClick={() => {
            retire.mutate(
              { params: { path: { practice_id, variation_id: variationId } }, body: { number } },
              { onSuccess: onClose },
            )
          }}
        >
          {t('library.retire')}
        </Button>
      </DialogActions>
    </Dialog>
  )
}

import Alert from '@mui/material/Alert'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'
import { useTranslation } from 'react-i18next'
import { longDate } from '../../common/dates'
import { Failure, Working } from '../../common/ui/States'
import { usePracticeId } from '../../common/route'
import type { VariationFile } from './model'
import { useChangeVariation, useVersions } from './queries'

interface Props {
  variationId: string
  number: number
  onClose: () => void
}

/** Every version of one of the practice's own variations; an earlier one can be made the next. */
export function VersionsDialog({ variationId, number, onClose }: Props) {
  const { t } = useTranslation()
  const practice_id = usePracticeId()
  const versions = useVersions(variationId)
  const change = useChangeVariation()
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="sm" aria-labelledby="versions-title">
      <DialogTitle id="versions-title">{t('library.versions')}</DialogTitle>
      <DialogContent>
        {versions.isPending && <Working />}
        {versions.isError && <Failure error={versions.error} again={() => void versions.refetch()} />}
        {change.isError && (
          <Alert severity="error" variant="outlined">
            {change.error.message}
          </Alert>
        )}
        {versions.data?.map((version) => (
          <Box key={version.id} sx={{ display: 'flex', gap: 2, alignItems: 'center', py: 0.75 }}>
            <strong style={{ width: 28 }}>{version.number}</strong>
            <Box sx={{ flex: 1 }}>
              <div>{(version.file as unknown as VariationFile).variation.name}</div>
              <Box sx={{ color: 'text.secondary', fontSize: '0.9rem' }}>
                {longDate(version.saved_on)}, {version.saved_by}
                {version.retired && ` — ${t('library.putAway')}`}
              </Box>
            </Box>
            {(version.number !== number || version.retired) && (
              <Button
                size="small"
                disabled={change.isPending}
                onClick={() => {
                  change.mutate(
                    {
                      params: { path: { practice_id, variation_id: variationId } },
                      body: { number, file: version.file },
                    },
                    { onSuccess: onClose },
                  )
                }}
              >
                {t('library.bringBack')}
              </Button>
            )}
          </Box>
        ))}
      </DialogContent>
      <DialogActions>
        <Button variant="contained" onClick={onClose}>
          {t('common.close')}
        </Button>
      </DialogActions>
    </Dialog>
  )
}

import Typography from '@mui/material/Typography'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'
import { useTranslation } from 'react-i18next'
import { longDate } from '../../common/dates'
import { Failure, Working, Refused } from '../../common/ui/States'
import { usePracticeId } from '../../common/route'
import { Rest } from '../../common/ui/layout'
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
        <Refused error={change.error} />
        {versions.data?.map((version) => (
          <Box key={version.id} sx={{ display: 'flex', gap: 2, alignItems: 'center', py: 0.75 }}>
            <strong style={{ width: 28 }}>{version.number}</strong>
            <Rest>
              <div>{(version.file as unknown as VariationFile).variation.name}</div>
              <Typography variant="note">
                {longDate(version.saved_on)}, {version.saved_by}
                {version.retired && ` — ${t('library.putAway')}`}
              </Typography>
            </Rest>
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

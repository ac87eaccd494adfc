import Alert from '@mui/material/Alert'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Skeleton from '@mui/material/Skeleton'
import Typography from '@mui/material/Typography'
import type { SxProps, Theme } from '@mui/material/styles'
import type { ReactNode } from 'react'
import { useTranslation } from 'react-i18next'
import { Link, useParams } from 'react-router'
import { ApiProblem } from '../../api/client'
import { addressOf, screenById } from '../screens'

/** Shown while something is worked out: where words and figures will be. */
export function Working() {
  const { t } = useTranslation()
  return (
    <Box sx={{ maxWidth: 720, p: 3 }} role="status">
      <Typography color="text.secondary" sx={{ mb: 1.5 }}>
        {t('common.loading')}
      </Typography>
      {[62, 88, 74].map((share) => (
        <Skeleton key={share} animation={false} height={30} width={`${share.toString()}%`} />
      ))}
    </Box>
  )
}

/** Whether an answer needs this client's stature first. */
export function isStatureMissing(error: Error): boolean {
  return error instanceof ApiProblem && error.problem.code === 'stature_missing'
}

/** Why something could not be stored, beside what was typed; nothing while all is well. */
export function Refused({ error, sx }: { error: Error | null; sx?: SxProps<Theme> }) {
  if (error === null) return null
  return (
    <Alert severity="error" sx={sx ?? null}>
      {error.message}
    </Alert>
  )
}

interface FailureProps {
  error: Error
  again?: () => void
}

/** Shown when an answer could not be had, with what mends it: what is missing first, or trying again. */
export function Failure({ error, again }: FailureProps) {
  const { t } = useTranslation()
  const { practiceId, clientId } = useParams()
  if (isStatureMissing(error) && practiceId !== undefined && clientId !== undefined) {
    return (
      <Empty
        title={t('common.needsStature')}
        more={t('common.needsStatureMore')}
        action={
          <Button
            component={Link}
            to={addressOf(screenById('measures'), practiceId, clientId)}
            variant="contained"
          >
            {t('common.toMeasures')}
          </Button>
        }
      />
    )
  }
  return (
    <Alert
      role="alert"
      severity="error"

      sx={{ maxWidth: 640, mx: 'auto', my: 2 }}
      action={
        again && (
          <Button color="inherit" onClick={again} sx={{ whiteSpace: 'nowrap' }}>
            {t('common.again')}
          </Button>
        )
      }
    >
      <strong>{t('common.failed')}.</strong> {error.message}
    </Alert>
  )
}

/** Nothing to show yet, and what to do about it. */
export function Empty({ title, more, action }: { title: string; more?: string; action?: ReactNode }) {
  return (
    <Box sx={{ textAlign: 'center', maxWidth: 460, mx: 'auto', my: 8 }}>
      <Typography variant="h2" component="p" gutterBottom>
        {title}
      </Typography>
      {more !== undefined && (
        <Typography color="text.secondary" sx={{ mb: 2 }}>
          {more}
        </Typography>
      )}
      {action}
    </Box>
  )
}

export function NothingHere() {
  const { t } = useTranslation()
  return (
    <Empty
      title={t('common.nothingHere')}
      more={t('common.nothingHereMore')}
      action={
        <Button component={Link} to="/" variant="outlined">
          {t('common.toClients')}
        </Button>
      }
    />
  )
}

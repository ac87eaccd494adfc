import Box from '@mui/material/Box'
import Typography from '@mui/material/Typography'
import { useTranslation } from 'react-i18next'
import { Outlet } from 'react-router'
import { ApiProblem } from '../../api/client'
import { colours } from '../../app/theme'
import { useClientHead } from '../../common/head'
import { Failure, NothingHere, Working } from '../../common/ui/States'
import { Band } from './Band'
import { MindColumn } from './MindColumn'

/** Every client view: the working-order band above, what to mind on the left. */
export function ClientFrame() {
  const { t } = useTranslation()
  const head = useClientHead()
  if (head.isPending) return <Working />
  if (head.isError) {
    const missing = head.error instanceof ApiProblem && [404, 422].includes(head.error.status)
    return missing ? <NothingHere /> : <Failure error={head.error} again={() => void head.refetch()} />
  }
  const { client, stature_cm } = head.data
  const stature = stature_cm === null ? null : t('common.amount.cm', { value: stature_cm.toFixed(0) })
  const about = [client.age, stature].filter((part) => part !== null).join(' · ')
  return (
    <>
      <Box
        sx={{
          bgcolor: colours.panel,
          borderBottom: `1px solid ${colours.line}`,
          px: 2.75,
          minHeight: 52,
          display: 'flex',
          alignItems: 'center',
          gap: 3.5,
          flexWrap: 'wrap',
        }}
      >
        <Box sx={{ display: 'flex', alignItems: 'baseline', gap: 1 }}>
          <Typography translate="no" variant="h2" component="h1">
            {client.name}
          </Typography>
          <Typography color="text.secondary" sx={{ fontSize: '0.92rem' }}>
            {about}
            {about !== '' && client.occupation !== '' && ' · '}
            <span translate="no">{client.occupation}</span>
          </Typography>
        </Box>
        <Band stops={head.data.band} />
      </Box>
      <Box
        sx={{ display: 'grid', gridTemplateColumns: '224px minmax(0, 1fr)', minHeight: 'calc(100vh - 98px)' }}
      >
        <MindColumn head={head.data} />
        <Box component="main" sx={{ px: 2.5, py: 2 }}>
          <Outlet />
        </Box>
      </Box>
    </>
  )
}

import Alert from '@mui/material/Alert'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Typography from '@mui/material/Typography'
import { lazy, Suspense, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Link, Outlet, useMatch } from 'react-router'
import { ApiProblem, type Schemas } from '../../api/client'
import { useClientHead } from '../../common/head'
import { length } from '../../common/practice'
import { useClientPath } from '../../common/route'
import { addressOf, screenById } from '../../common/screens'
import { useMayWrite } from '../../common/session'
import { Main } from '../../common/ui/Main'
import { Failure, NothingHere, Working } from '../../common/ui/States'
import { ViewTitle } from '../../common/ui/ViewTitle'
import { Band } from './Band'
import { FirstSteps } from './FirstSteps'
import { Mind } from './Mind'
import { useArchive } from './queries'

/** Loaded when it is first opened, its calendar with it. */
const EditClientDialog = lazy(async () => ({
  default: (await import('./EditClientDialog')).EditClientDialog,
}))

/** Every client view: the working-order band above, what to mind on the left or, where there is little room, above. */
export function ClientFrame() {
  const { t } = useTranslation()
  const head = useClientHead()
  const { practice_id } = useClientPath()
  const mayWrite = useMayWrite(practice_id)
  const [editing, setEditing] = useState(false)
  if (head.isPending) return <Working />
  if (head.isError) {
    const missing = head.error instanceof ApiProblem && [404, 422].includes(head.error.status)
    return missing ? <NothingHere /> : <Failure error={head.error} again={() => void head.refetch()} />
  }
  const { client, stature_cm } = head.data
  const stature = stature_cm === null ? null : length(t, stature_cm)
  const about = [client.age, stature].filter((part) => part !== null).join(' · ')
  return (
    <>
      <Box
        component="section"
        aria-label={t('band.client')}
        sx={{
          bgcolor: 'surface.panel',
          borderBottom: 1,
          borderColor: 'divider',
          px: { xs: 1.5, md: 2.75 },
          minHeight: 52,
          display: 'flex',
          alignItems: 'center',
          columnGap: 3.5,
          flexWrap: { xs: 'wrap', lg: 'nowrap' },
          '@media print': { display: 'none' },
        }}
      >
        <Box
          sx={{
            display: 'flex',
            alignItems: 'baseline',
            columnGap: 1,
            flexWrap: 'wrap',
            pt: { xs: 0.75, lg: 0 },
          }}
        >
          <Typography translate="no" variant="h2" component="p">
            {client.name}
          </Typography>
          <Typography variant="note">
            {about}
            {about !== '' && client.occupation !== '' && ' · '}
            <span translate="no">{client.occupation}</span>
          </Typography>
          {mayWrite && (
            <Button
              size="small"
              color="inherit"
              aria-label={t('clients.edit')}
              onClick={() => {
                setEditing(true)
              }}
              sx={{ minWidth: 0, px: 0.75, py: 0, fontWeight: 400, textDecoration: 'underline' }}
            >
              {t('clients.editShort')}
            </Button>
          )}
        </Box>
        <Band stops={head.data.band} />
        {editing && (
          <Suspense>
            <EditClientDialog
              client={client}
              onClose={() => {
                setEditing(false)
              }}
            />
          </Suspense>
        )}
      </Box>
      {client.archived && <PutAway mayWrite={mayWrite} />}
      {head.data.doctor !== null && <DoctorFirst doctor={head.data.doctor} />}
      <Box
        sx={{
          display: { mind: 'grid' },
          gridTemplateColumns: '224px minmax(0, 1fr)',
          minHeight: 'calc(100vh - 98px)',
        }}
      >
        <Mind head={head.data} />
        <Main sx={{ px: { xs: 1.5, md: 2.5 }, py: 2, minWidth: 0 }}>
          <ViewTitle about={client.name} />
          <FirstSteps band={head.data.band} />
          <Outlet />
        </Main>
      </Box>
    </>
  )
}

/** A sign that belongs to a doctor is recorded: said calmly above everything, with the way to what to do. */
function DoctorFirst({ doctor }: { doctor: Schemas['DoctorOut'] }) {
  const { t } = useTranslation()
  const { practice_id, client_id } = useClientPath()
  const there = useMatch(screenById('doctor').path.replace('clients', '/practices/:practiceId/clients'))
  if (there !== null) return null
  return (
    <Alert
      severity="info"
      icon={false}
      role="status"
      sx={{ fontSize: '1rem', '@media print': { display: 'none' } }}
      action={
        <Button
          component={Link}
          color="inherit"
          to={addressOf(screenById('doctor'), practice_id, client_id)}
          sx={{ whiteSpace: 'nowrap' }}
        >
          {t('doctor.open')}
        </Button>
      }
    >
      <strong>{t('doctor.notice', { headline: doctor.headline })}</strong> {doctor.meanwhile}
    </Alert>
  )
}

/** Somebody who is in no list: said above everything, with the way back. */
function PutAway({ mayWrite }: { mayWrite: boolean }) {
  const { t } = useTranslation()
  const path = useClientPath()
  const archive = useArchive()
  return (
    <Alert
      severity={archive.isError ? 'error' : 'info'}
      role="status"
      action={
        mayWrite && (
          <Button
            color="inherit"
            disabled={archive.isPending}
            onClick={() => {
              archive.mutate({ params: { path }, body: { archived: false } })
            }}
          >
            {t('clients.bringBack')}
          </Button>
        )
      }
    >
      {archive.error?.message ?? t('clients.isAway')}
    </Alert>
  )
}

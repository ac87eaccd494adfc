import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import TextField from '@mui/material/TextField'
import ToggleButton from '@mui/material/ToggleButton'
import Typography from '@mui/material/Typography'
import { lazy, Suspense, useMemo, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { useSearchParams } from 'react-router'
import { useAhead } from '../../common/ahead'
import { Main } from '../../common/ui/Main'
import { Empty, Failure, Working } from '../../common/ui/States'
import { ViewTitle } from '../../common/ui/ViewTitle'
import { ImportClient } from './ImportClient'
import { firstChanges } from './model'
import { useClients } from './queries'

/** The heavy part of the view: what stands around it is there before. */
const ClientsTable = lazy(async () => ({ default: (await import('./ClientsTable')).ClientsTable }))
/** Loaded when it is first opened, its calendar with it. */
const NewClientDialog = lazy(async () => ({ default: (await import('./NewClientDialog')).NewClientDialog }))

/** Everybody of the practice, what each side brings facing each other. */
export function ClientsScreen() {
  const { t } = useTranslation()
  const [text, setText] = useState('')
  // From elsewhere one comes here to add somebody.
  const [params, setParams] = useSearchParams()
  const [adding, setAdding] = useState(() => params.has('new'))
  const [archived, setArchived] = useState(false)
  const clients = useClients(text, archived)
  const changes = useAhead().data?.changes
  const nextChanges = useMemo(() => firstChanges(changes ?? []), [changes])
  return (
    <Main sx={{ maxWidth: 1160, mx: 'auto', px: { xs: 1.5, md: 3 }, py: { xs: 1.5, md: 3 } }}>
      <ViewTitle />
      <Box sx={{ display: 'flex', alignItems: 'center', flexWrap: 'wrap', gap: 1.5, mb: 2.5 }}>
        <Typography variant="h1" component="p" aria-hidden sx={{ flex: '1 0 auto' }}>
          {t('clients.title')}
        </Typography>
        <TextField
          label={t('clients.find')}
          value={text}
          onChange={(event) => {
            setText(event.target.value)
          }}
          sx={{ flex: '0 1 280px', minWidth: 200 }}
        />
        <ToggleButton
          value="archived"
          selected={archived}
          onChange={() => {
            setArchived(!archived)
          }}
          sx={{ minHeight: 40 }}
        >
          {t('clients.archived')}
        </ToggleButton>
        <ImportClient />
        <Button
          variant="contained"
          onClick={() => {
            setAdding(true)
          }}
        >
          {t('clients.new')}
        </Button>
      </Box>
      {clients.isPending && <Working />}
      {clients.isError && <Failure error={clients.error} again={() => void clients.refetch()} />}
      {clients.data?.length === 0 && (
        <Empty
          title={
            text !== ''
              ? t('clients.noneFound', { text })
              : t(archived ? 'clients.noneArchived' : 'clients.none')
          }
          more={text === '' && !archived ? t('clients.noneMore') : undefined}
        />
      )}
      {clients.data !== undefined && clients.data.length > 0 && (
        <Suspense fallback={<Working />}>
          <ClientsTable clients={clients.data} ahead={nextChanges} />
        </Suspense>
      )}
      {adding && (
        <Suspense>
          <NewClientDialog
            onClose={() => {
              setAdding(false)
              setParams({}, { replace: true })
            }}
          />
        </Suspense>
      )}
    </Main>
  )
}

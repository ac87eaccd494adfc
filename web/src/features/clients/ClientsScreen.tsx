import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import TextField from '@mui/material/TextField'
import Typography from '@mui/material/Typography'
import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { useEffect, useRef, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Link, useSearchParams } from 'react-router'
import { api, type Schemas, unwrap } from '../../api/client'
import { colours, serif } from '../../app/theme'
import { shortDate } from '../../common/dates'
import { clientAddress, usePracticeId } from '../../common/route'
import { Empty, Failure, Working } from '../../common/ui/States'
import { ImportClient } from './ImportClient'
import { NewClientDialog } from './NewClientDialog'

/** Everybody of the practice, what each side brings facing each other. */
export function ClientsScreen() {
  const { t } = useTranslation()
  const practiceId = usePracticeId()
  const [text, setText] = useState('')
  const [adding, setAdding] = useState(false)
  const [search] = useSearchParams()
  const field = useRef<HTMLInputElement>(null)
  useEffect(() => {
    if (search.has('find')) field.current?.focus()
  }, [search])
  const clients = useQuery({
    queryKey: ['clients', practiceId, text],
    queryFn: () =>
      unwrap(
        api.POST('/api/practices/{practice_id}/clients/search', {
          params: { path: { practice_id: practiceId } },
          body: { text },
        }),
      ),
    placeholderData: keepPreviousData,
  })
  return (
    <Box component="main" sx={{ maxWidth: 1120, mx: 'auto', px: 3, py: 3 }}>
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 2, mb: 2.5 }}>
        <Typography variant="h1" sx={{ flex: 1 }}>
          {t('clients.title')}
        </Typography>
        <TextField
          inputRef={field}
          label={t('clients.find')}
          value={text}
          onChange={(event) => {
            setText(event.target.value)
          }}
          sx={{ width: 280 }}
        />
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
          title={text === '' ? t('clients.none') : t('clients.noneFound', { text })}
          more={text === '' ? t('clients.noneMore') : undefined}
        />
      )}
      {clients.data !== undefined && clients.data.length > 0 && (
        <Box component="ul" sx={{ listStyle: 'none', p: 0, m: 0 }}>
          <Box aria-hidden sx={{ ...columns, color: 'text.secondary', fontSize: '0.85rem', pb: 0.75 }}>
            <span>{t('clients.client')}</span>
            <Box sx={{ color: colours.left, fontWeight: 700, textAlign: 'right' }}>{t('side.left')}</Box>
            <Box sx={{ fontWeight: 700, textAlign: 'center' }}>{t('clients.whole')}</Box>
            <Box sx={{ color: colours.right, fontWeight: 700 }}>{t('side.right')}</Box>
            <span />
          </Box>
          {clients.data.map((client) => (
            <ClientRow key={client.id} client={client} practiceId={practiceId} />
          ))}
        </Box>
      )}
      {adding && (
        <NewClientDialog
          onClose={() => {
            setAdding(false)
          }}
        />
      )}
    </Box>
  )
}

const columns = {
  display: 'grid',
  gridTemplateColumns: '270px 1fr 0.8fr 1fr 130px',
  columnGap: 3,
  px: 1.5,
} as const

function ClientRow({ client, practiceId }: { client: Schemas['ClientLine']; practiceId: string }) {
  const { t } = useTranslation()
  const nothing = client.left.length + client.middle.length + client.right.length === 0
  return (
    <Box component="li" sx={{ borderTop: `1px solid ${colours.line}` }}>
      <Box
        component={Link}
        to={clientAddress(practiceId, client.id, nothing ? 'limits' : 'choose')}
        sx={{
          ...columns,
          alignItems: 'center',
          py: 1.5,
          color: 'inherit',
          textDecoration: 'none',
          '&:hover': { bgcolor: colours.panel },
        }}
      >
        <Box>
          <Box translate="no" sx={{ fontFamily: serif, fontWeight: 600, fontSize: '1.12rem' }}>
            {client.name}
          </Box>
          <Box translate="no" sx={{ color: 'text.secondary', fontSize: '0.92rem' }}>
            {[client.age, client.occupation].filter(Boolean).join(' · ')}
          </Box>
        </Box>
        <Records lines={client.left} align="right" colour={colours.left} />
        <Records lines={client.middle} align="center" colour={colours.both} />
        <Records lines={client.right} align="left" colour={colours.right} />
        <Box sx={{ color: 'text.secondary', fontSize: '0.88rem', textAlign: 'right' }}>
          {client.trouble !== '' && (
            <Box sx={{ color: colours.ink, fontWeight: 600 }}>
              {t('clients.trouble', { trouble: client.trouble })}
            </Box>
          )}
          {nothing && client.trouble === '' && <div>{t('clients.nothingRecorded')}</div>}
          {client.last_visit === null
            ? t('clients.neverHere')
            : t('clients.lastVisit', { date: shortDate(client.last_visit) })}
        </Box>
      </Box>
    </Box>
  )
}

const EDGES = {
  right: { borderRight: 3, pr: 1.25 },
  left: { borderLeft: 3, pl: 1.25 },
  center: { borderLeft: 3, borderRight: 3, px: 1 },
} as const

function Records({ lines, align, colour }: { lines: string[]; align: keyof typeof EDGES; colour: string }) {
  const border = { ...EDGES[align], borderColor: colour }
  return (
    <Box sx={{ textAlign: align, fontSize: '0.95rem', minHeight: 22, ...(lines.length > 0 ? border : {}) }}>
      {lines.map((line) => (
        <div key={line}>{line}</div>
      ))}
    </Box>
  )
}

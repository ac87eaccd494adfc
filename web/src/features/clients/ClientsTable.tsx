import Typography from '@mui/material/Typography'
import Box from '@mui/material/Box'
import useMediaQuery from '@mui/material/useMediaQuery'
import type { GridCellParams, GridColDef, GridRenderCellParams, GridRowParams } from '@mui/x-data-grid'
import { useMemo } from 'react'
import { useTranslation } from 'react-i18next'
import { Link, useNavigate } from 'react-router'
import type { Lane, Schemas } from '../../api/client'
import { shortDate } from '../../common/dates'
import { usePracticeId } from '../../common/route'
import { addressOf, screenById } from '../../common/screens'
import { Grid } from '../../common/ui/Grid'
import { laneColour, serif } from '../../theme/theme'
import { firstStop, recordsOf } from './model'

type Line = Schemas['ClientLine']
type Cell = GridRenderCellParams<Line>

const LANES: readonly Lane[] = ['left', 'both', 'right']
const ALIGNED = { left: 'right', both: 'center', right: 'left' } as const

interface Props {
  clients: readonly Line[]
  /** The day of the next change of limits, by client; of who has none there is none. */
  ahead: ReadonlyMap<string, string>
}

/** Clients as a table to sort, filter and page through: left and right face each other across the whole body. */
export function ClientsTable({ clients, ahead }: Props) {
  const { t } = useTranslation()
  const practiceId = usePracticeId()
  const navigate = useNavigate()
  const roomy = useMediaQuery((theme) => theme.breakpoints.up('md'))
  const columns = useMemo((): GridColDef<Line>[] => {
    const address = (client: Line) => addressOf(screenById(firstStop(client)), practiceId, client.id)
    const sided = (lane: Lane): GridColDef<Line> => ({
      field: lane,
      headerName: lane === 'both' ? t('clients.whole') : t(`side.${lane}`),
      headerClassName: `lane-${lane}`,
      flex: lane === 'both' ? 0.8 : 1,
      minWidth: 130,
      headerAlign: ALIGNED[lane],
      align: ALIGNED[lane],
      valueGetter: (_, client) => recordsOf(client, lane).join(', '),
      renderCell: ({ row }: Cell) => <Records lines={recordsOf(row, lane)} lane={lane} />,
    })
    const next: GridColDef<Line> = {
      field: 'next_visit',
      headerName: t('clients.nextHere'),
      width: 124,
      align: 'right',
      headerAlign: 'right',
      // Who is not booked comes after everybody who is.
      valueGetter: (_, client) => client.next_visit ?? NEVER,
      renderCell: ({ row }: Cell) => <Day date={row.next_visit ?? undefined} />,
    }
    const change: GridColDef<Line> = {
      field: 'change',
      headerName: t('clients.nextChange'),
      width: 128,
      align: 'right',
      headerAlign: 'right',
      valueGetter: (_, client) => ahead.get(client.id) ?? NEVER,
      renderCell: ({ row }: Cell) => <Day date={ahead.get(row.id)} />,
    }
    return [
      {
        field: 'name',
        headerName: t('clients.client'),
        flex: 1.1,
        minWidth: 180,
        renderCell: ({ row, tabIndex }: Cell) => (
          <Box sx={{ minWidth: 0 }}>
            <Box
              component={Link}
              to={address(row)}
              tabIndex={tabIndex}
              translate="no"
              sx={{
                fontFamily: serif,
                fontWeight: 600,
                fontSize: '1.12rem',
                display: 'inline-block',
                minHeight: 24,
                color: 'inherit',
                textDecoration: 'none',
              }}
            >
              {row.name}
            </Box>
            <Typography variant="note" translate="no">
              {[row.age, row.occupation].filter(Boolean).join(' · ')}
            </Typography>
            {!roomy && row.next_visit !== null && (
              <Typography variant="note">
                {t('clients.nextHere')}: {shortDate(row.next_visit)}
              </Typography>
            )}
            {!roomy && LANES.map((lane) => <NamedRecords key={lane} client={row} lane={lane} />)}
          </Box>
        ),
      },
      ...(roomy ? LANES.map(sided) : []),
      ...(roomy ? [next, change] : []),
      {
        field: 'last_visit',
        headerName: t('clients.lastHere'),
        width: 136,
        align: 'right',
        headerAlign: 'right',
        // Who was never here comes after everybody who was.
        valueGetter: (_, client) => client.last_visit ?? '',
        renderCell: ({ row }: Cell) => <LastHere client={row} />,
      },
    ]
  }, [t, practiceId, roomy, ahead])
  const open = (client: Line) => {
    void navigate(addressOf(screenById(firstStop(client)), practiceId, client.id))
  }
  return (
    <Box sx={{ '& .MuiDataGrid-cell': { cursor: 'pointer', py: 1.5 } }}>
      <Grid
        label={t('clients.title')}
        rows={clients}
        columns={columns}
        onRowClick={({ row }: GridRowParams<Line>) => {
          open(row)
        }}
        onCellKeyDown={({ row, field }: GridCellParams<Line>, event) => {
          // The name is a link of its own.
          if (event.key === 'Enter' && field !== 'name') open(row)
        }}
      />
    </Box>
  )
}

function Day({ date }: { date: string | undefined }) {
  return date !== undefined && <Typography variant="note">{shortDate(date)}</Typography>
}

/** A day after every other. */
const NEVER = '9999'

const EDGES = {
  left: { borderRight: 3, pr: 1.25, textAlign: 'right' },
  both: { borderLeft: 3, borderRight: 3, px: 1, textAlign: 'center' },
  right: { borderLeft: 3, pl: 1.25, textAlign: 'left' },
} as const

function Records({ lines, lane }: { lines: readonly string[]; lane: Lane }) {
  if (lines.length === 0) return null
  return (
    <Box sx={{ fontSize: '0.95rem', whiteSpace: 'normal', ...EDGES[lane], borderColor: `${lane}.main` }}>
      {lines.map((line) => (
        <div key={line}>{line}</div>
      ))}
    </Box>
  )
}

/** The same where there is no room for columns: each line with its side. */
function NamedRecords({ client, lane }: { client: Line; lane: Lane }) {
  const { t } = useTranslation()
  const lines = recordsOf(client, lane)
  if (lines.length === 0) return null
  return (
    <Box sx={{ fontSize: '0.92rem', whiteSpace: 'normal' }}>
      <strong style={{ color: laneColour(lane) }}>{t(`side.${lane}`)}: </strong>
      {lines.join(', ')}
    </Box>
  )
}

function LastHere({ client }: { client: Line }) {
  const { t } = useTranslation()
  return (
    <Box sx={{ color: 'text.secondary', fontSize: '0.92rem', textAlign: 'right', whiteSpace: 'normal' }}>
      {client.trouble !== '' && (
        <Box sx={{ color: 'text.primary', fontWeight: 600 }}>
          {t('clients.trouble', { trouble: client.trouble })}
        </Box>
      )}
      {firstStop(client) === 'limits' && client.trouble === '' && <div>{t('clients.nothingRecorded')}</div>}
      {client.last_visit === null ? t('clients.neverHere') : shortDate(client.last_visit)}
    </Box>
  )
}

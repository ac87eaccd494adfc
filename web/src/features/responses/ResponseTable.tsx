import Typography from '@mui/material/Typography'
import useMediaQuery from '@mui/material/useMediaQuery'
import type { GridColDef, GridRenderCellParams } from '@mui/x-data-grid'
import type { TFunction } from 'i18next'
import { useMemo } from 'react'
import { useTranslation } from 'react-i18next'
import type { Schemas } from '../../api/client'
import { shortDate } from '../../common/dates'
import { Grid } from '../../common/ui/Grid'
import { laneColour } from '../../theme/theme'
import { type Line, tableRows } from './model'

type Row = Line & { id: string }
type Cell = GridRenderCellParams<Row>

/** Every hold, newest first; sorted and filtered as one likes. */
export function ResponseTable({ family }: { family: Schemas['ResponseFamily'] }) {
  const { t } = useTranslation()
  const roomy = useMediaQuery((theme) => theme.breakpoints.up('md'))
  const rows = useMemo(
    () => tableRows(family).map((line) => ({ ...line, id: `${line.point.id}${line.side}` })),
    [family],
  )
  const columns = useMemo(() => columnsOf(t, roomy), [t, roomy])
  return (
    <>
      <Typography variant="h3" sx={{ mt: 2, mb: 0.5 }}>
        {t('responses.table')}
      </Typography>
      <Grid label={`${family.name}: ${t('responses.table')}`} rows={rows} columns={columns} />
    </>
  )
}

/** What a column holds is what it sorts and filters by; a date by its day, discomfort by what was felt during. */
function columnsOf(t: TFunction, roomy: boolean): GridColDef<Row>[] {
  const column = (name: Column, width: number, more: Partial<GridColDef<Row>>): GridColDef<Row> => ({
    field: name,
    headerName: t(`responses.columns.${name}`),
    // Words take what is left; the others what they need.
    ...(WORDY.has(name) ? { flex: width / 100, minWidth: width } : { width }),
    ...more,
  })
  const all = [
    column('date', 80, {
      valueGetter: (_, { point, order }) => `${point.date} ${order.toString().padStart(5, '0')}`,
      renderCell: ({ row }: Cell) => shortDate(row.point.date),
    }),
    column('side', 70, {
      valueGetter: (_, { side }) => t(`side.${side}`),
      renderCell: ({ row: { side } }: Cell) => (
        <strong style={{ color: laneColour(side) }}>{t(`side.${side}`)}</strong>
      ),
    }),
    column('rung', 90, {
      valueGetter: (_, { point }) => point.short,
      ...(roomy ? {} : { renderCell: ({ row }: Cell) => <Told row={row} /> }),
    }),
    column('setup', 110, { valueGetter: (_, { point }) => point.setup_words }),
    column('dose', 110, { valueGetter: (_, { point }) => doseOf(t, point) }),
    column('discomfort', 192, {
      type: 'number',
      align: 'left',
      headerAlign: 'left',
      valueGetter: (_, { point }) => point.during,
      renderCell: ({ row: { point } }: Cell) => (
        <span>
          {point.before ?? '–'} / <strong>{point.during}</strong> / {point.after ?? '–'}
        </span>
      ),
    }),
    column('what', 130, {
      valueGetter: (_, { point }) => [whatOf(t, point), point.note].filter(Boolean).join(' '),
      renderCell: ({ row: { point } }: Cell) => (
        <span>
          {whatOf(t, point)} {point.note !== '' && <span translate="no">{point.note}</span>}
        </span>
      ),
    }),
    column('morning', 124, {
      valueGetter: (_, { point }) =>
        t(`responses.settled.${point.settled === null ? 'open' : point.settled ? 'yes' : 'no'}`),
    }),
    column('tolerance', 110, {
      valueGetter: (_, { point }) =>
        t(`choose.tolerance.${point.tolerance}`) + (point.why === '' ? '' : ` (${point.why})`),
    }),
  ]
  return roomy ? all : all.filter(({ field }) => NARROW.has(field))
}

type Column = 'date' | 'side' | 'rung' | 'setup' | 'dose' | 'discomfort' | 'what' | 'morning' | 'tolerance'
const WORDY: ReadonlySet<string> = new Set<Column>(['rung', 'setup', 'what', 'tolerance'])
/** What is read where there is room for little. */
const NARROW: ReadonlySet<string> = new Set<Column>(['date', 'side', 'rung', 'discomfort', 'tolerance'])

/** A hold in lines, where there is no room for its columns. */
function Told({ row: { point } }: { row: Row }) {
  const { t } = useTranslation()
  const rest = [point.setup_words, doseOf(t, point), whatOf(t, point)].filter(Boolean).join(' · ')
  return (
    <div>
      {point.short}
      <Typography variant="small">{rest}</Typography>
      {point.note !== '' && (
        <Typography variant="small" translate="no">
          {point.note}
        </Typography>
      )}
    </div>
  )
}

function doseOf(t: TFunction, { held_s, dose }: Schemas['ResponsePoint']): string {
  return held_s === null ? dose : t('mat.held', { held: held_s, dose })
}

function whatOf(t: TFunction, point: Schemas['ResponsePoint']): string {
  return [
    point.kind === null ? '' : t(`mat.kinds.${point.kind}`),
    point.place === null ? '' : t(`mat.places.${point.place}`),
    ...(point.signs ?? []).map((sign) => t(`mat.signs.${sign}`)),
    point.kind === null || point.place === null || point.signs === null ? t('responses.partNotSaid') : '',
  ]
    .filter(Boolean)
    .join(', ')
}

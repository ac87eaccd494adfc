import { DataGrid, type GridColDef, type GridEventListener, type GridValidRowModel } from '@mui/x-data-grid'
import { styled } from '@mui/material/styles'
import { useMemo } from 'react'
import { useTranslation } from 'react-i18next'
import { colours, laneColour } from '../../theme/theme'
import { gridText } from './gridText'

const PAGE = 25

interface Props<Row extends GridValidRowModel> {
  /** What it is called to those who listen. */
  label: string
  rows: readonly Row[]
  columns: GridColDef<Row>[]
  onRowClick?: GridEventListener<'rowClick'>
  onCellKeyDown?: GridEventListener<'cellKeyDown'>
}

/** A table to sort, filter and page through, as tall as what it holds. A heavy part: load it with its view's table. */
export function Grid<Row extends GridValidRowModel>({ label, rows, columns, ...on }: Props<Row>) {
  const { t } = useTranslation()
  const text = useMemo(() => gridText(t), [t])
  return (
    <Ours
      rows={rows}
      getRowHeight={() => 'auto'}
      disableRowSelectionOnClick
      disableColumnSelector
      // A page is short: all of it is there for the browser's own search.
      disableVirtualization
      columnHeaderHeight={44}
      hideFooter={rows.length <= PAGE}
      initialState={{ pagination: { paginationModel: { pageSize: PAGE } } }}
      pageSizeOptions={[PAGE, 50, 100]}
      aria-label={label}
      localeText={text}
      columns={columns as GridColDef[]}
      {...on}
    />
  )
}

const Ours = styled(DataGrid)(({ theme }) => ({
  // Stronger than what the grid says of itself.
  '&.MuiDataGrid-root': {
    border: 0,
    '--DataGrid-t-color-interactive-focus': 'var(--focus)',
    '--DataGrid-t-color-background-base': colours.ground,
    '--DataGrid-t-header-background-base': colours.ground,
    '--DataGrid-t-color-border-base': colours.line,
  },
  '& .MuiDataGrid-cell': {
    paddingBlock: theme.spacing(0.75),
    lineHeight: 1.4,
    display: 'flex',
    alignItems: 'center',
  },
  '& .MuiDataGrid-columnHeaderTitle': { fontWeight: 700 },
  '& .lane-left': { color: laneColour('left') },
  '& .lane-right': { color: laneColour('right') },
  '& .MuiDataGrid-row:hover': { backgroundColor: colours.panel },
}))

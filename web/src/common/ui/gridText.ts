import type { GridLocaleText } from '@mui/x-data-grid'
import type { TFunction } from 'i18next'

const OPERATORS = {
  Contains: 'contains',
  DoesNotContain: 'containsNot',
  Equals: 'equals',
  DoesNotEqual: 'equalsNot',
  StartsWith: 'startsWith',
  EndsWith: 'endsWith',
  IsEmpty: 'isEmpty',
  IsNotEmpty: 'isNotEmpty',
  IsAnyOf: 'isAnyOf',
} as const

/** What the grid itself says, in the words of the catalogue. */
export function gridText(t: TFunction): Partial<GridLocaleText> {
  const operators = Object.entries(OPERATORS).map(([name, key]) => [
    `filterOperator${name}`,
    t(`grid.operators.${key}`),
  ])
  const filters = (count: number): string => t('grid.filters', { count })
  return {
    ...(Object.fromEntries(operators) as Partial<GridLocaleText>),
    columnMenuLabel: t('grid.menu'),
    columnMenuAriaLabel: (name) => t('grid.menuOf', { name }),
    columnMenuFilter: t('grid.filter'),
    columnMenuUnsort: t('grid.unsorted'),
    columnMenuSortAsc: t('grid.ascending'),
    columnMenuSortDesc: t('grid.descending'),
    columnMenuHideColumn: t('grid.hide'),
    columnHeaderSortIconLabel: t('grid.sort'),
    columnHeaderFiltersLabel: t('grid.filter'),
    columnHeaderFiltersTooltipActive: filters,
    filterPanelColumn: t('grid.column'),
    filterPanelOperator: t('grid.operator'),
    filterPanelInputLabel: t('grid.value'),
    filterPanelInputPlaceholder: t('grid.value'),
    filterPanelDeleteIconLabel: t('grid.remove'),
    noResultsOverlayLabel: t('grid.nothing'),
    paginationRowsPerPage: t('grid.perPage'),
    paginationDisplayedRows: ({ from, to, count }) => t('grid.rows', { from, to, count }),
    paginationItemAriaLabel: (type) => t(`grid.page.${type}`),
  }
}

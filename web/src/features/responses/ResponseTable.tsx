import Box from '@mui/material/Box'
import { useTranslation } from 'react-i18next'
import type { Schemas } from '../../api/client'
import { shortDate } from '../../common/dates'
import { tableRows } from './model'
import { colours, laneColour } from '../../theme/theme'

const COLUMNS = [
  'date',
  'side',
  'rung',
  'setup',
  'dose',
  'discomfort',
  'what',
  'morning',
  'tolerance',
] as const

/** Every hold, newest first, for those who read tables. */
export function ResponseTable({ family }: { family: Schemas['ResponseFamily'] }) {
  const { t } = useTranslation()
  const what = (point: Schemas['ResponsePoint']) =>
    [
      point.kind === null ? '' : t(`mat.kinds.${point.kind}`),
      point.place === null ? '' : t(`mat.places.${point.place}`),
      ...(point.signs ?? []).map((sign) => t(`mat.signs.${sign}`)),
      point.kind === null || point.place === null || point.signs === null ? t('responses.partNotSaid') : '',
    ]
      .filter(Boolean)
      .join(', ')
  const morning = (settled: boolean | null) =>
    t(`responses.settled.${settled === null ? 'open' : settled ? 'yes' : 'no'}`)
  return (
    <Box sx={{ overflowX: 'auto', mt: 1 }}>
      <Box
        component="table"
        sx={{
          width: '100%',
          borderCollapse: 'collapse',
          fontSize: '0.9rem',
          '& th': { textAlign: 'left', color: 'text.secondary', fontWeight: 400, py: 0.5, pr: 1.5 },
          '& td:nth-of-type(-n+3), & td:nth-of-type(5), & td:nth-of-type(6)': { whiteSpace: 'nowrap' },
          '& td': { borderTop: `1px dotted ${colours.line}`, py: 0.5, pr: 1.5, verticalAlign: 'top' },
        }}
      >
        <caption style={{ textAlign: 'left', fontWeight: 600, paddingBottom: 4 }}>
          {t('responses.table')}
        </caption>
        <thead>
          <tr>
            {COLUMNS.map((column) => (
              <th key={column} scope="col">
                {t(`responses.columns.${column}`)}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {tableRows(family).map(({ side, point }) => (
            <tr key={point.id}>
              <td>{shortDate(point.date)}</td>
              <td style={{ color: laneColour(side), fontWeight: 700 }}>{t(`side.${side}`)}</td>
              <td>{point.short}</td>
              <td>{point.setup_words}</td>
              <td>
                {point.held_s === null ? point.dose : t('mat.held', { held: point.held_s, dose: point.dose })}
              </td>
              <td>
                {point.before ?? '–'} / <strong>{point.during}</strong> / {point.after ?? '–'}
              </td>
              <td>
                {what(point)}
                {point.note !== '' && (
                  <>
                    {' '}
                    <span translate="no">{point.note}</span>
                  </>
                )}
              </td>
              <td>{morning(point.settled)}</td>
              <td>
                {t(`choose.tolerance.${point.tolerance}`)}
                {point.why !== '' && ` (${point.why})`}
              </td>
            </tr>
          ))}
        </tbody>
      </Box>
    </Box>
  )
}

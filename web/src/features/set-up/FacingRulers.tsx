import Box from '@mui/material/Box'
import Tooltip from '@mui/material/Tooltip'
import { useTranslation } from 'react-i18next'
import type { Schemas, Side } from '../../api/client'
import { colours } from '../../app/theme'
import { columnAt, densePosition, exact, goesOtherWay, isBeyond, onRuler, reading, rulerUnit } from './model'
import type { LaneState } from './useLaneState'

const COLUMNS = '158px minmax(0,1fr) 172px minmax(0,1fr) 158px'

/** Every demand from the middle axis outward, left to the left and right to the right, worst first. */
export function FacingRulers({ left, right }: { left: LaneState; right: LaneState }) {
  const { t } = useTranslation()
  const rows = rowsOf(left, right)
  if (rows.length === 0) return null
  return (
    <Box component="section" aria-label={t('setUp.purpose')} sx={{ mt: 1.5 }}>
      {rows.map((row) => (
        <Box
          key={row.readout}
          sx={{ display: 'grid', gridTemplateColumns: COLUMNS, alignItems: 'center', minHeight: 27 }}
        >
          <Reading side="left" ruler={row.left} value={instant(left, 'left', row.readout)} />
          <Bar side="left" ruler={row.left} value={instant(left, 'left', row.readout)} />
          <Tooltip title={row.technical} describeChild>
            <Box tabIndex={0} sx={{ textAlign: 'center', fontSize: '0.95rem' }}>
              {row.name}
            </Box>
          </Tooltip>
          <Bar side="right" ruler={row.right} value={instant(right, 'right', row.readout)} />
          <Reading side="right" ruler={row.right} value={instant(right, 'right', row.readout)} />
        </Box>
      ))}
      <Box sx={{ display: 'grid', gridTemplateColumns: COLUMNS, alignItems: 'center', minHeight: 27 }}>
        <PurposeReading state={left} side="left" />
        <PurposeBar state={left} side="left" />
        <Tooltip title={t('setUp.purposeHint')} describeChild>
          <Box tabIndex={0} sx={{ textAlign: 'center', fontSize: '0.95rem' }}>
            {t('setUp.purpose')}
          </Box>
        </Tooltip>
        <PurposeBar state={right} side="right" />
        <PurposeReading state={right} side="right" />
      </Box>
    </Box>
  )
}

type Ruler = Schemas['RulerOut']

interface RowData {
  readout: string
  name: string
  technical: string
  worst: number
  left: Ruler | undefined
  right: Ruler | undefined
}

function rowsOf(left: LaneState, right: LaneState): RowData[] {
  const rows = new Map<string, RowData>()
  const add = (side: Side, rulers: Ruler[] | undefined) => {
    for (const ruler of rulers ?? []) {
      const row = rows.get(ruler.readout) ?? {
        readout: ruler.readout,
        name: ruler.name,
        technical: ruler.technical,
        worst: Infinity,
        left: undefined,
        right: undefined,
      }
      row[side] = ruler
      // A limit outranks an own range: what may not be passed stands first.
      const margin = (ruler.margin ?? Infinity) + (ruler.boundary_kind === 'limit' ? 0 : 1000)
      row.worst = Math.min(row.worst, margin)
      rows.set(ruler.readout, row)
    }
  }
  add('left', left.detail?.rulers.left)
  add('right', right.detail?.rulers.right)
  return [...rows.values()].sort((a, b) => a.worst - b.worst)
}

/** The value from the grid: there at once, before the drawing arrives. */
function instant(state: LaneState, side: Side, readout: string): number | undefined {
  const grid = state.setup.data?.grid
  return grid ? columnAt(grid, `${readout}.${side}`, state.indices) : undefined
}

function Reading({
  side,
  ruler,
  value,
}: {
  side: Side
  ruler: Ruler | undefined
  value: number | undefined
}) {
  const { t } = useTranslation()
  if (ruler === undefined) return <span />
  const shown = value ?? ruler.shown
  const other = goesOtherWay(shown, ruler)
  const boundary =
    ruler.boundary === null || other
      ? ''
      : t(
          ruler.at_least
            ? 'setUp.atLeast'
            : ruler.boundary_kind === 'limit'
              ? 'setUp.limit'
              : ruler.unit === 'percent'
                ? 'setUp.whole'
                : ruler.typical
                  ? 'setUp.typicalRange'
                  : 'setUp.range',
          {
            value: exact(t, ruler.boundary, rulerUnit(ruler.unit)),
          },
        )
  return (
    <Tooltip title={ruler.boundary_label ?? ''} placement={side}>
      <Box sx={{ textAlign: side === 'left' ? 'right' : 'left', px: 1, lineHeight: 1.1 }}>
        <Box component="strong" sx={{ color: `var(--${side})` }}>
          {reading(t, shown, ruler)}
        </Box>
        <Box component="span" sx={{ color: 'text.secondary', fontSize: '0.82rem', ml: 0.75 }}>
          {boundary}
        </Box>
      </Box>
    </Tooltip>
  )
}

function Track({ side, children }: { side: Side; children: React.ReactNode }) {
  return (
    <Box
      sx={{
        position: 'relative',
        height: 18,
        transform: side === 'left' ? 'scaleX(-1)' : 'none',
        bgcolor: '#F1EADB',
        borderLeft: `2px solid ${colours.ink}`,
      }}
      aria-hidden
    >
      {children}
    </Box>
  )
}

const span = (from: number, to: number) => ({
  left: `${from.toString()}%`,
  width: `${Math.max(0, to - from).toString()}%`,
})

function Bar({ side, ruler, value }: { side: Side; ruler: Ruler | undefined; value: number | undefined }) {
  if (ruler === undefined) return <Track side={side}>{null}</Track>
  const shown = value ?? ruler.shown
  const beyond =
    ruler.boundary !== null &&
    isBeyond(shown, ruler.boundary, ruler.at_least) &&
    ruler.boundary_kind === 'limit'
  return (
    <Track side={side}>
      <Box
        sx={{
          position: 'absolute',
          top: 2,
          bottom: 2,
          opacity: 0.28,
          bgcolor: `var(--${side})`,
          ...span(onRuler(shown - ruler.error), onRuler(shown + ruler.error)),
        }}
      />
      <Box
        sx={{
          position: 'absolute',
          top: 4,
          bottom: 4,
          bgcolor: `var(--${side})`,
          ...span(0, onRuler(shown)),
        }}
      />
      {ruler.boundary !== null && (
        <Box
          sx={{
            position: 'absolute',
            top: -2,
            bottom: -2,
            width: 3,
            bgcolor: ruler.boundary_kind === 'limit' ? colours.ink : 'transparent',
            borderLeft: ruler.boundary_kind === 'limit' ? 'none' : `2px dotted ${colours.muted}`,
            outline: beyond ? `2px solid ${colours.accent}` : 'none',
            left: `${onRuler(ruler.boundary).toString()}%`,
          }}
        />
      )}
    </Track>
  )
}

function purposeOf(state: LaneState): number | undefined {
  const grid = state.setup.data?.grid
  return grid ? grid.purpose[densePosition(grid.shape, state.indices)] : undefined
}

function PurposeReading({ state, side }: { state: LaneState; side: Side }) {
  const value = purposeOf(state)
  return (
    <Box
      component="strong"
      sx={{ color: `var(--${side})`, textAlign: side === 'left' ? 'right' : 'left', px: 1 }}
    >
      {value === undefined ? '' : `${value.toString()} %`}
    </Box>
  )
}

function PurposeBar({ state, side }: { state: LaneState; side: Side }) {
  const value = purposeOf(state)
  const [least, most] = state.setup.data?.grid?.purpose_band ?? []
  return (
    <Track side={side}>
      {least !== undefined && most !== undefined && (
        <Box sx={{ position: 'absolute', top: 0, bottom: 0, bgcolor: '#DDD2B8', ...span(least, most) }} />
      )}
      {value !== undefined && (
        <Box
          sx={{
            position: 'absolute',
            top: 5,
            bottom: 5,
            bgcolor: `var(--${side})`,
            ...span(0, onRuler(value, 100)),
          }}
        />
      )}
    </Track>
  )
}

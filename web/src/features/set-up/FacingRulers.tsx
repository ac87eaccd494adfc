import Box from '@mui/material/Box'
import ButtonBase from '@mui/material/ButtonBase'
import { type ReactNode, useState } from 'react'
import { useTranslation } from 'react-i18next'
import type { Schemas, Side } from '../../api/client'
import { Hidden, HIDDEN } from '../../common/ui/Hidden'
import { columnAt, densePosition, exact, goesOtherWay, isBeyond, onRuler, reading, rulerUnit } from './model'
import type { LaneState } from './useLaneState'
import { colours, laneColour } from '../../theme/theme'

const COLUMNS = {
  // Where there is little room the names have a line of their own.
  xs: 'minmax(70px, 0.6fr) minmax(0,1fr) minmax(0,1fr) minmax(70px, 0.6fr)',
  md: '158px minmax(0,1fr) 172px minmax(0,1fr) 158px',
}

/**
 * Every demand from the middle axis outward, left to the left and right to the right, worst first; a table for those
 * who listen. What a demand is called technically, and whose limit it meets, is one touch away.
 */
export function FacingRulers({ left, right }: { left: LaneState; right: LaneState }) {
  const { t } = useTranslation()
  const rows = rowsOf(left, right)
  if (rows.length === 0) return null
  return (
    <Box role="table" aria-label={t('setUp.demands')} sx={{ mt: 1.5, direction: 'ltr' }}>
      <Box role="row" sx={HIDDEN}>
        <span role="columnheader">{t('side.Left')}</span>
        <span role="columnheader">{t('setUp.demand')}</span>
        <span role="columnheader">{t('side.Right')}</span>
      </Box>
      {rows.map((row) => (
        <Row
          key={row.readout}
          name={row.name}
          more={[
            row.technical,
            ...(['left', 'right'] as const).flatMap((side) =>
              row[side]?.boundary_label ? [`${t(`side.${side}`)}: ${row[side].boundary_label}`] : [],
            ),
          ]}
          reading={(side) => (
            <Reading
              side={side}
              ruler={row[side]}
              value={instant({ left, right }[side], side, row.readout)}
            />
          )}
          bar={(side) => (
            <Bar side={side} ruler={row[side]} value={instant({ left, right }[side], side, row.readout)} />
          )}
        />
      ))}
      <Row
        name={t('setUp.purpose')}
        more={[t('setUp.purposeHint')]}
        reading={(side) => <PurposeReading state={{ left, right }[side]} side={side} />}
        bar={(side) => <PurposeBar state={{ left, right }[side]} side={side} />}
      />
    </Box>
  )
}

interface RowProps {
  name: string
  more: readonly string[]
  reading: (side: Side) => ReactNode
  bar: (side: Side) => ReactNode
}

function Row({ name, more, reading, bar }: RowProps) {
  const [open, setOpen] = useState(false)
  return (
    <Box
      role="row"
      sx={{ display: 'grid', gridTemplateColumns: COLUMNS, alignItems: 'center', minHeight: 27 }}
    >
      <Box role="cell">{reading('left')}</Box>
      {bar('left')}
      <Box
        role="rowheader"
        sx={{ textAlign: 'center', gridColumn: { xs: '1 / -1', md: 'auto' }, gridRow: { xs: 1, md: 'auto' } }}
      >
        <ButtonBase
          aria-expanded={open}
          onClick={() => {
            setOpen(!open)
          }}
          sx={{ fontSize: '0.95rem', lineHeight: 1.2, minHeight: 26, px: 0.5 }}
        >
          {name}
        </ButtonBase>
        {open && (
          <Box sx={{ color: 'text.secondary', fontSize: '0.84rem', lineHeight: 1.3, pb: 0.75 }}>
            {more.map((line) => (
              <div key={line}>{line}</div>
            ))}
          </Box>
        )}
      </Box>
      {bar('right')}
      <Box role="cell">{reading('right')}</Box>
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
    <Box sx={{ textAlign: side === 'left' ? 'right' : 'left', px: 1, lineHeight: 1.1 }}>
      <Box component="strong" sx={{ color: laneColour(side) }}>
        {reading(t, shown, ruler)}
      </Box>{' '}
      <Box component="span" sx={{ color: 'text.secondary', fontSize: '0.82rem' }}>
        {boundary}
      </Box>
      {isPast(ruler, shown) && <Hidden> {t('setUp.past')}</Hidden>}
    </Box>
  )
}

/** Whether a demand is past a limit, and not only past an own range. */
function isPast({ boundary, boundary_kind, at_least }: Ruler, shown: number): boolean {
  return boundary !== null && boundary_kind === 'limit' && isBeyond(shown, boundary, at_least)
}

function Track({ side, children }: { side: Side; children: ReactNode }) {
  return (
    <Box
      sx={{
        position: 'relative',
        height: 18,
        transform: side === 'left' ? 'scaleX(-1)' : 'none',
        bgcolor: 'surface.track',
        // Bars and marks are seen by their colours alone.
        forcedColorAdjust: 'none',
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
  const beyond = isPast(ruler, shown)
  return (
    <Track side={side}>
      <Box
        sx={{
          position: 'absolute',
          top: 2,
          bottom: 2,
          opacity: 0.28,
          bgcolor: laneColour(side),
          ...span(onRuler(shown - ruler.error), onRuler(shown + ruler.error)),
        }}
      />
      <Box
        sx={{
          position: 'absolute',
          top: 4,
          bottom: 4,
          bgcolor: laneColour(side),
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
      sx={{ color: laneColour(side), textAlign: side === 'left' ? 'right' : 'left', px: 1 }}
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
        <Box
          sx={{ position: 'absolute', top: 0, bottom: 0, bgcolor: 'surface.span', ...span(least, most) }}
        />
      )}
      {value !== undefined && (
        <Box
          sx={{
            position: 'absolute',
            top: 5,
            bottom: 5,
            bgcolor: laneColour(side),
            ...span(0, onRuler(value, 100)),
          }}
        />
      )}
    </Track>
  )
}

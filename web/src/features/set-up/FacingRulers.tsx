import ButtonBase from '@mui/material/ButtonBase'
import { styled } from '@mui/material/styles'
import { memo, type ReactNode, useState } from 'react'
import { useTranslation } from 'react-i18next'
import type { Schemas, Side } from '../../api/client'
import { Hidden, HIDDEN } from '../../common/ui/Hidden'
import { columnAt, exact, goesOtherWay, isBeyond, onRuler, purposeAt, reading, rulerUnit } from './model'
import type { LaneState } from './useLaneState'
import { colours, laneColour } from '../../theme/theme'

/** The look of all rulers, told once: they are drawn anew at every step. */
const Table = styled('div')(({ theme }) => ({
  marginTop: theme.spacing(1.5),
  direction: 'ltr',
  '& .row': {
    display: 'grid',
    // Where there is little room the names have a line of their own.
    gridTemplateColumns: 'minmax(70px, 0.6fr) minmax(0,1fr) minmax(0,1fr) minmax(70px, 0.6fr)',
    alignItems: 'center',
    minHeight: 27,
    [theme.breakpoints.up('md')]: {
      gridTemplateColumns: '158px minmax(0,1fr) 172px minmax(0,1fr) 158px',
    },
  },
  '& .name': {
    textAlign: 'center',
    gridColumn: '1 / -1',
    gridRow: 1,
    [theme.breakpoints.up('md')]: { gridColumn: 'auto', gridRow: 'auto' },
  },
  '& .name button': {
    fontSize: '0.95rem',
    lineHeight: 1.2,
    minHeight: 26,
    paddingInline: theme.spacing(0.5),
  },
  '& .row.worst .name button': { fontWeight: 700 },
  '& .more': {
    color: colours.muted,
    fontSize: '0.84rem',
    lineHeight: 1.3,
    paddingBottom: theme.spacing(0.75),
  },
  '& .left': { '--lane': laneColour('left'), textAlign: 'right' },
  '& .right': { '--lane': laneColour('right') },
  '& .reading': { paddingInline: theme.spacing(1), lineHeight: 1.1 },
  '& .reading strong': { color: 'var(--lane)' },
  '& .boundary': { color: colours.muted, fontSize: '0.82rem' },
  '& .track': {
    position: 'relative',
    height: 18,
    backgroundColor: theme.vars?.palette.surface.track,
    // Bars and marks are seen by their colours alone.
    forcedColorAdjust: 'none',
    borderLeft: `2px solid ${colours.ink}`,
  },
  '& .track.left': { transform: 'scaleX(-1)' },
  '& .track > *': { position: 'absolute' },
  '& .error': { top: 2, bottom: 2, opacity: 0.28, backgroundColor: 'var(--lane)' },
  '& .value': { top: 4, bottom: 4, backgroundColor: 'var(--lane)' },
  '& .band': { top: 0, bottom: 0, backgroundColor: theme.vars?.palette.surface.span },
  '& .mark': { top: -2, bottom: -2, width: 3, borderLeft: `2px dotted ${colours.muted}` },
  '& .mark.limit': { borderLeft: 'none', backgroundColor: colours.ink },
  '& .mark.beyond': { outline: `2px solid ${colours.accent}` },
}))

/**
 * Every demand from the middle axis outward, left to the left and right to the right; on opening the worst stands first,
 * and while stepping each keeps its place, the worst marked. A table for those who listen. What a demand is called technically, and whose limit it meets, is one touch away.
 */
export const FacingRulers = memo(function FacingRulers({
  left,
  right,
}: {
  left: LaneState
  right: LaneState
}) {
  const { t } = useTranslation()
  const rows = useKeptOrder(rowsOf(left, right), left, right)
  if (rows.length === 0) return null
  const worst = worstOf(rows)
  return (
    <Table role="table" aria-label={t('setUp.demands')}>
      <div role="row" style={HIDDEN}>
        <span role="columnheader">{t('side.Left')}</span>
        <span role="columnheader">{t('setUp.demand')}</span>
        <span role="columnheader">{t('side.Right')}</span>
      </div>
      {rows.map((row) => (
        <Row
          key={row.readout}
          name={row.name}
          worst={row === worst}
          more={[
            row.technical,
            ...(['left', 'right'] as const).flatMap((side) =>
              row[side]?.boundary_label ? [`${t(`side.${side}`)}: ${row[side].boundary_label}`] : [],
            ),
          ]}
          reading={(side) => (
            <Reading ruler={row[side]} value={instant({ left, right }[side], side, row.readout)} />
          )}
          bar={(side) => (
            <Bar side={side} ruler={row[side]} value={instant({ left, right }[side], side, row.readout)} />
          )}
        />
      ))}
      <Row
        name={t('setUp.purpose')}
        more={[t('setUp.purposeHint')]}
        reading={(side) => {
          const value = purposeOf({ left, right }[side])
          return <strong>{value === undefined ? '' : `${value.toString()} %`}</strong>
        }}
        bar={(side) => <PurposeBar state={{ left, right }[side]} side={side} />}
      />
    </Table>
  )
})

interface RowProps {
  name: string
  /** Whether it is the one that comes nearest to its boundary. */
  worst?: boolean
  more: readonly string[]
  reading: (side: Side) => ReactNode
  bar: (side: Side) => ReactNode
}

function Row({ name, worst = false, more, reading, bar }: RowProps) {
  const { t } = useTranslation()
  const [open, setOpen] = useState(false)
  return (
    <div role="row" className={worst ? 'row worst' : 'row'}>
      <div role="cell" className="left reading">
        {reading('left')}
      </div>
      {bar('left')}
      <div role="rowheader" className="name">
        <ButtonBase
          aria-expanded={open}
          onClick={() => {
            setOpen(!open)
          }}
        >
          {name}
          {worst && <Hidden>, {t('setUp.tightest')}</Hidden>}
        </ButtonBase>
        {open && (
          <div className="more">
            {more.map((line) => (
              <div key={line}>{line}</div>
            ))}
          </div>
        )}
      </div>
      {bar('right')}
      <div role="cell" className="right reading">
        {reading('right')}
      </div>
    </div>
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
  return [...rows.values()]
}

/** The demand nearest to its boundary, of those that have one. */
function worstOf(rows: readonly RowData[]): RowData | undefined {
  const bound = rows.filter(({ worst }) => worst < Infinity)
  return bound.reduce<RowData | undefined>(
    (found, row) => (found === undefined || row.worst < found.worst ? row : found),
    undefined,
  )
}

/** Rows worst first as they were when both rungs were opened; what comes to be asked later stands after them. */
function useKeptOrder(rows: readonly RowData[], left: LaneState, right: LaneState): RowData[] {
  const opened = [left, right].map(({ rung }) => rung?.variation ?? '').join(' ')
  const [kept, setKept] = useState<{ opened: string; order: readonly string[] }>({ opened: '', order: [] })
  const isNew = kept.opened !== opened
  const before = isNew ? [] : kept.order
  const order = [
    ...before,
    ...[...rows]
      .sort((a, b) => a.worst - b.worst)
      .map(({ readout }) => readout)
      .filter((readout) => !before.includes(readout)),
  ]
  const there = [left, right].every(({ rung, detail }) => rung === undefined || detail !== undefined)
  if (there && (isNew || order.length > before.length)) setKept({ opened, order })
  return [...rows].sort((a, b) => order.indexOf(a.readout) - order.indexOf(b.readout))
}

/** The value from the grid: there at once, before the drawing arrives. */
function instant(state: LaneState, side: Side, readout: string): number | undefined {
  const grid = state.rung?.grid
  return grid ? columnAt(grid, `${readout}.${side}`, state.indices) : undefined
}

function Reading({ ruler, value }: { ruler: Ruler | undefined; value: number | undefined }) {
  const { t } = useTranslation()
  if (ruler === undefined) return null
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
    <>
      <strong>{reading(t, shown, ruler)}</strong> <span className="boundary">{boundary}</span>
      {isPast(ruler, shown) && (
        <Hidden> {t(ruler.boundary_kind === 'limit' ? 'setUp.past' : 'setUp.pastRange')}</Hidden>
      )}
    </>
  )
}

/** Whether a demand is past its limit, or past the whole of an own range. */
function isPast({ boundary, at_least }: Ruler, shown: number): boolean {
  return boundary !== null && isBeyond(shown, boundary, at_least)
}

function Track({ side, children }: { side: Side; children: ReactNode }) {
  return (
    <div className={`track ${side}`} aria-hidden>
      {children}
    </div>
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
      <div className="error" style={span(onRuler(shown - ruler.error), onRuler(shown + ruler.error))} />
      <div className="value" style={span(0, onRuler(shown))} />
      {ruler.boundary !== null && (
        <div
          className={['mark', ruler.boundary_kind, beyond ? 'beyond' : ''].join(' ')}
          style={{ left: `${onRuler(ruler.boundary).toString()}%` }}
        />
      )}
    </Track>
  )
}

function purposeOf(state: LaneState): number | undefined {
  const grid = state.rung?.grid
  return grid ? purposeAt(grid, state.indices) : undefined
}

function PurposeBar({ state, side }: { state: LaneState; side: Side }) {
  const value = purposeOf(state)
  const [least, most] = state.rung?.grid?.purpose_band ?? []
  return (
    <Track side={side}>
      {least !== undefined && most !== undefined && <div className="band" style={span(least, most)} />}
      {value !== undefined && <div className="value" style={span(0, onRuler(value, 100))} />}
    </Track>
  )
}

import { useTranslation } from 'react-i18next'
import type { Lane, Schemas } from '../../api/client'
import { shortDate } from '../../common/dates'
import { length } from '../../common/practice'
import {
  barOf,
  CHART,
  columnsOf,
  datedOf,
  discomfortHeight,
  footOf,
  type Frame,
  frameOf,
  heightOf,
  rungHeight,
  type Span,
  staircase,
  supportHeight,
  type Supports,
  supportsOf,
} from './model'
import { useWidth } from '../../common/ui/useWidth'
import { colours, laneColour } from '../../theme/theme'

interface Props {
  lane: Schemas['ResponseLane']
  name: Lane
  rungs: Schemas['RungName'][]
  allowed: number
  /** The days both sides are drawn between. */
  span: Span
}

const FOOT = CHART.top + CHART.bars
/** A lane that stands alone is no reason to shout. */
const WIDEST = 640

/** Discomfort above, the staircase of support beneath, and under each hold its next morning and date. */
export function ResponseChart({ lane, name, rungs, allowed, span }: Props) {
  const { t } = useTranslation()
  const count = lane.points.length
  const colour = laneColour(name)
  const [box, whole] = useWidth<HTMLDivElement>(WIDEST)
  const supports = supportsOf(lane.points)
  const frame = frameOf(whole, [...rungs.map((rung) => rung.short), supports?.what ?? ''])
  const columns = columnsOf(frame, lane.points, span)
  const width = barOf(columns)
  const dated = datedOf(columns)
  const height = heightOf(supports !== null)
  const marks = footOf(supports !== null) + 14
  const spoken = lane.points
    .map((point) =>
      t('responses.point', {
        date: shortDate(point.date),
        short: point.short,
        dose: point.dose,
        before: point.before ?? t('responses.notSaid'),
        during: point.during,
        after: point.after ?? t('responses.notSaid'),
        tolerance: t(`choose.tolerance.${point.tolerance}`),
      }),
    )
    .join('; ')
  return (
    <div ref={box} style={{ maxWidth: WIDEST }}>
      <svg
        // Drawn in the page's own pixels, so that its words are as large as the page's.
        viewBox={`0 0 ${whole.toString()} ${height.toString()}`}
        width={whole}
        height={height}
        role="img"
        aria-label={t('responses.chart', { side: t(`side.${name}`), count, list: spoken })}
        style={{ fontFamily: 'inherit', fontSize: 11.5, fill: colours.ink, display: 'block' }}
      >
        {[0, 5, 10].map((score) => (
          <g key={score}>
            <path
              d={`M${frame.from.toString()} ${(FOOT - discomfortHeight(score)).toString()}H${frame.to.toString()}`}
              stroke={colours.line}
              strokeWidth="0.8"
            />
            <text x={frame.from - 6} y={FOOT - discomfortHeight(score) + 4} textAnchor="end">
              {score}
            </text>
          </g>
        ))}
        <path
          d={`M${frame.from.toString()} ${(FOOT - discomfortHeight(allowed)).toString()}H${frame.to.toString()}`}
          stroke={colours.ink}
          strokeWidth="1.2"
          strokeDasharray="4 3"
        />
        <text x={frame.from - 6} y={FOOT - discomfortHeight(allowed) + 4} textAnchor="end" fontWeight="600">
          {t('responses.allowed', { value: allowed })}
        </text>
        {lane.points.map((point, index) => {
          const x = columns[index] ?? 0
          return (
            <g key={point.id}>
              <rect
                x={x - width / 2}
                y={FOOT - discomfortHeight(point.during)}
                width={width}
                height={Math.max(discomfortHeight(point.during), 1)}
                fill={colour}
              />
              {point.before !== null && (
                <path
                  d={`M${(x - width / 2 - 3).toString()} ${(FOOT - discomfortHeight(point.before)).toString()}h${(width + 6).toString()}`}
                  stroke={colours.ink}
                  strokeWidth="2"
                />
              )}
              {point.after !== null && (
                <circle
                  cx={x}
                  cy={FOOT - discomfortHeight(point.after)}
                  r="3.4"
                  fill={colours.ground}
                  stroke={colours.ink}
                  strokeWidth="1.5"
                />
              )}
              <Tolerance tolerance={point.tolerance} x={x} y={FOOT + 13} />
              <text x={x} y={marks} textAnchor="middle">
                {point.settled === null ? '?' : point.settled ? '✓' : '✗'}
              </text>
              {dated.has(index) && (
                <text x={x} y={marks + 17} textAnchor="middle" fill={colours.muted}>
                  {shortDate(point.date)}
                </text>
              )}
            </g>
          )
        })}
        <text x={frame.from - 6} y={FOOT + 17} textAnchor="end" fill={colours.muted}>
          {t('responses.columns.tolerance')}
        </text>
        {rungs.map((rung, index) => (
          <text
            key={rung.id}
            x={frame.from - 6}
            y={rungHeight(index, rungs.length) + 4}
            textAnchor="end"
            fill={colours.muted}
          >
            {rung.short}
          </text>
        ))}
        <path
          d={staircase(
            frame,
            columns,
            lane.points.map(({ rung }) => rungHeight(rung, rungs.length)),
          )}
          fill="none"
          stroke={colour}
          strokeWidth="2.6"
          strokeLinejoin="round"
        />
        {supports !== null && <SupportStair frame={frame} columns={columns} colour={colour} {...supports} />}
        <text x={frame.from - 6} y={marks} textAnchor="end" fill={colours.muted}>
          {t('responses.morning')}
        </text>
      </svg>
    </div>
  )
}

interface SupportsProps extends Supports {
  frame: Frame
  columns: readonly number[]
  colour: string
}

/** Heights of support as a stair, each new one with its figure. */
function SupportStair({ frame, columns, colour, what, heights, less }: SupportsProps) {
  const { t } = useTranslation()
  const ys = heights.map((height) => (height === null ? null : supportHeight(height, heights, less)))
  return (
    <g>
      <text
        x={frame.from - 6}
        y={footOf(false) + CHART.support / 2 + 6}
        textAnchor="end"
        fill={colours.muted}
      >
        {what === '' ? t('responses.seat') : what}
      </text>
      <path
        d={staircase(frame, columns, ys)}
        fill="none"
        stroke={colour}
        strokeWidth="1.6"
        strokeLinejoin="round"
      />
      {heights.map((height, index) => {
        const y = ys[index] ?? null
        if (height === null || y === null || height === heights[index - 1]) return null
        return (
          <text key={columns[index]} x={columns[index]} y={y - 4} textAnchor="middle">
            {length(t, height)}
          </text>
        )
      })}
    </g>
  )
}

/** What a hold came to, by shape: ring for calm, triangle for watch, cross for flare, dotted ring while open. */
function Tolerance({
  tolerance,
  x,
  y,
}: {
  tolerance: Schemas['ResponsePoint']['tolerance']
  x: number
  y: number
}) {
  if (tolerance === 'watch') {
    return (
      <path
        d={`M${x.toString()} ${(y - 5).toString()}l5.5 10h-11z`}
        fill="none"
        stroke={colours.ink}
        strokeWidth="1.6"
      />
    )
  }
  if (tolerance === 'flare') {
    return (
      <path
        d={`M${(x - 5).toString()} ${(y - 5).toString()}l10 10m0-10l-10 10`}
        stroke={colours.ink}
        strokeWidth="2.2"
      />
    )
  }
  return (
    <circle
      cx={x}
      cy={y}
      r="4.6"
      fill="none"
      stroke={colours.ink}
      strokeWidth="1.6"
      strokeDasharray={tolerance === 'pending' ? '2 2.4' : undefined}
    />
  )
}

import { styled } from '@mui/material/styles'
import { useTranslation } from 'react-i18next'
import type { Schemas } from '../../api/client'
import { useWidth } from '../../common/ui/useWidth'
import { colours, laneColour } from '../../theme/theme'
import { wholeMinutes } from './model'
import { stripOf } from './strip'

const ROW = 34
const TOP = 22
const LABELS = 72
/** A letter of the names, px on average: names that would not fit give way to their number. */
const LETTER = 7.4

const Drawn = styled('svg')({
  display: 'block',
  width: '100%',
  direction: 'ltr',
  fontSize: 13,
  '& text': { fill: colours.ink },
  '& .quiet': { fill: colours.muted },
  '& .grid': { stroke: colours.line, strokeWidth: 1 },
  '& .way': { stroke: colours.ink, strokeWidth: 2.5, fill: 'none', strokeLinejoin: 'round' },
  '& .end': { stroke: colours.ink, strokeWidth: 2 },
  '& .over': { fill: colours.hatch },
})

/** The session as a strip of minutes: each pose at the level it is held on, each way to the floor and up to be seen. */
export function PlanStrip({ plan, busy }: { plan: Schemas['PlanOut']; busy: boolean }) {
  const { t } = useTranslation()
  const [element, width] = useWidth<HTMLDivElement>(900)
  const { pieces, levels, minutes, seconds } = plan
  const strip = stripOf(
    pieces,
    levels.map(({ level }) => level),
    minutes,
    LABELS,
    width - 12,
  )
  const bottom = TOP + ROW * levels.length
  const y = (level: number) => TOP + ROW * (level + 1) - 4
  return (
    <div ref={element} aria-busy={busy} style={{ opacity: busy ? 0.55 : 1 }}>
      <Drawn
        role="img"
        aria-label={t('plan.stripSays', {
          minutes: wholeMinutes(seconds),
          of: minutes,
          count: strip.trips.filter(({ down }) => down).length,
        })}
        viewBox={`0 0 ${width.toString()} ${(bottom + 2).toString()}`}
        height={bottom + 2}
      >
        {strip.ticks.map(({ x, minute }) => (
          <g key={minute}>
            <line className="grid" x1={x} x2={x} y1={TOP - 4} y2={bottom} />
            <text className="quiet" x={x} y={14} textAnchor="middle">
              {minute}
            </text>
          </g>
        ))}
        {levels.map(({ level, words }, place) => (
          <g key={level}>
            <line className="grid" x1={LABELS} x2={width - 12} y1={y(place)} y2={y(place)} />
            <text className="quiet" x={0} y={y(place) - 4}>
              {words}
            </text>
          </g>
        ))}
        {seconds > minutes * 60 && (
          <rect
            className="over"
            x={strip.end}
            y={TOP - 4}
            width={width - 12 - strip.end}
            height={bottom - TOP}
          />
        )}
        {strip.blocks.map((block, place) => (
          <rect
            key={place}
            x={block.x}
            y={y(block.level) - 24}
            width={block.width}
            height={24}
            fill={laneColour(block.lane)}
            opacity={0.24}
          />
        ))}
        <polyline
          className="way"
          points={strip.line.map(({ x, level }) => `${x.toString()},${y(level).toString()}`).join(' ')}
        />
        {strip.blocks
          .filter(({ first }) => first)
          .map((block) => {
            const number = (block.pose + 1).toString()
            const name = plan.poses[block.pose]?.name ?? ''
            const fits = block.room > (number.length + name.length + 2) * LETTER
            return (
              <text key={block.pose} x={block.x + 4} y={y(block.level) - 8}>
                <tspan fontWeight="700">{number}</tspan>
                {fits && <tspan dx="5">{name}</tspan>}
              </text>
            )
          })}
        <line className="end" x1={strip.end} x2={strip.end} y1={TOP - 8} y2={bottom} />
      </Drawn>
    </div>
  )
}

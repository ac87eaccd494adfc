import type { Lane, Schemas } from '../../api/client'
import { VerdictShape } from '../../common/ui/VerdictMark'
import { colours, laneColour } from '../../theme/theme'
import { isOpen } from './model'

const STEP = 27
const HEIGHT = 28
const MARK = 16
const MARKS: readonly Schemas['Verdict'][] = ['clear', 'with_setup', 'with_eye', 'check_first', 'leave_out']

/** The shapes the small ladders are made of, drawn once for the page. */
export function MarkShapes() {
  return (
    <svg width={0} height={0} aria-hidden focusable="false" style={{ position: 'absolute' }}>
      {MARKS.map((verdict) => (
        <symbol key={verdict} id={`mark-${verdict}`} viewBox="0 0 16 16">
          <VerdictShape verdict={verdict} />
        </symbol>
      ))}
      <symbol id="mark-rests" viewBox="0 0 16 16">
        <path d="M3 8h10" stroke="currentColor" strokeWidth="2.2" />
      </symbol>
    </svg>
  )
}

interface Props {
  lane: Lane
  of: Schemas['LaneOut']
  /** Whether the most held up stands on the right, toward the middle of the page. */
  inward?: boolean
  /** Rungs that are looked for; the others are paler. */
  looked: (rung: Schemas['RungLane']) => boolean
}

/** One side of a ladder in a line: a mark for each rung, where the side stands framed, what is offered next dashed. */
export function LaneMarks({ lane, of, inward = false, looked }: Props) {
  const { rungs, decision } = of
  const at = (place: number) => STEP * (inward ? rungs.length - 1 - place : place)
  const width = STEP * rungs.length
  const between = Array.from(
    { length: rungs.length - 1 },
    (_, gap) => `M${String(STEP * gap + 23)} ${String(HEIGHT / 2)}h8`,
  )
  return (
    <svg
      width={width}
      height={HEIGHT}
      viewBox={`0 0 ${String(width)} ${String(HEIGHT)}`}
      aria-hidden
      focusable="false"
      style={{ color: laneColour(lane), display: 'block', flex: 'none' }}
    >
      <path d={between.join('')} stroke="currentColor" opacity={0.45} />
      {rungs.map((rung, place) =>
        rung.here || rung.offered ? (
          <rect
            key={rung.variation}
            x={at(place) + 2}
            y={2}
            width={STEP - 4}
            height={HEIGHT - 4}
            rx={4}
            fill={rung.here ? colours.note : 'none'}
            stroke="currentColor"
            strokeWidth={rung.here ? 1.8 : 1.2}
            strokeDasharray={rung.here ? undefined : '3 2'}
          />
        ) : null,
      )}
      {rungs.map((rung, place) => {
        const rests =
          decision.action === 'leave_out' && !isOpen(rung, decision.action) && !CLOSED.includes(rung.verdict)
        return (
          <use
            key={rung.variation}
            href={`#mark-${rests ? 'rests' : rung.verdict}`}
            x={at(place) + (STEP - MARK) / 2}
            y={(HEIGHT - MARK) / 2}
            width={MARK}
            height={MARK}
            opacity={looked(rung) ? 1 : 0.4}
          />
        )
      })}
    </svg>
  )
}

const CLOSED: readonly Schemas['Verdict'][] = ['check_first', 'leave_out']

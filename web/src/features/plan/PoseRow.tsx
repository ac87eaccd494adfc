import { useSortable } from '@dnd-kit/sortable'
import { CSS } from '@dnd-kit/utilities'
import Button from '@mui/material/Button'
import ButtonBase from '@mui/material/ButtonBase'
import { styled } from '@mui/material/styles'
import Typography from '@mui/material/Typography'
import { useTranslation } from 'react-i18next'
import { Link } from 'react-router'
import type { Lane, Schemas, Side } from '../../api/client'
import { Hidden } from '../../common/ui/Hidden'
import { Row } from '../../common/ui/layout'
import { VerdictMark } from '../../common/ui/VerdictMark'
import { Figure } from '../../figure/Figure'
import { colours, hatching, laneColour, serif } from '../../theme/theme'
import { type Much, type Part, type Pose, sinceOf, wholeMinutes } from './model'

const MOST_ROUNDS = 5

const Line = styled('li')(({ theme }) => ({
  display: 'grid',
  alignItems: 'center',
  columnGap: theme.spacing(1.25),
  rowGap: theme.spacing(0.75),
  gridTemplateColumns: '44px minmax(0, 1fr)',
  gridTemplateAreas: '"handle name" "sides sides" "since since"',
  padding: theme.spacing(0.75, 0),
  borderBottom: `1px solid ${colours.line}`,
  backgroundColor: colours.ground,
  [theme.breakpoints.up('sm')]: {
    gridTemplateColumns: '44px minmax(118px, 0.8fr) minmax(0, 2.4fr) minmax(108px, 0.9fr)',
    gridTemplateAreas: '"handle name sides since"',
  },
  '& .handle': {
    gridArea: 'handle',
    width: 44,
    height: 44,
    cursor: 'grab',
    touchAction: 'none',
    color: colours.muted,
    '&.fixed': { cursor: 'default' },
  },
  '& .name': { gridArea: 'name', minWidth: 0 },
  '& .name strong': { fontFamily: serif, fontSize: '1.08rem', fontWeight: 600, lineHeight: 1.2 },
  '& .sides': {
    gridArea: 'sides',
    display: 'grid',
    direction: 'ltr',
    gap: theme.spacing(1),
    gridTemplateColumns: 'repeat(2, minmax(0, 1fr))',
    '&.one': { gridTemplateColumns: 'minmax(0, 1fr)', justifyItems: 'center' },
  },
  '& .since': { gridArea: 'since', fontSize: '0.88rem', lineHeight: 1.35 },
  '& .since .why': { color: colours.muted },
  '& .part': {
    display: 'grid',
    gridTemplateColumns: '58px minmax(0, 1fr)',
    gap: theme.spacing(1),
    alignItems: 'center',
    borderLeft: '3px solid var(--lane)',
    paddingLeft: theme.spacing(0.75),
    minHeight: 64,
  },
  '& .one .part': { width: 'min(100%, 360px)' },
  '& .part.closed': { backgroundImage: hatching(7) },
  '& .line': { fontSize: '0.9rem', lineHeight: 1.3 },
  '& .line a': { color: 'inherit' },
  '& select': {
    font: 'inherit',
    fontSize: '0.95rem',
    fontWeight: 700,
    color: 'var(--lane)',
    background: 'none',
    border: 0,
    borderBottom: `1px dotted ${colours.muted}`,
    minHeight: 28,
    padding: 0,
    '& option': { color: colours.ink, backgroundColor: colours.paper, fontWeight: 400 },
    '&:focus-visible': { outline: '3px solid var(--focus)', outlineOffset: 1 },
  },
  '& .missing': { color: colours.muted, fontSize: '0.88rem', lineHeight: 1.35 },
}))

interface Props {
  pose: Pose
  place: number
  mayWrite: boolean
  /** Whether something is on its way: nothing is added until it is stored. */
  busy: boolean
  /** Where a side's set-up is changed. */
  setUpAt: (part: Part, side: Side) => string
  onFix: () => void
  onMuch: (side: Side, much: Much) => void
  onLeaveOut: (side: Side | null) => void
  onAdd: () => void
  onAsLastTime: () => void
}

/** One pose of the plan: its place, both sides with set-up and dose, its minutes, and what differs from last time. */
export function PoseRow({
  pose,
  place,
  mayWrite,
  busy,
  setUpAt,
  onFix,
  onMuch,
  onLeaveOut,
  onAdd,
  onAsLastTime,
}: Props) {
  const { t } = useTranslation()
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition, isDragging } =
    useSortable({ id: pose.family, disabled: !mayWrite })
  const sides: Side[] = pose.shared ? ['left'] : ['left', 'right']
  const since = sinceOf(pose)
  const changed = since.some((each) => each.changed && each.why !== '')
  return (
    <Line
      ref={setNodeRef}
      style={{
        transform: CSS.Translate.toString(transform),
        ...(transition === undefined ? {} : { transition }),
        ...(isDragging ? { position: 'relative', zIndex: 1, boxShadow: `0 0 0 2px ${colours.ink}` } : {}),
      }}
      aria-label={pose.name}
    >
      {mayWrite ? (
        <ButtonBase
          ref={setActivatorNodeRef}
          className="handle"
          {...attributes}
          {...listeners}
          aria-label={t('plan.move', { place: place + 1, name: pose.name })}
        >
          <Dots />
        </ButtonBase>
      ) : (
        <span />
      )}
      <div className="name">
        <strong>
          {place + 1} <span>{pose.name}</span>
        </strong>
        <Typography variant="small">{t('plan.takes', { minutes: wholeMinutes(pose.seconds) })}</Typography>
        {mayWrite && (
          <Row gap={0.5} wrap>
            <Small onClick={onFix} aria-pressed={pose.fixed}>
              {t(pose.fixed ? 'plan.fixed' : 'plan.fix')}
            </Small>
            <Small
              onClick={() => {
                onLeaveOut(null)
              }}
            >
              {t('plan.leaveOut')}
              <Hidden>: {pose.name}</Hidden>
            </Small>
          </Row>
        )}
      </div>
      <div className={pose.shared ? 'sides one' : 'sides'}>
        {sides.map((side) => {
          const part = pose[side]
          const lane: Lane = pose.shared ? 'both' : side
          return part === null ? (
            <div key={side} className="part" style={{ '--lane': laneColour(lane) } as object}>
              <span />
              <div className="missing">
                {pose[`${side}_missing`] || t('plan.sideOut', { side: t(`side.${side}`) })}
                {mayWrite && pose[`${side}_missing`] === '' && (
                  <div>
                    <Small disabled={busy} onClick={onAdd}>
                      {t('plan.addSide', { side: t(`side.${side}`) })}
                    </Small>
                  </div>
                )}
              </div>
            </div>
          ) : (
            <PartCell
              key={side}
              part={part}
              lane={lane}
              name={pose.name}
              mayWrite={mayWrite}
              to={setUpAt(part, side)}
              onMuch={(much) => {
                onMuch(side, much)
              }}
            />
          )
        })}
      </div>
      <div className="since">
        {since.map(({ side, text, why, changed }) => (
          <div key={side}>
            {side !== 'both' && !pose.shared && <OfSide side={side} />}
            <span style={{ fontWeight: changed ? 700 : 400 }}>{text}</span>
            {changed && why !== '' && <div className="why">{why}</div>}
          </div>
        ))}
        {mayWrite && changed && (
          <Small disabled={busy} onClick={onAsLastTime}>
            {t('plan.asLastTime')}
          </Small>
        )}
      </div>
    </Line>
  )
}

function OfSide({ side }: { side: Side }) {
  const { t } = useTranslation()
  return <strong style={{ color: laneColour(side) }}>{t(`side.${side}`)}: </strong>
}

interface PartProps {
  part: Schemas['PlannedPart']
  lane: Lane
  name: string
  mayWrite: boolean
  to: string
  onMuch: (much: Much) => void
}

/** One planned side: its figure, where everything goes, and how much of it. */
function PartCell({ part, lane, name, mayWrite, to, onMuch }: PartProps) {
  const { t } = useTranslation()
  const whose = `${name}, ${t(`side.${lane}`)}`
  return (
    <div
      className={part.allowed ? 'part' : 'part closed'}
      style={{ '--lane': laneColour(lane) } as object}
      role="group"
      aria-label={whose}
    >
      <Figure svg={part.figure} height={60} faded={!part.allowed} decorative />
      <div>
        <div className="line">
          <Link to={to} aria-label={t('plan.change', { what: `${whose}: ${part.short}` })}>
            {part.short}
          </Link>
          {part.line !== '' && `: ${part.line}`}
        </div>
        <Row gap={0.75} wrap>
          {mayWrite ? (
            <>
              <select
                aria-label={t('plan.dose', { whose })}
                value={part.dose_s}
                onChange={(event) => {
                  onMuch({ dose_s: Number(event.target.value), rounds: part.rounds })
                }}
              >
                {part.doses.map(({ seconds, words }) => (
                  <option key={seconds} value={seconds}>
                    {words}
                  </option>
                ))}
              </select>
              <select
                aria-label={t('plan.rounds', { whose })}
                value={part.rounds}
                onChange={(event) => {
                  onMuch({ dose_s: part.dose_s, rounds: Number(event.target.value) })
                }}
              >
                {Array.from({ length: Math.max(MOST_ROUNDS, part.rounds) }, (_, round) => round + 1).map(
                  (round) => (
                    <option key={round} value={round}>
                      {t('plan.times', { count: round })}
                    </option>
                  ),
                )}
              </select>
            </>
          ) : (
            <strong style={{ color: laneColour(lane) }}>
              {part.dose} {t('plan.times', { count: part.rounds })}
            </strong>
          )}
          {part.verdict !== 'clear' && part.verdict !== 'with_setup' && (
            <Row gap={0.4}>
              <VerdictMark verdict={part.verdict} size={14} />
              <Typography variant="small" component="span">
                {t(`verdict.${part.verdict}`)}
              </Typography>
            </Row>
          )}
        </Row>
      </div>
    </div>
  )
}

const Small = styled(Button)(({ theme }) => ({
  minHeight: 28,
  minWidth: 0,
  padding: theme.spacing(0, 0.75),
  marginLeft: theme.spacing(-0.75),
  fontSize: '0.84rem',
  fontWeight: 400,
  textDecoration: 'underline',
  textDecorationColor: colours.line,
  textUnderlineOffset: 3,
  '&[aria-pressed="true"]': { fontWeight: 700 },
}))

function Dots() {
  return (
    <svg width="12" height="18" viewBox="0 0 12 18" aria-hidden focusable="false">
      {[2, 9, 16].flatMap((y) =>
        [3, 9].map((x) => (
          <circle key={`${x.toString()} ${y.toString()}`} cx={x} cy={y} r="1.7" fill="currentColor" />
        )),
      )}
    </svg>
  )
}

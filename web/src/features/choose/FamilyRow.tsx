import ButtonBase from '@mui/material/ButtonBase'
import { styled } from '@mui/material/styles'
import { memo } from 'react'
import { useTranslation } from 'react-i18next'
import type { Lane, Schemas, Side } from '../../api/client'
import { shortDate } from '../../common/dates'
import { Hidden } from '../../common/ui/Hidden'
import { Near } from '../../common/ui/Near'
import { colours, laneColour, serif } from '../../theme/theme'
import { Ladder } from './Ladder'
import { LaneMarks } from './LaneMarks'
import {
  type Family,
  type Filters,
  fits,
  isOpen,
  type Ladder as LadderOf,
  lanesOf,
  lastOf,
  levelsOf,
  type Rung,
} from './model'

/** An opened ladder's height until it was drawn, px. */
const OPENED = 500

/** The columns of the list: name, left and right with what was last, and where it is done. */
export const COLUMNS = {
  display: 'grid',
  gridTemplateColumns:
    '166px minmax(64px, 1fr) minmax(max-content, 245px) minmax(max-content, 245px) minmax(64px, 1fr) 86px',
  columnGap: 12,
  alignItems: 'center',
  direction: 'ltr',
  // Where there is less room the lanes stand beneath the name, and then beneath each other.
  '@media (max-width: 899px)': {
    gridTemplateColumns: 'minmax(0, 1fr) minmax(0, 1fr)',
    '& .name, & [role="status"]': { gridColumn: '1 / -1' },
    '& .last, & .where': { display: 'none' },
  },
  '@media (max-width: 599px)': {
    gridTemplateColumns: 'minmax(0, 1fr)',
    '& .left.left, & .both.both': { gridColumn: 1, justifyContent: 'flex-start', textAlign: 'left' },
  },
} as const

const Line = styled(ButtonBase)({
  ...COLUMNS,
  width: '100%',
  minHeight: 31,
  textAlign: 'left',
  fontSize: '0.92rem',
  '&:hover': { backgroundColor: colours.panel },
  '& .name': {
    fontFamily: serif,
    fontWeight: 600,
    fontSize: '1.02rem',
    lineHeight: 1.15,
    paddingLeft: 16,
    position: 'relative',
  },
  '& .name::before': {
    content: '""',
    position: 'absolute',
    left: 1,
    top: 5,
    width: 6,
    height: 6,
    borderRight: `2px solid ${colours.muted}`,
    borderBottom: `2px solid ${colours.muted}`,
    transform: 'rotate(-45deg)',
  },
  '&[aria-expanded="true"] .name::before': { transform: 'rotate(45deg)' },
  '& .last': { overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap', fontSize: '0.86rem' },
  '& .left': { display: 'flex', justifyContent: 'flex-end' },
  '& .both': { gridColumn: 'span 2', display: 'flex', justifyContent: 'center' },
  '& .where': { textAlign: 'right', color: colours.muted, fontSize: '0.86rem', lineHeight: 1.15 },
})

interface Props {
  family: Family
  ladder: LadderOf | undefined
  filters: Filters
  opened: boolean
  onOpen: (family: string) => void
  /** The rungs chosen on it. */
  left: string | undefined
  right: string | undefined
  onChoose: (family: string, side: Side, rung: string) => void
}

/** One family in a line, both sides as small ladders; opened, the ladders as they are drawn. */
export const FamilyRow = memo(function FamilyRow({
  family,
  ladder,
  filters,
  opened,
  left,
  right,
  onOpen,
  onChoose,
}: Props) {
  const { t } = useTranslation()
  const said =
    ladder === undefined ? [t('choose.toCome')] : lanesOf(ladder).map((side) => saidOf(ladder, side))
  function saidOf(ladder: LadderOf, side: Side) {
    const { rungs, decision } = ladder[side]
    const open = rungs.filter((rung) => isOpen(rung, decision.action)).length
    return t('choose.openOf', { side: t(`side.${ladder.shared ? 'both' : side}`), open, count: rungs.length })
  }
  return (
    <section style={{ borderBottom: `1px solid ${colours.line}` }}>
      <h2 style={{ margin: 0, font: 'inherit' }}>
        <Line
          aria-expanded={opened}
          onClick={() => {
            onOpen(family.family)
          }}
        >
          <span className="name">
            {family.name}
            <Hidden>; {said.join('; ')}</Hidden>
          </span>
          {ladder !== undefined && <Marks ladder={ladder} filters={filters} />}
        </Line>
      </h2>
      {opened && ladder !== undefined && (
        <Near height={OPENED}>
          <Ladder
            ladder={ladder}
            chosen={{ ...(left === undefined ? {} : { left }), ...(right === undefined ? {} : { right }) }}
            onChoose={onChoose}
          />
        </Near>
      )}
    </section>
  )
})

const Marks = memo(function Marks({ ladder, filters }: { ladder: LadderOf; filters: Filters }) {
  const { t } = useTranslation()
  const sides = lanesOf(ladder)
  const looked = (rung: Rung) => fits(rung, sides.length, filters)
  const lane = (side: Side, name: Lane = side) => (
    <span className={name}>
      <LaneMarks lane={name} of={ladder[side]} inward={name === 'left'} looked={looked} />
    </span>
  )
  return (
    <>
      <Status of={ladder.left} lane={ladder.shared ? 'both' : 'left'} />
      {ladder.shared ? (
        lane('left', 'both')
      ) : (
        <>
          {lane('left')}
          {lane('right')}
        </>
      )}
      {ladder.shared ? <span className="last" /> : <Status of={ladder.right} lane="right" />}
      <span className="where">
        {levelsOf(ladder)
          .map((level) => t(`choose.level.${level}`))
          .join(', ')}
      </span>
    </>
  )
})

/** How it went the last time on a side; of what is new whether anything is open, and else why not. */
function Status({ of, lane }: { of: Schemas['LaneOut']; lane: Lane }) {
  const { t } = useTranslation()
  const last = lastOf(of)
  const closed = of.rungs[0]
  const text =
    last !== null
      ? `${t(`choose.tolerance.${last.tolerance}`)} · ${shortDate(last.date)}`
      : of.rungs.some((rung) => isOpen(rung, of.decision.action))
        ? t('choose.new')
        : (closed?.brief ?? '')
  return (
    <span className="last" title={text} style={{ color: last === null ? colours.muted : laneColour(lane) }}>
      <Hidden>; {t(`side.${lane}`)}: </Hidden>
      {text}
    </span>
  )
}

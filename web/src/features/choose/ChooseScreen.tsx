import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import { styled } from '@mui/material/styles'
import { useMemo, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { useNavigate } from 'react-router'
import type { Schemas, Side } from '../../api/client'
import { usePicked } from '../../common/drafts'
import { familyOf, useFamilies, useOverview, usePurposes } from '../../common/ladders'
import { useClientPath } from '../../common/route'
import { addressOf, screenById } from '../../common/screens'
import { useLatest } from '../../common/useLatest'
import { FirstMet } from '../../common/ui/FirstMet'
import { Row } from '../../common/ui/layout'
import { Empty, Failure, isStatureMissing, Working } from '../../common/ui/States'
import { VerdictMark } from '../../common/ui/VerdictMark'
import { colours, laneColour } from '../../theme/theme'
import { CompareDialog } from './CompareDialog'
import { COLUMNS, FamilyRow } from './FamilyRow'
import { FilterBar } from './FilterBar'
import { MarkShapes } from './LaneMarks'
import {
  ANY,
  type Beside,
  type Chosen,
  type Family,
  type Filters,
  inOrder,
  type Ladder,
  NOT_JUDGED,
  overviewOf,
} from './model'
import { ReasonPanel } from './ReasonPanel'

/** Nothing chosen yet, the same at every look. */
const NONE: Chosen = {}
const NOTHING: readonly string[] = []
const NO_RUNGS: readonly Beside[] = []
const NO_LINES: readonly Family[] = []

const VERDICTS: readonly Schemas['Verdict'][] = [
  'clear',
  'with_setup',
  'with_eye',
  'check_first',
  'leave_out',
]

const FIRST_WORDS = ['ladder', 'rung', 'with_eye', 'check_first'] as const

const Head = styled('div')({
  ...COLUMNS,
  fontSize: '0.86rem',
  color: colours.muted,
  borderBottom: `2px solid ${colours.ink}`,
  padding: '8px 0 4px',
  '& .left': { textAlign: 'right', color: laneColour('left'), fontWeight: 600 },
  '& .right': { color: laneColour('right'), fontWeight: 600 },
  '& .where': { textAlign: 'right' },
})

/** Everything that is open for this person today, a line for each ladder; opened, the ladder as it is drawn. */
export function ChooseScreen() {
  const { t } = useTranslation()
  const { practice_id, client_id } = useClientPath()
  const navigate = useNavigate()
  const families = useFamilies()
  const everyPurpose = usePurposes()
  const [picked, setPicked] = usePicked(`purposes:${client_id}`, NOTHING)
  const [filters, setFilters] = usePicked<Filters>(`filters:${client_id}`, ANY)
  const [opened, setOpened] = usePicked<readonly string[] | null>(`opened:${client_id}`, null)
  const [chosen, setChosen] = usePicked<Chosen>(`chosen:${client_id}`, NONE)
  const [beside, setBeside] = useState(NO_RUNGS)
  const [comparing, setComparing] = useState(false)
  const [text, setText] = useState('')
  /** What somebody works on while ladders still come does not move from under the hand when they are there; until the list
   * is narrowed anew. */
  const [held, setHeld] = useState(false)
  /** Somebody narrowed the list while ladders still came: none opens by itself any more, under a hand that is about to
   * press it. */
  const [early, setEarly] = useState(false)
  const lines = families.data ?? NO_LINES
  const judged = useOverview(inOrder(lines, NOT_JUDGED).map(({ family }) => family))
  const ladders = useMemo(
    () => new Map<string, Ladder>(judged.data.map((ladder) => [ladder.family, ladder])),
    [judged.data],
  )
  const { purposes, known, shown } = useMemo(
    () =>
      overviewOf(lines, ladders, everyPurpose.data ?? [], {
        picked,
        filters,
        text,
        held: held ? (opened ?? NOTHING) : null,
      }),
    [lines, ladders, everyPurpose.data, picked, filters, text, held, opened],
  )
  const narrowed =
    <T,>(set: (next: T) => void) =>
    (next: T) => {
      setHeld(false)
      if (judged.isPending) setEarly(true)
      set(next)
    }
  const pick = useLatest(narrowed(setPicked))
  const filter = useLatest(narrowed(setFilters))
  if (families.isPending || everyPurpose.isPending) return <Working />
  if (families.isError) return <Failure error={families.error} again={() => void families.refetch()} />
  if (everyPurpose.isError)
    return <Failure error={everyPurpose.error} again={() => void everyPurpose.refetch()} />
  const unmeasured = judged.failed.find(({ error }) => isStatureMissing(error))
  if (unmeasured !== undefined) return <Failure error={unmeasured.error} />

  // Nothing opened by hand yet: the first, once it is known which one that is.
  const settled = !judged.isPending || shown[0]?.last !== null
  const isOpened = (family: string) =>
    opened === null ? settled && !early && family === shown[0]?.family : opened.includes(family)
  const openSetup = () => {
    const query = new URLSearchParams(Object.entries(chosen)).toString()
    void navigate(`${addressOf(screenById('setUp'), practice_id, client_id)}?${query}`)
  }
  return (
    <>
      <FirstMet words={FIRST_WORDS} />
      <MarkShapes />
      <FilterBar
        purposes={purposes}
        picked={known}
        onPick={pick}
        filters={filters}
        onFilter={filter}
        text={text}
        onText={narrowed(setText)}
      />
      <Head>
        <span role="status" style={{ color: colours.ink }}>
          {judged.isPending
            ? t('choose.working', { done: judged.data.length, all: lines.length })
            : t('choose.ladders', { count: shown.length, all: lines.length })}
        </span>
        <span className="last">{t('choose.lastTime')}</span>
        <span className="left">{t('choose.lessHeldLeft')}</span>
        <span className="right">{t('choose.lessHeldRight')}</span>
        <span className="last">{t('choose.lastTime')}</span>
        <span className="where">{t('choose.where')}</span>
      </Head>
      {judged.failed.map(({ families: some, error, again }) => (
        <section key={some.join()}>
          <strong>
            {lines
              .filter(({ family }) => some.includes(family))
              .map(({ name }) => name)
              .join(', ')}
          </strong>
          <Failure error={error} again={again} />
        </section>
      ))}
      {shown.length === 0 &&
        (text.trim() === '' ? (
          <Empty
            title={t('choose.noneLeft')}
            more={t('choose.noneLeftMore')}
            action={
              <Button
                variant="outlined"
                onClick={() => {
                  setPicked(NOTHING)
                  setFilters({ ...ANY, open: false })
                }}
              >
                {t('choose.anyway')}
              </Button>
            }
          />
        ) : (
          <Empty title={t('choose.noneFound', { text })} />
        ))}
      <Families
        shown={shown}
        ladders={ladders}
        filters={filters}
        isOpened={isOpened}
        chosen={chosen}
        onOpen={(family) => {
          if (judged.isPending) setHeld(true)
          const now = shown.map((each) => each.family).filter(isOpened)
          setOpened(isOpened(family) ? now.filter((each) => each !== family) : [...now, family])
        }}
        onChoose={(family, side, rung) => {
          if (judged.isPending) setHeld(true)
          // A shape both legs share is chosen for both.
          const shared = ladders.get(family)?.shared === true
          setChosen(shared ? { left: rung, right: rung } : { ...chosen, [side]: rung })
        }}
      />
      <Box
        aria-label={t('choose.legend')}
        role="group"
        sx={{
          display: 'flex',
          flexWrap: 'wrap',
          columnGap: 2,
          color: 'text.secondary',
          fontSize: '0.88rem',
          py: 1.25,
        }}
      >
        {VERDICTS.map((verdict) => (
          <Row key={verdict} gap={0.75}>
            <VerdictMark verdict={verdict} />
            {t(`verdict.${verdict}`)}
          </Row>
        ))}
        <Row gap={0.75}>
          <Frame style={{ backgroundColor: colours.note, borderStyle: 'solid' }} />
          {t('choose.here')}
        </Row>
        <Row gap={0.75}>
          <Frame />
          {t('choose.offered')}
        </Row>
      </Box>
      <ReasonPanel
        ladders={judged.data}
        chosen={chosen}
        beside={beside}
        onBeside={setBeside}
        onCompare={() => {
          setComparing(true)
        }}
        onOpen={openSetup}
      />
      {comparing && (
        <CompareDialog
          rungs={beside}
          onRemove={(rung) => {
            setBeside(beside.filter((each) => each.side !== rung.side || each.rung !== rung.rung))
          }}
          onClose={() => {
            setComparing(false)
          }}
        />
      )}
    </>
  )
}

const Frame = styled('span')({
  width: 16,
  height: 16,
  borderRadius: 4,
  border: `1.5px dashed ${colours.muted}`,
})

interface FamiliesProps {
  shown: readonly Family[]
  ladders: ReadonlyMap<string, Ladder>
  filters: Filters
  isOpened: (family: string) => boolean
  chosen: Chosen
  onOpen: (family: string) => void
  onChoose: (family: string, side: Side, rung: string) => void
}

/** A line for each family; what is chosen on one draws only that one anew. */
function Families({ shown, ladders, filters, isOpened, chosen, onOpen, onChoose }: FamiliesProps) {
  const open = useLatest(onOpen)
  const choose = useLatest(onChoose)
  const on = (family: string, side: Side) => {
    const rung = chosen[side]
    return rung !== undefined && familyOf(rung) === family ? rung : undefined
  }
  return shown.map((family) => (
    <FamilyRow
      key={family.family}
      family={family}
      ladder={ladders.get(family.family)}
      filters={filters}
      opened={isOpened(family.family)}
      left={on(family.family, 'left')}
      right={on(family.family, 'right')}
      onOpen={open}
      onChoose={choose}
    />
  ))
}

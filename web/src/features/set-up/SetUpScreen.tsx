import Button from '@mui/material/Button'
import { useCallback, useDeferredValue, useMemo, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Link, useSearchParams } from 'react-router'
import type { Lane, Side } from '../../api/client'
import { familiesFrom, ladderWith, rungsFrom, useFamilies, useLadders } from '../../common/ladders'
import { useClientHead } from '../../common/head'
import { useClientPath } from '../../common/route'
import { addressOf, screenById } from '../../common/screens'
import { useCommands } from '../../common/commands'
import { FirstMet } from '../../common/ui/FirstMet'
import { Empty, Failure, Working } from '../../common/ui/States'
import { Lanes } from '../../common/ui/layout'
import { FacingRulers } from './FacingRulers'
import { LaneDetails } from './LaneDetails'
import { sideOf } from './model'
import { PoseBar, type View } from './PoseBar'
import { SetupLane } from './SetupLane'
import type { LaneState } from './useLaneState'
import { useSetup } from './queries'
import { useChosen, useLaneState } from './useLaneState'

const SIDES: readonly Side[] = ['left', 'right']
const FIRST_WORDS = ['setup', 'purpose', 'margin'] as const

/** Two lanes facing outward, one ruler for both, and what each side needs from the shelf; one lane for a shape that both
 * legs share, its two sides facing inside it. */
export function SetUpScreen() {
  const { t } = useTranslation()
  const { practice_id, client_id } = useClientPath()
  const families = useFamilies()
  const [search, setSearch] = useSearchParams()
  const [picked, setPicked] = useState<{ rung: string; view: View } | null>(null)
  const [active, setActive] = useState<Side>('left')
  const chosen = useChosen(client_id, useClientHead().data?.today ?? '')
  const open = familiesFrom(families.data ?? [], search)
  const ladders = useLadders([...new Set(Object.values(open).filter((each) => each !== undefined))])
  const rungs = rungsFrom(ladders.data, open, search)
  const ladderOf = (side: Side) => ladders.data.find((each) => each.family === open[side])
  // A pose is first seen from where it shows most; the therapist's own choice holds for its rung.
  const seen = useSetup(rungs[active], active).data?.seen_from
  const view = picked !== null && picked.rung === rungs[active] ? picked.view : (seen ?? 'side')
  const left = useLaneState(rungs.left, 'left', view, ladderOf('left')?.left.decision.step ?? null, chosen)
  const right = useLaneState(
    rungs.right,
    'right',
    view,
    ladderOf('right')?.right.decision.step ?? null,
    chosen,
  )
  // A step is seen at once where it was made; what is read further down follows in the next moment.
  const lateLeft = useDeferredValue(left)
  const lateRight = useDeferredValue(right)
  const data = ladders.data
  const go = useCallback(
    (lane: Lane, rung: string | undefined) => {
      if (rung === undefined) return
      setSearch((now) => {
        for (const each of ladderWith(data, rung)?.shared === true ? SIDES : [sideOf(lane)]) {
          now.set(each, rung)
        }
        return now
      })
    },
    [setSearch, data],
  )
  const activate = useCallback((lane: Lane) => {
    setActive(sideOf(lane))
  }, [])
  // Where each side stands on a ladder is known once it has arrived: the address names only the family.
  const openLadder = useCallback(
    (family: string) => {
      setSearch({ left: `${family}.`, right: `${family}.` })
    },
    [setSearch],
  )
  const shown = rungs[active] ?? ''
  const see = useCallback(
    (each: View) => {
      setPicked({ rung: shown, view: each })
    },
    [shown],
  )
  const current: LaneState = active === 'left' ? left : right
  useCommands(
    useMemo(
      () => [
        {
          name: 'left' as const,
          keys: ['l'],
          run: () => {
            setActive('left')
          },
        },
        {
          name: 'right' as const,
          keys: ['r'],
          run: () => {
            setActive('right')
          },
        },
        {
          name: 'stepBack' as const,
          keys: ['['],
          run: () => {
            go(active, current.rung?.step_back?.variation)
          },
        },
        {
          name: 'stepForward' as const,
          keys: [']'],
          run: () => {
            go(active, current.rung?.step_forward?.variation)
          },
        },
      ],
      [active, current.rung, go],
    ),
  )
  if (families.isError) return <Failure error={families.error} again={() => void families.refetch()} />
  const failed = ladders.failed[0]
  if (failed !== undefined) return <Failure error={failed.error} again={failed.again} />
  if (families.isPending || ladders.isPending) return <Working />
  if (rungs.left === undefined && rungs.right === undefined) {
    return (
      <Empty
        title={t('setUp.pickRung')}
        more={t('setUp.pickRungMore')}
        action={
          <Button
            component={Link}
            to={addressOf(screenById('choose'), practice_id, client_id)}
            variant="contained"
          >
            {t('setUp.toChoose')}
          </Button>
        }
      />
    )
  }
  const shared = rungs.left === rungs.right && left.rung?.shared === true
  const lanes: readonly Side[] = shared ? ['left'] : SIDES
  return (
    <>
      <FirstMet words={FIRST_WORDS} />
      <PoseBar
        families={families.data}
        family={ladderOf(active)?.family ?? ''}
        onFamily={openLadder}
        view={view}
        onView={see}
      />
      <Lanes one={shared}>
        {lanes.map((side) => (
          <SetupLane
            key={side}
            side={shared ? 'both' : side}
            state={side === 'left' ? left : right}
            active={active === side}
            onActivate={activate}
          />
        ))}
      </Lanes>
      <FacingRulers left={lateLeft} right={lateRight} />
      <Lanes one={shared} style={{ marginTop: 12 }}>
        {lanes.map((side) => (
          <LaneDetails
            key={side}
            side={shared ? 'both' : side}
            state={side === 'left' ? lateLeft : lateRight}
            onGo={go}
          />
        ))}
      </Lanes>
    </>
  )
}

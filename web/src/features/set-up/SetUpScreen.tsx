import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import MenuItem from '@mui/material/MenuItem'
import TextField from '@mui/material/TextField'
import ToggleButton from '@mui/material/ToggleButton'
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup'
import Typography from '@mui/material/Typography'
import { useCallback, useMemo, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Link, useSearchParams } from 'react-router'
import type { Schemas, Side } from '../../api/client'
import { familiesFrom, ladderWith, rungsFrom, useFamilies, useLadders } from '../../common/ladders'
import { useClientHead } from '../../common/head'
import { useClientPath } from '../../common/route'
import { addressOf, screenById } from '../../common/screens'
import { useCommands } from '../../common/commands'
import { Empty, Failure, Working } from '../../common/ui/States'
import { FacingRulers } from './FacingRulers'
import { LaneDetails } from './LaneDetails'
import { SetupLane } from './SetupLane'
import type { LaneState } from './useLaneState'
import { useSetup } from './queries'
import { useChosen, useLaneState } from './useLaneState'
import { serif } from '../../theme/theme'

const SIDES: readonly Side[] = ['left', 'right']
type View = Schemas['SetupQuery']['view']
const VIEWS: readonly View[] = ['side', 'front', 'behind', 'above']

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
  const data = ladders.data
  const go = useCallback(
    (side: Side, rung: string | undefined) => {
      if (rung === undefined) return
      setSearch((now) => {
        for (const each of ladderWith(data, rung)?.shared === true ? SIDES : [side]) {
          now.set(each, rung)
        }
        return now
      })
    },
    [setSearch, data],
  )
  // Where each side stands on a ladder is known once it has arrived: the address names only the family.
  const openLadder = (family: string) => {
    setSearch({ left: `${family}.`, right: `${family}.` })
  }
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
            go(active, current.setup.data?.step_back?.variation)
          },
        },
        {
          name: 'stepForward' as const,
          keys: [']'],
          run: () => {
            go(active, current.setup.data?.step_forward?.variation)
          },
        },
      ],
      [active, current.setup.data, go],
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
  const shared = rungs.left === rungs.right && left.setup.data?.shared === true
  const lanes: readonly Side[] = shared ? ['left'] : SIDES
  const columns = { xs: 'minmax(0,1fr)', ...(shared ? {} : { md: 'minmax(0,1fr) minmax(0,1fr)' }) }
  return (
    <>
      <Box sx={{ display: 'flex', alignItems: 'center', flexWrap: 'wrap', gap: 1, mb: 1 }}>
        <TextField
          select
          variant="standard"
          aria-label={t('setUp.ladder')}
          value={ladderOf(active)?.family ?? ''}
          onChange={(event) => {
            openLadder(event.target.value)
          }}
          slotProps={{
            htmlInput: { 'aria-label': t('setUp.ladder') },
            input: {
              disableUnderline: true,
              sx: { fontFamily: serif, fontSize: '1.35rem', fontWeight: 600 },
            },
          }}
        >
          {families.data.map((family) => (
            <MenuItem key={family.family} value={family.family}>
              {family.name}
            </MenuItem>
          ))}
        </TextField>
        <Box sx={{ ml: 'auto', display: 'flex', gap: 1, alignItems: 'center', flexWrap: 'wrap' }}>
          <Typography id="seen-from" color="text.secondary" sx={{ fontSize: '0.92rem' }}>
            {view === 'front' && `${t('setUp.mirrored')} · `}
            {t('setUp.seen')}
          </Typography>
          <ToggleButtonGroup
            exclusive
            size="small"
            aria-labelledby="seen-from"
            value={view}
            onChange={(_, each: View | null) => {
              if (each !== null) setPicked({ rung: rungs[active] ?? '', view: each })
            }}
          >
            {VIEWS.map((each) => (
              <ToggleButton key={each} value={each} sx={{ minHeight: 44, px: 1.25 }}>
                {t(`setUp.views.${each}`)}
              </ToggleButton>
            ))}
          </ToggleButtonGroup>
        </Box>
      </Box>
      <Box sx={{ display: 'grid', gridTemplateColumns: columns, gap: 1.75 }}>
        {lanes.map((side) => (
          <SetupLane
            key={side}
            side={shared ? 'both' : side}
            state={side === 'left' ? left : right}
            active={active === side}
            onActivate={() => {
              setActive(side)
            }}
          />
        ))}
      </Box>
      <FacingRulers left={left} right={right} />
      <Box sx={{ display: 'grid', gridTemplateColumns: columns, gap: 1.75, mt: 1.5 }}>
        {lanes.map((side) => (
          <LaneDetails
            key={side}
            side={shared ? 'both' : side}
            state={side === 'left' ? left : right}
            onGo={(rung) => {
              go(side, rung)
            }}
          />
        ))}
      </Box>
    </>
  )
}

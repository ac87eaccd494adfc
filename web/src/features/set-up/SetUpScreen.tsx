import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import MenuItem from '@mui/material/MenuItem'
import TextField from '@mui/material/TextField'
import Typography from '@mui/material/Typography'
import { useCallback, useMemo, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Link, useSearchParams } from 'react-router'
import type { Schemas, Side } from '../../api/client'
import { colours, serif } from '../../app/theme'
import { familiesFrom, ladderWith, rungsFrom, useFamilies, useLadders } from '../../common/ladders'
import { useClientHead } from '../../common/head'
import { clientAddress, useClientPath } from '../../common/route'
import { useShortcuts } from '../../common/shortcuts'
import { Empty, Failure, Working } from '../../common/ui/States'
import { FacingRulers } from './FacingRulers'
import { LaneDetails } from './LaneDetails'
import { SetupLane } from './SetupLane'
import type { LaneState } from './useLaneState'
import { useSetup } from './queries'
import { useChosen, useLaneState } from './useLaneState'

const SIDES: readonly Side[] = ['left', 'right']
const VIEWS: readonly Schemas['SetupQuery']['view'][] = ['side', 'front', 'behind', 'above']

/** Two lanes facing outward, one ruler for both, and what each side needs from the shelf; one lane for a shape that both
 * legs share, its two sides facing inside it. */
export function SetUpScreen() {
  const { t } = useTranslation()
  const { practice_id, client_id } = useClientPath()
  const families = useFamilies()
  const [search, setSearch] = useSearchParams()
  const [picked, setPicked] = useState<{ rung: string; view: Schemas['SetupQuery']['view'] } | null>(null)
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
  useShortcuts(
    useMemo(
      () => [
        {
          key: 'l',
          run: () => {
            setActive('left')
          },
        },
        {
          key: 'r',
          run: () => {
            setActive('right')
          },
        },
        {
          key: '[',
          run: () => {
            go(active, current.setup.data?.step_back?.variation)
          },
        },
        {
          key: ']',
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
          <Button component={Link} to={clientAddress(practice_id, client_id, 'choose')} variant="contained">
            {t('setUp.toChoose')}
          </Button>
        }
      />
    )
  }
  const shared = rungs.left === rungs.right && left.setup.data?.shared === true
  const lanes: readonly Side[] = shared ? ['left'] : SIDES
  const columns = shared ? 'minmax(0,1fr)' : 'minmax(0,1fr) minmax(0,1fr)'
  return (
    <>
      <Box sx={{ display: 'flex', alignItems: 'center', mb: 1 }}>
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
        <Box
          role="radiogroup"
          aria-label={t('setUp.seen')}
          sx={{ ml: 'auto', display: 'flex', gap: 0.5, alignItems: 'center' }}
        >
          <Typography color="text.secondary" sx={{ fontSize: '0.92rem' }}>
            {view === 'front' && `${t('setUp.mirrored')} · `}
            {t('setUp.seen')}
          </Typography>
          {VIEWS.map((each) => (
            <Button
              key={each}
              size="small"
              role="radio"
              aria-checked={view === each}
              onClick={() => {
                setPicked({ rung: rungs[active] ?? '', view: each })
              }}
              sx={{
                minWidth: 0,
                textDecoration: view === each ? 'underline' : 'none',
                textDecorationThickness: 3,
                textUnderlineOffset: 5,
                color: view === each ? colours.ink : colours.muted,
              }}
            >
              {t(`setUp.views.${each}`)}
            </Button>
          ))}
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

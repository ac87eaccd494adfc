import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Typography from '@mui/material/Typography'
import { useCallback, useMemo, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Link, useSearchParams } from 'react-router'
import type { Schemas, Side } from '../../api/client'
import { colours } from '../../app/theme'
import { startingRung, useLadders } from '../../common/ladders'
import { clientAddress, useClientPath } from '../../common/route'
import { useShortcuts } from '../../common/shortcuts'
import { Empty, Failure, Working } from '../../common/ui/States'
import { FacingRulers } from './FacingRulers'
import { LaneDetails } from './LaneDetails'
import { SetupLane } from './SetupLane'
import type { LaneState } from './useLaneState'
import { useLaneState } from './useLaneState'

const SIDES: readonly Side[] = ['left', 'right']
const VIEWS: readonly Schemas['SetupQuery']['view'][] = ['side', 'behind', 'above']

/** Two lanes facing outward, one ruler for both, and what each side needs from the shelf. */
export function SetUpScreen() {
  const { t } = useTranslation()
  const { practice_id, client_id } = useClientPath()
  const ladders = useLadders()
  const [search, setSearch] = useSearchParams()
  const [view, setView] = useState<Schemas['SetupQuery']['view']>('side')
  const [active, setActive] = useState<Side>('left')
  const ladder = ladders.data?.[0]
  const rungOf = (side: Side) => search.get(side) ?? (ladder && startingRung(ladder, side))
  const left = useLaneState(rungOf('left'), 'left', view, ladder?.left.decision.step ?? null)
  const right = useLaneState(rungOf('right'), 'right', view, ladder?.right.decision.step ?? null)
  const go = useCallback(
    (side: Side, rung: string | undefined) => {
      if (rung === undefined) return
      setSearch((now) => {
        now.set(side, rung)
        return now
      })
    },
    [setSearch],
  )
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
  if (ladders.isPending) return <Working />
  if (ladders.isError) {
    return <Failure error={ladders.error} again={() => void ladders.refetch()} />
  }
  if (rungOf('left') === undefined && rungOf('right') === undefined) {
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
  return (
    <>
      <Box sx={{ display: 'flex', alignItems: 'center', mb: 1 }}>
        <Typography variant="h2">{ladder?.name}</Typography>
        <Box
          role="radiogroup"
          aria-label={t('setUp.seen')}
          sx={{ ml: 'auto', display: 'flex', gap: 0.5, alignItems: 'center' }}
        >
          <Typography color="text.secondary" sx={{ fontSize: '0.92rem' }}>
            {t('setUp.seen')}
          </Typography>
          {VIEWS.map((each) => (
            <Button
              key={each}
              size="small"
              role="radio"
              aria-checked={view === each}
              onClick={() => {
                setView(each)
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
      <Box sx={{ display: 'grid', gridTemplateColumns: 'minmax(0,1fr) minmax(0,1fr)', gap: 1.75 }}>
        {SIDES.map((side) => (
          <SetupLane
            key={side}
            side={side}
            state={side === 'left' ? left : right}
            active={active === side}
            onActivate={() => {
              setActive(side)
            }}
          />
        ))}
      </Box>
      <FacingRulers left={left} right={right} />
      <Box sx={{ display: 'grid', gridTemplateColumns: 'minmax(0,1fr) minmax(0,1fr)', gap: 1.75, mt: 1.5 }}>
        {SIDES.map((side) => (
          <LaneDetails
            key={side}
            side={side}
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

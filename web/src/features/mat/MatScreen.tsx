import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Menu from '@mui/material/Menu'
import MenuItem from '@mui/material/MenuItem'
import { styled } from '@mui/material/styles'
import Typography from '@mui/material/Typography'
import { useEffect, useMemo, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Link } from 'react-router'
import type { Lane, Schemas } from '../../api/client'
import { useCommands } from '../../common/commands'
import { usePicked } from '../../common/drafts'
import { useClientHead } from '../../common/head'
import { useClientPath } from '../../common/route'
import { addressOf, screenById } from '../../common/screens'
import { Rest } from '../../common/ui/layout'
import { LightChoice } from '../../common/ui/LightChoice'
import { Main } from '../../common/ui/Main'
import { MorningChecks } from '../../common/ui/MorningChecks'
import { Empty, Failure, Working } from '../../common/ui/States'
import { ViewTitle } from '../../common/ui/ViewTitle'
import { colours } from '../../theme/theme'
import { Arrival, type Arrived } from './Arrival'
import { EmergencyCard } from './EmergencyCard'
import { mindedOn } from './model'
import { OtherLane } from './OtherLane'
import { useMat } from './queries'
import {
  firstOpen,
  isDone,
  isThere,
  nextOf,
  otherLane,
  partOf,
  past,
  type Place,
  secondsLeft,
  sideOf,
  type Stop,
} from './road'
import { Summary } from './Summary'
import { useAwake } from './useAwake'
import { WorkingLane } from './WorkingLane'

const ROOMY = '@media (min-width: 880px) and (min-height: 600px)'
const NOBODY_YET: Arrived = { before: null, news: null }

const Page = styled('div')(({ theme }) => ({
  minHeight: '100vh',
  // Where there is room everything is in sight at once.
  [ROOMY]: { height: '100vh' },
  display: 'flex',
  flexDirection: 'column',
  fontSize: '1.1rem',
  // One touches it at arm's length.
  '& .MuiButton-root': { minHeight: 46, fontSize: '1rem' },
  '& > header': {
    display: 'flex',
    flexWrap: 'wrap',
    alignItems: 'center',
    columnGap: theme.spacing(1.5),
    padding: theme.spacing(0.5, 2),
    minHeight: 56,
  },
  '& .road': { display: 'flex', gap: 4, flex: '1 1 90px', maxWidth: 260, minWidth: 60 },
  '& .road span': { flex: 1, height: 8, borderRadius: 4, backgroundColor: colours.span },
  '& .road .done': { backgroundColor: colours.muted },
  '& .road .here': { backgroundColor: colours.ink },
  '& .pose': {
    flex: 1,
    minHeight: 0,
    display: 'grid',
    direction: 'ltr',
    gridTemplateColumns: 'minmax(0, 1fr)',
    // Left stays on the left, whichever is worked on; where there is no room beside, the one that waits stands beneath.
    '& > .waits': { order: 1 },
    [ROOMY]: {
      '&.left': { gridTemplateColumns: 'minmax(0, 1fr) 224px' },
      '&.right': { gridTemplateColumns: '224px minmax(0, 1fr)' },
      '& > .waits': { order: 0 },
    },
    '& > * + *': { borderLeft: `1px solid ${colours.line}` },
  },
}))

/** Beside the mat: one pose at a time, the side that is worked on large, the step back always ready. */
export function MatScreen() {
  const { t } = useTranslation()
  const { practice_id, client_id } = useClientPath()
  const mat = useMat()
  const head = useClientHead()
  const [card, setCard] = useState(false)
  const [list, setList] = useState<HTMLElement | null>(null)
  const day = mat.data?.date ?? ''
  const [arrived, setArrived] = usePicked<Arrived>(`arrived:${client_id}:${day}`, NOBODY_YET)
  const [kept, setAt] = usePicked<Place | null>(`mat-at:${client_id}:${day}`, null)
  useAwake()
  const families = useMemo(() => mat.data?.families ?? [], [mat.data])
  const begun = families.some((family) =>
    [family.left, family.right].some((part) => (part?.logged_today.length ?? 0) > 0),
  )
  const at: Place = kept !== null && isThere(families, kept) ? kept : begun ? firstOpen(families) : 'arrival'
  const stop = typeof at === 'string' ? null : at
  const here = stop === null ? -1 : families.findIndex(({ family }) => family === stop.family)
  const family = families[here]
  const other = family === undefined || stop === null ? null : otherLane(family, stop.lane)
  useSideKeys(family, setAt)
  const client = head.data?.client
  const notes = head.data?.notes ?? []
  const waiting = family !== undefined && stop !== null && (
    <OtherLane
      side={stop.lane === 'left' ? 'right' : 'left'}
      mat={other === null ? null : partOf(family, other)}
      notes={mindedOn(notes, [stop.lane === 'left' ? 'right' : 'left'])}
      onSwap={() => {
        if (other !== null) setAt({ family: family.family, lane: other })
      }}
    />
  )
  return (
    <Page>
      <header>
        <Typography translate="no" variant="h2" component="p">
          {client?.name}
        </Typography>
        {mat.data !== undefined && client !== undefined && (
          <Button
            variant="outlined"
            color="inherit"
            onClick={() => {
              setCard(true)
            }}
          >
            {t('mat.card.open')}
          </Button>
        )}
        {families.length > 0 && (
          <>
            <Button
              color="inherit"
              aria-haspopup="menu"
              aria-expanded={list !== null}
              onClick={(event) => {
                setList(event.currentTarget)
              }}
            >
              {here < 0
                ? t('mat.poses', { count: families.length })
                : t('mat.nOf', { n: here + 1, of: families.length })}
            </Button>
            <div className="road" aria-hidden>
              {families.map((each, place) => (
                <span key={each.family} className={place === here ? 'here' : isDone(each) ? 'done' : ''} />
              ))}
            </div>
            <Typography variant="note">
              {t('mat.left', { count: Math.round(secondsLeft(families, at) / 60) })}
            </Typography>
            <Menu
              anchorEl={list}
              open={list !== null}
              onClose={() => {
                setList(null)
              }}
            >
              {families.map((each, place) => (
                <MenuItem
                  key={each.family}
                  selected={place === here}
                  onClick={() => {
                    setList(null)
                    setAt({
                      family: each.family,
                      lane: each.shared ? 'both' : each.left === null ? 'right' : 'left',
                    })
                  }}
                >
                  {place + 1} {each.name}
                  {isDone(each) && ` ✓ ${t('mat.done')}`}
                </MenuItem>
              ))}
            </Menu>
          </>
        )}
        <Rest />
        <LightChoice place="mat" lights={['day', 'dim']} />
        <Button component={Link} to={addressOf(screenById('plan'), practice_id, client_id)} color="inherit">
          {t('mat.leave')}
        </Button>
        {families.length > 0 && at !== 'summary' && (
          <Button
            variant="outlined"
            color="inherit"
            onClick={() => {
              setAt('summary')
            }}
          >
            {t('mat.end')}
          </Button>
        )}
      </header>
      <Main sx={{ flex: 1, minHeight: 0, display: 'flex', flexDirection: 'column' }}>
        <ViewTitle about={client?.name} />
        {mat.isPending && <Working />}
        {mat.isError && <Failure error={mat.error} again={() => void mat.refetch()} />}
        {mat.data !== undefined && families.length === 0 && mat.data.morning_open.length > 0 && (
          <MorningChecks items={mat.data.morning_open} />
        )}
        {mat.data !== undefined && families.length === 0 && (
          <Empty
            title={t('mat.nothing')}
            more={t('mat.nothingMore')}
            action={
              <Button
                component={Link}
                to={addressOf(screenById('plan'), practice_id, client_id)}
                variant="contained"
              >
                {t('mat.toPlan')}
              </Button>
            }
          />
        )}
        {mat.data !== undefined && families.length > 0 && at === 'arrival' && (
          <Arrival
            mat={mat.data}
            arrived={arrived}
            onArrived={setArrived}
            onBegin={() => {
              setAt(firstOpen(families))
            }}
          />
        )}
        {mat.data !== undefined && families.length > 0 && at === 'summary' && (
          <Summary
            mat={mat.data}
            onBack={() => {
              const open = firstOpen(families)
              setAt(open === 'summary' ? lastStop(families) : open)
            }}
          />
        )}
        {family !== undefined && stop !== null && (
          <div className={`pose ${stop.lane}`}>
            {stop.lane === 'right' && waiting}
            <WorkingPart
              key={`${family.family} ${stop.lane}`}
              family={family}
              lane={stop.lane}
              date={day}
              breath_s={mat.data?.breath_s ?? 0}
              before={arrived.before}
              notes={mindedOn(notes, stop.lane === 'both' ? ['left', 'right', null] : [stop.lane, null])}
              onLogged={(answer) => {
                setAt(nextOf(answer.families, stop))
              }}
              onSkip={() => {
                setAt(past(families, stop))
              }}
            />
            {stop.lane === 'left' && waiting}
          </div>
        )}
      </Main>
      <Box
        component="footer"
        sx={{
          mt: 'auto',
          px: 2,
          py: 0.25,
          fontSize: '0.8rem',
          color: colours.muted,
          borderTop: `1px solid ${colours.line}`,
        }}
      >
        {head.data?.disclaimer}
      </Box>
      {card && mat.data !== undefined && client !== undefined && (
        <EmergencyCard
          mat={mat.data}
          client={client}
          onClose={() => {
            setCard(false)
          }}
        />
      )}
    </Page>
  )
}

interface WorkingProps {
  family: Schemas['MatFamily']
  lane: Lane
  date: string
  breath_s: number
  before: number | null
  notes: readonly string[]
  onLogged: (mat: Schemas['MatOut']) => void
  onSkip: () => void
}

/** What was begun on one rung is not carried over to another. */
function WorkingPart({ family, lane, ...more }: WorkingProps) {
  const part = partOf(family, lane)
  if (part === null) return null
  return <WorkingLane key={part.variation} lane={lane} name={family.name} mat={part} {...more} />
}

function lastStop(families: readonly Schemas['MatFamily'][]): Place {
  const last = families.at(-1)
  return last === undefined
    ? 'arrival'
    : { family: last.family, lane: last.shared ? 'both' : sideOf(last.right === null ? 'left' : 'right') }
}

/** Keys go to the side they name. */
function useSideKeys(family: Schemas['MatFamily'] | undefined, setAt: (at: Stop) => void): void {
  useCommands(
    useMemo(
      () =>
        family === undefined || family.shared
          ? []
          : (['left', 'right'] as const).map((lane) => ({
              name: lane,
              keys: [lane.slice(0, 1)],
              run: () => {
                if (family[lane] !== null) setAt({ family: family.family, lane })
              },
            })),
      [family, setAt],
    ),
  )
  // A pose that is come to begins at its top.
  const name = family?.family
  useEffect(() => {
    document.documentElement.scrollTop = 0
  }, [name])
}

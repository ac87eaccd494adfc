import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Tab from '@mui/material/Tab'
import Tabs from '@mui/material/Tabs'
import Typography from '@mui/material/Typography'
import { useMemo, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Link } from 'react-router'
import type { Schemas, Side } from '../../api/client'
import { usePicked } from '../../common/drafts'
import { useClientHead } from '../../common/head'
import { useClientPath } from '../../common/route'
import { addressOf, screenById } from '../../common/screens'
import { useCommands } from '../../common/commands'
import { LightChoice } from '../../common/ui/LightChoice'
import { Main } from '../../common/ui/Main'
import { Empty, Failure, Working } from '../../common/ui/States'
import { ViewTitle } from '../../common/ui/ViewTitle'
import { type Hold, heldSeconds, NO_HOLD } from './hold'
import { HoldTimer } from './HoldTimer'
import { MatLane } from './MatLane'
import { MorningChecks } from './MorningChecks'
import { useMat } from './queries'
import { colours, laneColour } from '../../theme/theme'

const PANEL = 'mat-ladder'
const ROOMY = '@media (min-width: 880px) and (min-height: 600px)'

/** What the clock runs to: the dose of the side it is for, or of the other where only that is planned. */
function doseOf(family: Schemas['MatFamily'], side: Side) {
  const planned = family[side] ?? family.left ?? family.right
  return { seconds: planned?.dose_s ?? 30, words: planned?.dose ?? '', timed: planned?.timed ?? true }
}

/** Beside the mat: one ladder at a time, big, left and right, with the step back always ready. */
export function MatScreen() {
  const { t } = useTranslation()
  const { practice_id, client_id } = useClientPath()
  const mat = useMat()
  const head = useClientHead()
  const [family, setFamily] = useState<string | null>(null)
  const [active, setActive] = useState<Side>('left')
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
      ],
      [],
    ),
  )
  const shown = mat.data?.families.find((each) => each.family === family) ?? mat.data?.families[0]
  const day = mat.data?.date ?? ''
  const [hold, setHold] = usePicked<Hold>(`hold:${client_id}:${day}:${shown?.family ?? ''}`, NO_HOLD)
  const clocked = shown?.shared === true ? 'left' : (hold.side ?? active)
  const held = (side: Side) => () => heldSeconds(hold, side, Date.now())
  const logged = (side: Side) => () => {
    if (hold.side === side) setHold(NO_HOLD)
  }
  return (
    <Box
      sx={{
        minHeight: '100vh',
        // Where there is room everything is in sight at once.
        [ROOMY]: { height: '100vh' },
        display: 'flex',
        flexDirection: 'column',
        fontSize: '1.1rem',
        // One touches it at arm's length.
        '& .MuiButton-root': { minHeight: 46, fontSize: '1rem' },
      }}
    >
      <Box
        component="header"
        sx={{
          display: 'flex',
          flexWrap: 'wrap',
          alignItems: 'center',
          columnGap: 2,
          px: { xs: 1.5, md: 2.5 },
          minHeight: 58,
          borderBottom: 1,
          borderColor: 'divider',
        }}
      >
        <Typography translate="no" variant="h2" component="p">
          {head.data?.client.name}
        </Typography>
        {mat.data !== undefined && shown !== undefined && (
          <Tabs
            value={shown.family}
            onChange={(_, chosen: string) => {
              setFamily(chosen)
            }}
            aria-label={t('mat.ladders')}
            variant="scrollable"
            sx={{ flex: '1 1 200px', minWidth: 0 }}
          >
            {mat.data.families.map((each) => (
              <Tab
                key={each.family}
                value={each.family}
                label={each.name}
                id={`tab-${each.family}`}
                aria-controls={PANEL}
              />
            ))}
          </Tabs>
        )}
        <Box sx={{ ml: 'auto', display: 'flex', gap: 1.5, alignItems: 'center' }}>
          <LightChoice place="mat" lights={['day', 'dim']} />
          <Button
            component={Link}
            to={addressOf(screenById('setUp'), practice_id, client_id)}
            variant="outlined"
          >
            {t('mat.leave')}
          </Button>
        </Box>
      </Box>
      <Main sx={{ flex: 1, minHeight: 0, display: 'flex', flexDirection: 'column' }}>
        <ViewTitle about={head.data?.client.name} />
        {mat.isPending && <Working />}
        {mat.isError && <Failure error={mat.error} again={() => void mat.refetch()} />}
        {mat.data !== undefined && mat.data.morning_open.length > 0 && (
          <MorningChecks items={mat.data.morning_open} />
        )}
        {mat.data !== undefined && shown === undefined && (
          <Empty
            title={t('mat.nothing')}
            more={t('mat.nothingMore')}
            action={
              <Button
                component={Link}
                to={addressOf(screenById('setUp'), practice_id, client_id)}
                variant="contained"
              >
                {t('mat.toSetUp')}
              </Button>
            }
          />
        )}
        {shown !== undefined && (
          <Box
            role="tabpanel"
            id={PANEL}
            aria-labelledby={`tab-${shown.family}`}
            sx={{
              flex: 1,
              minHeight: 0,
              display: 'grid',
              direction: 'ltr',
              [ROOMY]: {
                gridTemplateColumns: shown.shared
                  ? 'minmax(0,1fr) 200px'
                  : 'minmax(0,1fr) 168px minmax(0,1fr)',
              },
            }}
          >
            <MatLane
              key={`${shown.family}left`}
              side="left"
              name={shown.shared ? 'both' : 'left'}
              date={day}
              mat={shown.left}
              held={held('left')}
              onLogged={logged('left')}
              active={shown.shared || active === 'left'}
              onActivate={() => {
                setActive('left')
              }}
            />
            <Box
              component="aside"
              sx={{
                borderInline: `1px solid ${colours.line}`,
                p: 1.5,
                textAlign: 'center',
                overflowY: 'auto',
              }}
            >
              <HoldTimer
                hold={hold}
                onHold={setHold}
                active={clocked}
                shared={shown.shared}
                dose={doseOf(shown, clocked)}
              />
              {head.data?.notes
                .filter((note) => note.weight === 'limit' || note.weight === 'ask')
                .map((note) => (
                  <Typography
                    key={`${note.side ?? ''}${note.text}`}
                    sx={{
                      fontSize: '0.95rem',
                      lineHeight: 1.4,
                      mt: 1.25,
                      color: note.side === null ? colours.ink : laneColour(note.side),
                    }}
                  >
                    {note.side !== null && <strong>{t(`side.${note.side}`)}: </strong>}
                    {note.text}
                  </Typography>
                ))}
              <Typography sx={{ fontSize: '0.95rem', mt: 1.5, color: colours.muted }}>
                {shown.left?.watch[0] ?? shown.right?.watch[0]}
              </Typography>
            </Box>
            {!shown.shared && (
              <MatLane
                key={`${shown.family}right`}
                side="right"
                name="right"
                date={day}
                mat={shown.right}
                held={held('right')}
                onLogged={logged('right')}
                active={active === 'right'}
                onActivate={() => {
                  setActive('right')
                }}
              />
            )}
          </Box>
        )}
      </Main>
      <Typography
        component="footer"
        sx={{
          mt: 'auto',
          px: 2.5,
          py: 0.75,
          fontSize: '0.8rem',
          color: colours.muted,
          borderTop: `1px solid ${colours.line}`,
        }}
      >
        {head.data?.disclaimer}
      </Typography>
    </Box>
  )
}

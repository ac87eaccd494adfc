import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import { ThemeProvider } from '@mui/material/styles'
import Typography from '@mui/material/Typography'
import { useMemo, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Link } from 'react-router'
import type { Schemas, Side } from '../../api/client'
import { dim } from '../../app/theme'
import { useDraft } from '../../common/drafts'
import { useClientHead } from '../../common/head'
import { clientAddress, useClientPath } from '../../common/route'
import { useShortcuts } from '../../common/shortcuts'
import { Empty, Failure, Working } from '../../common/ui/States'
import { figureColours } from '../../figure/colours'
import { dimTheme } from './dimTheme'
import { type Hold, heldSeconds, NO_HOLD } from './hold'
import { HoldTimer } from './HoldTimer'
import { MatLane } from './MatLane'
import { MorningChecks } from './MorningChecks'
import { useMat } from './queries'

/** The dim room: the drawings take their colours from the page. */
const DIM_ROOM = { '--left': dim.left, '--right': dim.right, '--both': dim.both, ...figureColours('dim') }

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
      ],
      [],
    ),
  )
  const shown = mat.data?.families.find((each) => each.family === family) ?? mat.data?.families[0]
  const day = mat.data?.date ?? ''
  const [hold, setHold] = useDraft<Hold>(`hold:${client_id}:${day}:${shown?.family ?? ''}`, NO_HOLD)
  const clocked = shown?.shared === true ? 'left' : (hold.side ?? active)
  const held = (side: Side) => () => heldSeconds(hold, side, Date.now())
  const logged = (side: Side) => () => {
    if (hold.side === side) setHold(NO_HOLD)
  }
  return (
    <ThemeProvider theme={dimTheme}>
      <Box
        sx={{
          ...DIM_ROOM,
          bgcolor: dim.ground,
          color: dim.ink,
          height: '100vh',
          display: 'flex',
          flexDirection: 'column',
          fontSize: '1.1rem',
        }}
      >
        <Box
          component="header"
          sx={{
            display: 'flex',
            alignItems: 'center',
            gap: 2,
            px: 2.5,
            minHeight: 58,
            borderBottom: `1px solid ${dim.line}`,
          }}
        >
          <Typography translate="no" variant="h1" sx={{ fontSize: '1.35rem' }}>
            {head.data?.client.name}
          </Typography>
          {mat.data?.families.map((each) => (
            <Button
              key={each.family}
              color="inherit"
              onClick={() => {
                setFamily(each.family)
              }}
              sx={{ textDecoration: each === shown ? 'underline' : 'none', textUnderlineOffset: 6 }}
            >
              {each.name}
            </Button>
          ))}
          <Button
            component={Link}
            to={clientAddress(practice_id, client_id, 'set-up')}
            color="inherit"
            variant="outlined"
            sx={{ ml: 'auto' }}
          >
            {t('mat.leave')}
          </Button>
        </Box>
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
                to={clientAddress(practice_id, client_id, 'set-up')}
                variant="contained"
              >
                {t('mat.toSetUp')}
              </Button>
            }
          />
        )}
        {shown !== undefined && (
          <Box
            component="main"
            sx={{
              flex: 1,
              minHeight: 0,
              display: 'grid',
              gridTemplateColumns: shown.shared ? 'minmax(0,1fr) 200px' : 'minmax(0,1fr) 168px minmax(0,1fr)',
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
              sx={{ borderInline: `1px solid ${dim.line}`, p: 1.5, textAlign: 'center', overflowY: 'auto' }}
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
                      color: note.side === null ? dim.ink : `var(--${note.side})`,
                    }}
                  >
                    {note.side !== null && <strong>{t(`side.${note.side}`)}: </strong>}
                    {note.text}
                  </Typography>
                ))}
              <Typography sx={{ fontSize: '0.95rem', mt: 1.5, color: dim.muted }}>
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
        <Typography
          sx={{
            mt: 'auto',
            px: 2.5,
            py: 0.75,
            fontSize: '0.8rem',
            color: dim.muted,
            borderTop: `1px solid ${dim.line}`,
          }}
        >
          {head.data?.disclaimer}
        </Typography>
      </Box>
    </ThemeProvider>
  )
}

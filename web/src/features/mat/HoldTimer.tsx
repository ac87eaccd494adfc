import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Typography from '@mui/material/Typography'
import { useEffect, useMemo, useState } from 'react'
import { useTranslation } from 'react-i18next'
import type { Side } from '../../api/client'
import { useCommands } from '../../common/commands'
import { elapsedMs, type Hold, NO_HOLD, paused, started } from './hold'
import { colours, laneColour, serif } from '../../theme/theme'

const RING = 2 * Math.PI * 54

interface Props {
  hold: Hold
  onHold: (hold: Hold) => void
  /** The lane that was touched last: where a new hold begins. */
  active: Side
  /** Whether both legs make the hold together. */
  shared: boolean
  /** The dose of the side the clock is for. */
  dose: { seconds: number; words: string; timed: boolean }
}

/** Seconds of the hold, counted up; it goes on past the end, because the therapist ends a hold. */
export function HoldTimer({ hold, onHold, active, shared, dose }: Props) {
  const { t } = useTranslation()
  const [now, setNow] = useState(() => Date.now())
  const running = hold.since !== null
  useEffect(() => {
    if (!running) return
    const tick = setInterval(() => {
      setNow(Date.now())
    }, 250)
    return () => {
      clearInterval(tick)
    }
  }, [running])
  const toggle = useMemo(
    () => () => {
      const at = Date.now()
      setNow(at)
      onHold(running ? paused(hold, at) : started(hold, active, at))
    },
    [active, hold, onHold, running],
  )
  useCommands(
    useMemo(
      () => [{ name: 'timer' as const, keys: [' '], keysAs: t('common.space'), run: toggle }],
      [toggle, t],
    ),
  )
  const elapsed = elapsedMs(hold, Math.max(now, hold.since ?? 0)) / 1000
  const done = dose.timed ? Math.min(1, elapsed / dose.seconds) : 0
  const side = shared ? 'both' : (hold.side ?? active)
  return (
    <Box role="timer" aria-label={t('mat.timer', { side: t(`side.${side}`) })}>
      <svg viewBox="0 0 128 128" width="132" height="132" aria-hidden>
        <circle cx="64" cy="64" r="54" fill="none" stroke={colours.span} strokeWidth="9" />
        <circle
          cx="64"
          cy="64"
          r="54"
          fill="none"
          stroke={done >= 1 ? colours.accent : colours.ink}
          strokeWidth="9"
          strokeDasharray={`${(RING * done).toString()} ${RING.toString()}`}
          transform="rotate(-90 64 64)"
        />
        <text x="64" y="72" textAnchor="middle" fill={colours.ink} fontFamily={serif} fontSize="38">
          {Math.floor(elapsed)}
        </text>
        <text x="64" y="92" textAnchor="middle" fill={colours.muted} fontSize="13">
          {dose.timed ? t('mat.ofDose', { dose: dose.words }) : t('mat.seconds')}
        </text>
      </svg>
      {!dose.timed && <Typography sx={{ fontSize: '0.95rem' }}>{dose.words}</Typography>}
      <Typography sx={{ color: laneColour(side), fontSize: '0.95rem' }}>
        {t(hold.side === null ? `mat.active.${side}` : `mat.timing.${side}`)}
      </Typography>
      <Box sx={{ display: 'flex', gap: 0.75, mt: 0.75 }}>
        <Button fullWidth variant="contained" onClick={toggle} sx={{ px: 0.5 }}>
          {t(running ? 'mat.pause' : 'mat.start')}
        </Button>
        <Button
          fullWidth
          variant="outlined"
          color="inherit"
          sx={{ px: 0.5 }}
          onClick={() => {
            onHold(NO_HOLD)
          }}
        >
          {t('mat.reset')}
        </Button>
      </Box>
    </Box>
  )
}

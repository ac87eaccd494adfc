import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Typography from '@mui/material/Typography'
import { useEffect, useMemo, useState } from 'react'
import { useTranslation } from 'react-i18next'
import type { Side } from '../../api/client'
import { dim, serif } from '../../app/theme'
import { useShortcuts } from '../../common/shortcuts'

const RING = 2 * Math.PI * 54

/** Seconds of the hold, counted up; it goes on past the end, because the therapist ends a hold. */
export function HoldTimer({ seconds, side }: { seconds: number; side: Side }) {
  const { t } = useTranslation()
  const [elapsed, setElapsed] = useState(0)
  const [running, setRunning] = useState(false)
  useEffect(() => {
    if (!running) return
    const started = Date.now() - elapsed * 1000
    const tick = setInterval(() => {
      setElapsed((Date.now() - started) / 1000)
    }, 250)
    return () => {
      clearInterval(tick)
    }
    // Restarting on every tick would lose fractions: the start is fixed while it runs.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [running])
  useShortcuts(
    useMemo(
      () => [
        {
          key: ' ',
          run: () => {
            setRunning((now) => !now)
          },
        },
      ],
      [],
    ),
  )
  const done = Math.min(1, elapsed / seconds)
  return (
    <Box role="timer">
      <svg viewBox="0 0 128 128" width="132" height="132" aria-hidden>
        <circle cx="64" cy="64" r="54" fill="none" stroke="#4A4540" strokeWidth="9" />
        <circle
          cx="64"
          cy="64"
          r="54"
          fill="none"
          stroke={done >= 1 ? dim.accent : dim.ink}
          strokeWidth="9"
          strokeDasharray={`${(RING * done).toString()} ${RING.toString()}`}
          transform="rotate(-90 64 64)"
        />
        <text x="64" y="72" textAnchor="middle" fill={dim.ink} fontFamily={serif} fontSize="38">
          {Math.floor(elapsed)}
        </text>
        <text x="64" y="92" textAnchor="middle" fill={dim.muted} fontSize="13">
          {t('mat.ofSeconds', { total: seconds })}
        </text>
      </svg>
      <Typography sx={{ color: `var(--${side})`, fontSize: '0.95rem' }}>
        {t('mat.active', { side: t(`side.${side}`) })}
      </Typography>
      <Box sx={{ display: 'flex', gap: 0.75, mt: 0.75 }}>
        <Button
          fullWidth
          variant="contained"
          onClick={() => {
            setRunning(!running)
          }}
          sx={{ px: 0.5 }}
        >
          {t(running ? 'mat.pause' : 'mat.start')}
        </Button>
        <Button
          fullWidth
          variant="outlined"
          color="inherit"
          sx={{ px: 0.5 }}
          onClick={() => {
            setRunning(false)
            setElapsed(0)
          }}
        >
          {t('mat.reset')}
        </Button>
      </Box>
    </Box>
  )
}

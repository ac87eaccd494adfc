import Button from '@mui/material/Button'
import { styled } from '@mui/material/styles'
import Typography from '@mui/material/Typography'
import { useEffect, useMemo, useRef } from 'react'
import { useTranslation } from 'react-i18next'
import type { Lane, Schemas } from '../../api/client'
import { useCommands } from '../../common/commands'
import { usePicked } from '../../common/drafts'
import { Row } from '../../common/ui/layout'
import { colours, laneColour, serif } from '../../theme/theme'
import { chime } from './chime'
import { counted, faceOf, type Hold, NO_HOLD, paused, started } from './hold'
import { useNow } from './useNow'

const RADIUS = 54
const RING = 2 * Math.PI * RADIUS
const GAP = 3

const Clock = styled('div')(({ theme }) => ({
  display: 'flex',
  flexWrap: 'wrap',
  alignItems: 'center',
  gap: theme.spacing(2),
  '& svg': { width: 'clamp(110px, 18vh, 150px)', height: 'auto', flex: 'none', display: 'block' },
  '& .controls': { flex: '1 1 150px', display: 'grid', gap: theme.spacing(1) },
}))

interface Props {
  lane: Lane
  part: Pick<Schemas['MatSide'], 'style' | 'amount' | 'sets' | 'seconds' | 'rounds' | 'logged_today'>
  hold: Hold
  onHold: (hold: Hold) => void
}

/** The hold in its own unit. It goes on past the end, because the therapist ends a hold; repetitions are counted by touch. */
export function HoldTimer({ lane, part, hold, onHold }: Props) {
  const { t } = useTranslation()
  const [sound, setSound] = usePicked('mat-sound', false)
  const running = hold.since !== null
  const [now, setNow] = useNow(running)
  const reps = part.style === 'reps'
  const face = faceOf(hold, Math.max(now, hold.since ?? 0), part)
  const reached = face.share >= 1
  const was = useRef(reached)
  useEffect(() => {
    if (reached && !was.current && sound) chime()
    was.current = reached
  }, [reached, sound])
  const toggle = useMemo(
    () => () => {
      const at = Date.now()
      setNow(at)
      onHold(running ? paused(hold, at) : started(hold, at))
    },
    [hold, onHold, running, setNow],
  )
  const count = useMemo(
    () => () => {
      const at = Date.now()
      setNow(at)
      onHold(counted(hold, at))
    },
    [hold, onHold, setNow],
  )
  const touched = reps ? count : toggle
  useCommands(
    useMemo(
      () => [{ name: 'timer' as const, keys: [' '], keysAs: t('common.space'), run: touched }],
      [touched, t],
    ),
  )
  const arc = RING / face.parts
  const colour = laneColour(lane)
  const round = Math.min(part.rounds, part.logged_today.length + 1)
  return (
    <Clock role="timer" aria-label={t('mat.timer', { side: t(`side.${lane}`) })}>
      <svg viewBox="0 0 128 128" aria-hidden focusable="false">
        <circle
          cx="64"
          cy="64"
          r={RADIUS}
          fill="none"
          stroke={colours.span}
          strokeWidth="10"
          {...(face.parts > 1 ? { strokeDasharray: `${(arc - GAP).toString()} ${GAP.toString()}` } : {})}
          transform="rotate(-90 64 64)"
        />
        <circle
          cx="64"
          cy="64"
          r={RADIUS}
          fill="none"
          stroke={reached ? colours.accent : colour}
          strokeWidth="10"
          strokeDasharray={`${(RING * face.share).toString()} ${RING.toString()}`}
          transform="rotate(-90 64 64)"
        />
        <text x="64" y="74" textAnchor="middle" fill={colours.ink} fontFamily={serif} fontSize="40">
          {face.figure}
        </text>
        <text x="64" y="94" textAnchor="middle" fill={colours.muted} fontSize="13">
          {t(`mat.of.${part.style}`, { count: face.of })}
        </text>
      </svg>
      <div className="controls">
        <Button
          variant="contained"
          size="large"
          onClick={touched}
          style={{ minHeight: 56, fontSize: '1.15rem' }}
        >
          {t(reps ? 'mat.count' : running ? 'mat.pause' : 'mat.start')}
        </Button>
        <Row gap={0.75}>
          <Button
            fullWidth
            variant="outlined"
            color="inherit"
            onClick={() => {
              onHold(NO_HOLD)
            }}
          >
            {t('mat.reset')}
          </Button>
          <Button
            fullWidth
            variant="outlined"
            color="inherit"
            aria-pressed={sound}
            onClick={() => {
              setSound(!sound)
              if (!sound) chime()
            }}
          >
            {t(sound ? 'mat.soundOn' : 'mat.soundOff')}
          </Button>
        </Row>
        <Typography variant="note">
          {reps && part.sets > 1 && `${t('mat.set', { set: face.set, of: part.sets })} · `}
          {t('mat.round', { round, of: part.rounds })}
        </Typography>
      </div>
    </Clock>
  )
}

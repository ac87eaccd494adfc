import Button from '@mui/material/Button'
import { styled } from '@mui/material/styles'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { colours } from '../../theme/theme'
import { elapsedMs, NO_HOLD, paused, started } from './hold'
import { useNow } from './useNow'

const Track = styled('div')({
  flex: 1,
  height: 8,
  borderRadius: 4,
  backgroundColor: colours.span,
  '& > div': { height: 8, borderRadius: 4, backgroundColor: 'var(--lane)' },
})

interface Props {
  /** What it is the clock of, for somebody who does not see it. */
  label: string
  seconds: number
}

/** A few breaths on the clock. */
export function BriefClock({ label, seconds }: Props) {
  const { t } = useTranslation()
  const [hold, setHold] = useState(NO_HOLD)
  const running = hold.since !== null
  const [now, setNow] = useNow(running)
  const elapsed = elapsedMs(hold, Math.max(now, hold.since ?? 0)) / 1000
  return (
    <div role="timer" aria-label={label} style={{ display: 'flex', gap: 12, alignItems: 'center' }}>
      <Button
        variant="outlined"
        size="large"
        style={{ minWidth: 104 }}
        onClick={() => {
          const at = Date.now()
          setNow(at)
          setHold(running ? paused(hold, at) : started(elapsed >= seconds ? NO_HOLD : hold, at))
        }}
      >
        {t(running ? 'mat.pause' : 'mat.start')}
      </Button>
      <Track aria-hidden>
        <div style={{ width: `${(100 * Math.min(1, elapsed / seconds)).toString()}%` }} />
      </Track>
      <span>{t('mat.both.clock', { now: Math.floor(elapsed), count: Math.round(seconds) })}</span>
    </div>
  )
}

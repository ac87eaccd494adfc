import { styled } from '@mui/material/styles'
import { useTranslation } from 'react-i18next'
import type { Lane } from '../../api/client'
import { colours, laneColour } from '../../theme/theme'
import { sideOf, plannedNow, savedAs } from './model'
import type { useTakeToTheMat } from './queries'
import type { LaneState } from './useLaneState'

const Line = styled('div')({
  fontSize: '0.9rem',
  lineHeight: 1.3,
  color: colours.muted,
  '&[data-saved]': { color: 'var(--lane)', fontWeight: 600 },
})

interface Props {
  side: Lane
  state: LaneState
  take: ReturnType<typeof useTakeToTheMat>
}

/** Whether what is shown is in today's plan or only looked at. */
export function Saved({ side, state, take }: Props) {
  const { t } = useTranslation()
  const { rung } = state
  if (rung === undefined) return null
  const own = sideOf(side)
  const planned = plannedNow(rung, take.data, own)
  const saved = savedAs(planned, state.axes, state.indices, state.dose)
  return (
    <Line
      role="status"
      data-saved={saved === 'saved' ? '' : undefined}
      style={{ '--lane': laneColour(side) } as object}
    >
      {saved === 'saved' && '✓ '}
      {t(`setUp.saved.${saved}`)}
    </Line>
  )
}

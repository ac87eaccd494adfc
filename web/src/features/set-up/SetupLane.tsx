import Alert from '@mui/material/Alert'
import Box from '@mui/material/Box'
import Typography from '@mui/material/Typography'
import { memo, type ReactNode } from 'react'
import { useTranslation } from 'react-i18next'
import type { Lane, Side } from '../../api/client'
import { Figure } from '../../figure/Figure'
import { LANE_HEAD } from '../../common/lanes'
import { Failure, Working } from '../../common/ui/States'
import { VerdictMark } from '../../common/ui/VerdictMark'
import { laneColour } from '../../theme/theme'
import { Row } from '../../common/ui/layout'
import { Findings } from './Findings'
import { FoldHelp } from './FoldHelp'
import { Options } from './Options'
import { Stepper } from './Stepper'
import { useTakeToTheMat } from './queries'
import { Saved } from './Saved'
import { TakeToTheMat } from './TakeToTheMat'
import type { LaneState } from './useLaneState'

interface Props {
  side: Lane
  state: LaneState
  active: boolean
  onActivate: (side: Lane) => void
}

/** The figure is the main thing of a lane, on every screen. */
const FIGURE = 'clamp(260px, 43vh, 520px)'
/** How wide the steppers of one column are. */
const STEPPERS = 232

const px = (columns: number) => `${(columns * STEPPERS).toFixed(0)}px`

/** One side's set-up: verdict, figure to scale, steppers over what the room can build, what binds. */
export const SetupLane = memo(function SetupLane({ side, state, active, onActivate }: Props) {
  const { t } = useTranslation()
  const { rung, axes, indices, detail, choose, verdict } = state
  const take = useTakeToTheMat()
  const activate = () => {
    onActivate(side)
  }
  const lane = (children: ReactNode) => (
    <Box
      component="section"
      aria-label={t(`side.${side}`)}
      onFocusCapture={activate}
      onClickCapture={activate}
      sx={{
        bgcolor: 'surface.panel',
        containerType: 'inline-size',
        borderTop: `5px solid ${laneColour(side)}`,
        borderRadius: 1,
        px: 1.5,
        py: 1,
        boxShadow: active ? `inset 0 0 0 1px ${laneColour(side)}` : 'none',
      }}
    >
      {children}
    </Box>
  )
  if (state.error !== null) return lane(<Failure error={state.error} again={state.again} />)
  if (rung === undefined) return lane(<Working />)
  const grid = rung.grid
  // Where both sides share the shape, what each has of its own faces the other.
  const facing = side === 'both' && axes.some((axis) => axis.side !== null)
  const wide = side === 'both' ? 2.1 : 1
  const steppers = (of: Side | null) =>
    grid === null
      ? null
      : axes.map((axis, k) =>
          // The other side's own support is set in the other lane.
          axis.side !== of ? null : (
            <Stepper
              key={axis.name}
              axis={axis}
              axes={axes}
              grid={grid}
              indices={indices}
              at={k}
              onStep={(index) => {
                choose(indices.map((each, i) => (i === k ? index : each)))
              }}
            />
          ),
        )
  const column = (of: Side) => (
    <Box role="group" aria-label={t(`side.${of}`)} sx={{ borderTop: `3px solid ${laneColour(of)}`, pt: 0.5 }}>
      <Box sx={{ color: laneColour(of), fontWeight: 700 }}>{t(`side.${of}`)}</Box>
      {steppers(of)}
    </Box>
  )
  // What is only on the way in or out is said below, and makes no verdict.
  const cautions = verdict === 'with_eye' ? (detail?.findings.filter(({ size }) => size > 0).length ?? 0) : 0
  return lane(
    <>
      <Row wrap>
        <Box sx={{ flex: '1 1 150px' }}>
          <Box sx={{ display: 'flex', alignItems: 'center', gap: 1, color: laneColour(side) }}>
            <VerdictMark verdict={verdict} size={18} />
            <Typography variant="h3" component="h2" sx={{ fontSize: '1rem' }}>
              {t(`side.${LANE_HEAD[side]}`)}:{' '}
              <Box component="span" sx={{ color: 'text.primary' }}>
                {cautions > 0 ? t('choose.cautions', { count: cautions }) : t(`verdictLong.${verdict}`)}
              </Box>
            </Typography>
          </Box>
          <Typography sx={{ fontSize: '0.92rem', lineHeight: 1.3 }}>{rung.name}</Typography>
        </Box>
        <Saved side={side} state={state} take={take} />
      </Row>
      <TakeToTheMat side={side} state={state} take={take} />
      {detail !== undefined && (
        <Box sx={{ fontSize: '0.95rem', lineHeight: 1.35, mt: 0.5 }}>
          {t('setUp.fetch')}:{' '}
          <strong>{detail.fetch.length === 0 ? t('setUp.nothingToFetch') : detail.fetch.join(', ')}</strong>
          {detail.folds && <FoldHelp />}
        </Box>
      )}
      <Options options={rung.options} chosen={indices} onChoose={choose} />
      {rung.no_stack !== null && <Alert severity="info">{rung.no_stack}</Alert>}
      {grid !== null && (
        <Box
          sx={{
            display: 'grid',
            gridTemplateColumns: facing ? `${px(1)} minmax(0,1fr) ${px(1)}` : `minmax(0,1fr) ${px(wide)}`,
            gap: 1.5,
            mt: 0.5,
            // Where there is little room the figure comes first and has all of it.
            [`@container (max-width: ${px(facing ? 3.4 : wide + 0.75)})`]: {
              gridTemplateColumns: 'minmax(0, 1fr)',
              '& > [data-figure]': { order: -1 },
            },
          }}
        >
          {facing && column('left')}
          <Box data-figure>
            {detail === undefined ? (
              <Box sx={{ height: FIGURE }} />
            ) : (
              <>
                <Figure svg={detail.figure} height={FIGURE} />
                <Box sx={{ fontSize: '0.82rem', lineHeight: 1.35, color: 'text.secondary', mt: 0.5 }}>
                  {detail.figure_words}
                </Box>
              </>
            )}
            {facing && (
              <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(2, minmax(0,1fr))', columnGap: 2 }}>
                {steppers(null)}
              </Box>
            )}
          </Box>
          {facing ? (
            column('right')
          ) : (
            <Box
              sx={
                side === 'both'
                  ? { display: 'grid', gridTemplateColumns: 'repeat(2, minmax(0,1fr))', columnGap: 2 }
                  : {}
              }
            >
              {steppers(null)}
              {side !== 'both' && steppers(side)}
            </Box>
          )}
        </Box>
      )}
      {detail !== undefined && <Findings side={side} family={rung.family} detail={detail} />}
    </>,
  )
})

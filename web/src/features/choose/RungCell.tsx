import Box from '@mui/material/Box'
import ButtonBase from '@mui/material/ButtonBase'
import { memo, type ReactNode } from 'react'
import { useTranslation } from 'react-i18next'
import type { Lane, Schemas, Side } from '../../api/client'
import { Figure } from '../../figure/Figure'
import { shortDate } from '../../common/dates'
import { Hidden } from '../../common/ui/Hidden'
import { VerdictMark } from '../../common/ui/VerdictMark'
import { colours, hatching, laneColour } from '../../theme/theme'

interface Props {
  family: string
  side: Side
  /** Which lane it stands in: that of its side, or of both. */
  lane: Lane
  rung: Schemas['RungLane']
  /** Its drawing, once there. */
  figure: string | undefined
  action: Schemas['DecisionOut']['action']
  short: string
  chosen: boolean
  onChoose: (family: string, side: Side, rung: string) => void
}

/** Kept free while the drawing is on its way, so that nothing moves when it comes. */
const HEIGHT = 118

/** One rung on one side: figure, verdict in shape and word, where this side stands. */
export const RungCell = memo(function RungCell({
  family,
  side,
  lane,
  rung,
  figure,
  action,
  short,
  chosen,
  onChoose,
}: Props) {
  const { t } = useTranslation()
  const colour = laneColour(lane)
  const closed = rung.verdict === 'leave_out'
  const asked = rung.verdict === 'check_first'
  // Open by the limits, and left out all the same: a mark that says open would speak against the decision beneath.
  const rests = action === 'leave_out' && !closed && !asked
  return (
    <ButtonBase
      onClick={() => {
        onChoose(family, side, rung.variation)
      }}
      aria-pressed={chosen}
      sx={{
        display: 'flex',
        flexDirection: 'column',
        alignItems: 'stretch',
        justifyContent: 'flex-start',
        textAlign: 'left',
        borderRadius: 1,
        px: 0.5,
        pt: 0.5,
        pb: 0.75,
        width: '100%',
        verticalAlign: 'top',
        bgcolor: rung.here ? colours.note : 'transparent',
        backgroundImage: closed ? hatching(7) : 'none',
        outline: chosen ? `2px solid ${colours.ink}` : 'none',
        '&:hover': { bgcolor: colours.panel },
      }}
    >
      {figure !== undefined ? (
        <Figure svg={figure} height={HEIGHT} faded={closed || asked || rests} decorative />
      ) : (
        rung.drawn && <Box sx={{ height: HEIGHT }} />
      )}
      <Box
        sx={{ borderTop: `2px solid ${colour}`, pt: 0.6, display: 'flex', gap: 0.75, alignItems: 'center' }}
      >
        {rests ? <RestMark /> : <VerdictMark verdict={rung.verdict} />}
        <Box sx={{ color: closed || rests ? 'text.secondary' : 'text.primary', lineHeight: 1.2 }}>
          <Hidden>{t(`side.${lane}`)}, </Hidden>
          {short}
          <Hidden>, {t(rests ? 'choose.rests' : `verdict.${rung.verdict}`)}</Hidden>
        </Box>
      </Box>
      <Box
        sx={{
          fontSize: '0.82rem',
          lineHeight: 1.3,
          minHeight: 34,
          pl: '23px',
          color: colour,
          fontWeight: 600,
        }}
      >
        {rests && <Said mark="–">{t('choose.rests')}</Said>}
        {rung.here && <Said mark="●">{t('choose.here')}</Said>}
        {rung.offered && (
          <Said mark="○">{t(action === 'step_back' ? 'choose.stepBackTo' : 'choose.offered')}</Said>
        )}
        {rung.last !== null && (
          <div>
            <Hidden>, </Hidden>
            {t(`choose.tolerance.${rung.last.tolerance}`)} {shortDate(rung.last.date)}
          </div>
        )}
        {rung.cautions > 0 && (
          <Box sx={{ color: 'text.secondary', fontWeight: 400 }}>
            <Hidden>, </Hidden>
            {t('choose.cautions', { count: rung.cautions })}
            {rung.brief !== '' && `: ${rung.brief}`}
          </Box>
        )}
        {(closed || asked) && rung.brief !== '' && (
          <Box sx={{ color: 'text.secondary', fontWeight: 400 }}>
            <Hidden>, </Hidden>
            {rung.brief}
          </Box>
        )}
      </Box>
    </ButtonBase>
  )
})

/** Neither open nor closed: a short bar where the verdict stands otherwise. */
function RestMark() {
  return (
    <svg width={16} height={16} viewBox="0 0 16 16" aria-hidden focusable="false" style={{ flex: 'none' }}>
      <path d="M3 8h10" stroke="currentColor" strokeWidth="2.2" />
    </svg>
  )
}

/** A line under a rung, after a mark that is only seen. */
function Said({ mark, children }: { mark: string; children: ReactNode }) {
  return (
    <div>
      <Hidden>, </Hidden>
      <span aria-hidden>{mark} </span>
      {children}
    </div>
  )
}

import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Typography from '@mui/material/Typography'
import { useTranslation } from 'react-i18next'
import type { Lane, Schemas, Side } from '../../api/client'
import { OPEN } from '../../common/ladders'
import { VerdictMark } from '../../common/ui/VerdictMark'
import { colours, laneColour } from '../../theme/theme'
import { Row } from '../../common/ui/layout'
import { type Beside, type Chosen, MOST_BESIDE } from './model'
import { WhyNot } from './WhyNot'

interface Props {
  ladders: Schemas['LadderOut'][]
  chosen: Chosen
  /** Rungs to be set beside each other. */
  beside: readonly Beside[]
  onBeside: (beside: readonly Beside[]) => void
  onCompare: () => void
  onOpen: () => void
}

/** What the chosen rungs rest on, left and right facing, and the way to their set-ups. */
export function ReasonPanel({ ladders, chosen, beside, onBeside, onCompare, onOpen }: Props) {
  const { t } = useTranslation()
  const shared =
    chosen.left !== undefined &&
    chosen.left === chosen.right &&
    ladders.find((each) => each.rungs.some((rung) => rung.id === chosen.left))?.shared === true
  const lane = (side: Side, name: Lane = side) => {
    const ladder = ladders.find((each) => each.rungs.some((rung) => rung.id === chosen[side]))
    const rung = ladder?.[side].rungs.find((each) => each.variation === chosen[side])
    return (
      <Box
        sx={{
          borderLeft: `3px solid ${laneColour(name)}`,
          pl: 1.5,
          '& p, & li': { fontSize: '0.95rem', lineHeight: 1.42 },
        }}
      >
        <Typography sx={{ color: laneColour(name), fontWeight: 700 }}>{t(`side.${name}`)}</Typography>
        {rung === undefined || ladder === undefined ? (
          <Typography color="text.secondary">{t('choose.noneChosen')}</Typography>
        ) : (
          <>
            <Row>
              <VerdictMark verdict={rung.verdict} />
              <strong>{ladder.rungs.find((name) => name.id === rung.variation)?.name}</strong>
            </Row>
            <Typography>
              {t(`verdictLong.${rung.verdict}`)}
              {rung.line !== '' && rung.verdict !== 'leave_out' && `: ${rung.line}`}
            </Typography>
            <Box component="ul" sx={{ m: 0, pl: 2.25, maxWidth: 620 }}>
              {rung.reasons.map((reason) => (
                <li key={reason}>{reason}</li>
              ))}
            </Box>
            {!OPEN.includes(rung.verdict) && <WhyNot rung={rung.variation} side={side} />}
            <BesideButton rung={{ side, rung: rung.variation }} beside={beside} onBeside={onBeside} />
          </>
        )}
      </Box>
    )
  }
  const any = chosen.left !== undefined || chosen.right !== undefined
  return (
    <Box
      component="section"
      aria-live="polite"
      sx={{
        // On low screens the ladders need the room.
        '@media (min-height: 620px)': { position: 'sticky', bottom: 0, maxHeight: '42vh' },
        bgcolor: 'background.default',
        borderTop: `2px solid ${colours.ink}`,
        pt: 1.25,
        pb: 1.5,
        overflowY: 'auto',
        display: 'grid',
        direction: 'ltr',
        gridTemplateColumns: { xs: '1fr', sm: shared || !any ? '1fr auto' : '1fr 1fr auto' },
        gap: 3,
        alignItems: any ? 'start' : 'center',
      }}
    >
      {!any && <Typography color="text.secondary">{t('choose.tapRung')}</Typography>}
      {any && (shared ? lane('left', 'both') : lane('left'))}
      {any && !shared && lane('right')}
      <Box>
        <Button variant="contained" onClick={onOpen} disabled={!any}>
          {t(
            chosen.left !== undefined && chosen.right !== undefined && !shared
              ? 'choose.openBoth'
              : 'choose.openSetup',
          )}
        </Button>
        {beside.length > 1 && (
          <Button variant="outlined" onClick={onCompare} sx={{ mt: 1, display: 'block' }}>
            {t('choose.compareThem', { count: beside.length })}
          </Button>
        )}
      </Box>
    </Box>
  )
}

/** As everywhere, left stands left of right. */
function leftFirst(rungs: readonly Beside[]): Beside[] {
  return [...rungs].sort((one, other) => one.side.localeCompare(other.side))
}

/** Takes a rung to those that are compared, or away from them. */
function BesideButton({
  rung,
  beside,
  onBeside,
}: {
  rung: Beside
  beside: readonly Beside[]
  onBeside: (beside: readonly Beside[]) => void
}) {
  const { t } = useTranslation()
  const others = beside.filter((each) => each.side !== rung.side || each.rung !== rung.rung)
  const there = others.length < beside.length
  if (!there && others.length >= MOST_BESIDE) return null
  return (
    <Button
      size="small"
      aria-pressed={there}
      onClick={() => {
        onBeside(there ? others : leftFirst([...others, rung]))
      }}
      sx={{ ml: -0.75 }}
    >
      {t(there ? 'choose.besideNot' : 'choose.beside')}
    </Button>
  )
}

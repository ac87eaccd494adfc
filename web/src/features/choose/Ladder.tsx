import Box from '@mui/material/Box'
import Typography from '@mui/material/Typography'
import { useTranslation } from 'react-i18next'
import type { Lane, Schemas, Side } from '../../api/client'
import { useDrawings } from '../../common/ladders'
import type { Chosen } from './model'
import { RungCell } from './RungCell'
import { laneColour } from '../../theme/theme'

interface Props {
  ladder: Schemas['LadderOut']
  chosen: Chosen
  onChoose: (family: string, side: Side, rung: string) => void
}

/** One family: upper lane left, lower lane right, rungs from most held up to least; one lane where both legs share the
 * shape. */
export function Ladder({ ladder, chosen, onChoose }: Props) {
  const { t } = useTranslation()
  const drawings = useDrawings(ladder.family)
  // A shape both legs share has one verdict: either side tells it.
  const lane = (side: Side, name: Lane = side) => (
    <Box
      role="group"
      aria-label={`${ladder.name}, ${t(`side.${name}`)}`}
      sx={{
        display: 'grid',
        gridTemplateColumns: `64px repeat(${ladder.rungs.length.toString()}, minmax(104px, 1fr))`,
        columnGap: 1,
        overflowX: 'auto',
        // What is chosen has its line outside.
        p: '3px',
        mx: '-3px',
      }}
    >
      <Box sx={{ color: laneColour(name), fontWeight: 700, alignSelf: 'center' }}>{t(`side.${name}`)}</Box>
      {ladder[side].rungs.map((rung) => (
        <RungCell
          key={rung.variation}
          family={ladder.family}
          side={side}
          lane={name}
          rung={rung}
          figure={drawings?.[side][rung.variation]}
          action={ladder[side].decision.action}
          short={ladder.rungs.find((name) => name.id === rung.variation)?.short ?? ''}
          chosen={chosen[side] === rung.variation}
          onChoose={onChoose}
        />
      ))}
    </Box>
  )
  return (
    <Box sx={{ pb: 1 }}>
      <Typography variant="note" sx={{ mb: 0.5 }}>
        {ladder.about}
        {ladder.side_means !== 'worked_leg' && ` ${t(`choose.sideMeans.${ladder.side_means}`)}`}
      </Typography>
      {lane('left', ladder.shared ? 'both' : 'left')}
      <NextTime ladder={ladder} side="left" />
      {!ladder.shared && (
        <>
          <Box sx={{ height: 6 }} />
          {lane('right')}
          <NextTime ladder={ladder} side="right" />
        </>
      )}
    </Box>
  )
}

/** What was decided for next time on one lane, with its reason. */
function NextTime({ ladder, side }: { ladder: Schemas['LadderOut']; side: Side }) {
  const { t } = useTranslation()
  const { decision } = ladder[side]
  if (decision.action === 'not_tried') return null
  return (
    <Box sx={{ pl: '72px', fontSize: '0.88rem', color: ladder.shared ? 'text.primary' : laneColour(side) }}>
      <strong>{t('choose.next')}:</strong> {decision.reason}
    </Box>
  )
}

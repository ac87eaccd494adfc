import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import { memo } from 'react'
import { useTranslation } from 'react-i18next'
import { Labelled } from '../../common/ui/Labelled'
import type { Lane, Schemas } from '../../api/client'
import { type CommandName, useHint, useKeysOf } from '../../common/commands'
import { VerdictMark } from '../../common/ui/VerdictMark'
import type { LaneState } from './useLaneState'
import { Way } from './Way'
import { laneColour } from '../../theme/theme'

interface Props {
  side: Lane
  state: LaneState
  onGo: (side: Lane, rung: string) => void
}

/** How to get in and out, what to say and watch, and the rungs beside this one. */
export const LaneDetails = memo(function LaneDetails({ side, state, onGo }: Props) {
  const { t } = useTranslation()
  const go = (variation: string) => {
    onGo(side, variation)
  }
  const { rung, detail, wanted, verdict } = state
  if (rung === undefined || detail === undefined) return <div />
  return (
    <Box
      component="section"
      aria-label={t('setUp.detailsOf', { side: t(`side.${side}`) })}
      sx={{ borderLeft: `3px solid ${laneColour(side)}`, pl: 1.5 }}
    >
      <Box sx={{ display: 'flex', gap: 1, mb: 1, flexWrap: 'wrap' }}>
        <Neighbour command="stepBack" label={t('setUp.stepBack')} neighbour={rung.step_back} onGo={go} />
        <Neighbour
          command="stepForward"
          label={t('setUp.stepForward')}
          neighbour={rung.step_forward}
          onGo={go}
        />
      </Box>
      {detail.technique_words !== '' && (
        <Labelled label={t('setUp.getting')}>
          {detail.technique_words}
          <Way key={rung.variation} rung={rung} setup={wanted} />
        </Labelled>
      )}
      {(verdict === 'with_setup' || verdict === 'with_eye') && rung.plain_reasons[0] !== undefined && (
        <Labelled label={t('setUp.plainClosed')}>{rung.plain_reasons[0]}</Labelled>
      )}
      <Labelled label={t('setUp.cues')}>{rung.cues.join(' ')}</Labelled>
      <Labelled label={t('setUp.watch')}>{rung.watch.join(' ')}</Labelled>
    </Box>
  )
})

interface NeighbourProps {
  command: CommandName
  label: string
  neighbour: Schemas['NeighbourOut'] | null
  onGo: (rung: string) => void
}

function Neighbour({ command, label, neighbour, onGo }: NeighbourProps) {
  const keys = useKeysOf(command)
  const hint = useHint(command)
  if (neighbour === null) return null
  return (
    <Box sx={{ maxWidth: 420 }}>
      <Button
        variant="outlined"
        title={hint}
        aria-keyshortcuts={keys}
        sx={{ minHeight: 44 }}
        onClick={() => {
          onGo(neighbour.variation)
        }}
        startIcon={<VerdictMark verdict={neighbour.verdict} size={14} />}
      >
        {label}: {neighbour.short}
      </Button>
      {neighbour.reason !== '' && (
        <Box sx={{ fontSize: '0.84rem', color: 'text.secondary', mt: 0.25 }}>{neighbour.reason}</Box>
      )}
    </Box>
  )
}

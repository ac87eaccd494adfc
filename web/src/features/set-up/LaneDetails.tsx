import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import type { ReactNode } from 'react'
import { useTranslation } from 'react-i18next'
import type { Lane, Schemas } from '../../api/client'
import { type CommandName, useHint, useKeysOf } from '../../common/commands'
import { VerdictMark } from '../../common/ui/VerdictMark'
import { FoldHelp } from './FoldHelp'
import { Options } from './Options'
import type { LaneState } from './useLaneState'
import { Way } from './Way'
import { laneColour } from '../../theme/theme'

interface Props {
  side: Lane
  state: LaneState
  onGo: (rung: string) => void
}

/** What to fetch, the other set-ups found, how to get in and out, and the rungs beside this one. */
export function LaneDetails({ side, state, onGo }: Props) {
  const { t } = useTranslation()
  const { setup, detail, indices, wanted, choose, verdict } = state
  if (setup.data === undefined || detail === undefined) return <div />
  const rung = setup.data
  return (
    <Box
      component="section"
      aria-label={t('setUp.detailsOf', { side: t(`side.${side}`) })}
      sx={{ borderLeft: `3px solid ${laneColour(side)}`, pl: 1.5 }}
    >
      <Row label={t('setUp.fetch')}>
        <strong>{detail.fetch.length === 0 ? t('setUp.nothingToFetch') : detail.fetch.join(', ')}</strong>
        {detail.folds && <FoldHelp />}
      </Row>
      {detail.technique_words !== '' && (
        <Row label={t('setUp.getting')}>
          {detail.technique_words}
          <Way key={rung.variation} rung={rung} setup={wanted} />
        </Row>
      )}
      {(verdict === 'with_setup' || verdict === 'with_eye') && rung.plain_reasons[0] !== undefined && (
        <Row label={t('setUp.plainClosed')}>{rung.plain_reasons[0]}</Row>
      )}
      <Options options={rung.options} chosen={indices} onChoose={choose} />
      <Row label={t('setUp.cues')}>{rung.cues.join(' ')}</Row>
      <Row label={t('setUp.watch')}>{rung.watch.join(' ')}</Row>
      <Box sx={{ display: 'flex', gap: 1, mt: 1, flexWrap: 'wrap' }}>
        <Neighbour command="stepBack" label={t('setUp.stepBack')} neighbour={rung.step_back} onGo={onGo} />
        <Neighbour
          command="stepForward"
          label={t('setUp.stepForward')}
          neighbour={rung.step_forward}
          onGo={onGo}
        />
      </Box>
    </Box>
  )
}

function Row({ label, children }: { label: string; children: ReactNode }) {
  return (
    <Box
      sx={{
        display: 'grid',
        gridTemplateColumns: { xs: '1fr', sm: '100px 1fr' },
        mt: 0.6,
        fontSize: '0.92rem',
        lineHeight: 1.4,
      }}
    >
      <Box sx={{ color: 'text.secondary' }}>{label}</Box>
      <div>{children}</div>
    </Box>
  )
}

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

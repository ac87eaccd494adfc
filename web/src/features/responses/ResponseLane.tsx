import Box from '@mui/material/Box'
import Typography from '@mui/material/Typography'
import { useTranslation } from 'react-i18next'
import type { Lane, Schemas } from '../../api/client'
import { SideHead } from '../../common/ui/SideHead'
import { ResponseChart } from './ResponseChart'
import { laneColour } from '../../theme/theme'

interface Props {
  lane: Schemas['ResponseLane']
  name: Lane
  rungs: Schemas['RungName'][]
  allowed: number
}

/** One side over time, the decision for next time, and what would change it. */
export function ResponseLane({ lane, name, rungs, allowed }: Props) {
  const { t } = useTranslation()
  return (
    <Box sx={{ borderTop: `5px solid ${laneColour(name)}`, pt: 0.75 }}>
      <SideHead side={name} />
      {lane.points.length === 0 ? (
        <Typography color="text.secondary">{t('responses.noneOnSide')}</Typography>
      ) : (
        <>
          <Typography variant="small">{t('responses.legend')}</Typography>
          <ResponseChart lane={lane} name={name} rungs={rungs} allowed={allowed} />
          <Typography sx={{ fontSize: '0.95rem', lineHeight: 1.4 }}>
            <strong>{t('responses.next')}:</strong> {lane.decision.reason}
          </Typography>
          <Typography variant="note">
            {t('responses.wouldChange')}
            {lane.change}
          </Typography>
        </>
      )}
    </Box>
  )
}

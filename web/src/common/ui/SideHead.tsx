import Typography from '@mui/material/Typography'
import { useTranslation } from 'react-i18next'
import type { Lane } from '../../api/client'
import { LANE_HEAD } from '../lanes'
import { laneColour } from '../../theme/theme'

/** The word for a side in its lane's colour. */
export function SideHead({ side, size = '1.1rem' }: { side: Lane; size?: string }) {
  const { t } = useTranslation()
  return (
    <Typography component="h2" sx={{ color: laneColour(side), fontWeight: 700, fontSize: size }}>
      {t(`side.${LANE_HEAD[side]}`)}
    </Typography>
  )
}

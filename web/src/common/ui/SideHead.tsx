import Typography from '@mui/material/Typography'
import { useTranslation } from 'react-i18next'
import type { Lane } from '../../api/client'

const LARGE = { left: 'Left', right: 'Right', both: 'Both' } as const

/** The word for a side in its lane's colour. */
export function SideHead({ side, size = '1.1rem' }: { side: Lane; size?: string }) {
  const { t } = useTranslation()
  return (
    <Typography component="h2" sx={{ color: `var(--${side})`, fontWeight: 700, fontSize: size }}>
      {t(`side.${LARGE[side]}`)}
    </Typography>
  )
}

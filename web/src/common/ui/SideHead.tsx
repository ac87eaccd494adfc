import Typography from '@mui/material/Typography'
import { useTranslation } from 'react-i18next'
import type { Side } from '../../api/client'

/** The word for a side in its lane's colour. */
export function SideHead({ side, size = '1.1rem' }: { side: Side; size?: string }) {
  const { t } = useTranslation()
  return (
    <Typography
      component="h2"
      sx={{ color: side === 'left' ? 'var(--left)' : 'var(--right)', fontWeight: 700, fontSize: size }}
    >
      {t(side === 'left' ? 'side.Left' : 'side.Right')}
    </Typography>
  )
}

import Box from '@mui/material/Box'
import Tooltip from '@mui/material/Tooltip'
import Typography from '@mui/material/Typography'
import { useTranslation } from 'react-i18next'
import type { Schemas, Side } from '../../api/client'

const WEIGHT = { stop: 700, ask: 600, caution: 400 } as const

/** Limits in few words, hardest first; the whole reason and its source on focus. */
export function LimitList({ limits, side }: { limits: Schemas['LimitOut'][]; side: Side }) {
  const { t } = useTranslation()
  if (limits.length === 0) return <Typography color="text.secondary">{t('limits.noLimits')}</Typography>
  return (
    <Box component="ul" sx={{ listStyle: 'none', p: 0, m: 0 }}>
      {limits.map((limit) => {
        const severity = limit.severity as keyof typeof WEIGHT
        return (
          <Tooltip
            key={limit.code + limit.short}
            title={limit.source === '' ? limit.reason : `${limit.reason} (${limit.source})`}
            placement={side}
            describeChild
          >
            <Box
              component="li"
              tabIndex={0}
              sx={{
                display: 'flex',
                justifyContent: 'space-between',
                gap: 1,
                py: 0.35,
                borderBottom: '1px dotted',
                borderColor: 'divider',
              }}
            >
              <Box component="span" sx={{ fontWeight: WEIGHT[severity] }}>
                {limit.short}
              </Box>
              <Box
                component="span"
                sx={{ color: 'text.secondary', fontSize: '0.88rem', whiteSpace: 'nowrap' }}
              >
                {t(`limits.severity.${severity}`)}
              </Box>
            </Box>
          </Tooltip>
        )
      })}
    </Box>
  )
}

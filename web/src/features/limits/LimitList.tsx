import Box from '@mui/material/Box'
import Typography from '@mui/material/Typography'
import { useTranslation } from 'react-i18next'
import type { Schemas } from '../../api/client'

const WEIGHT = { stop: 700, ask: 600, caution: 400 } as const

/** Limits in few words, hardest first; the whole reason and its source open under each. */
export function LimitList({ limits }: { limits: Schemas['LimitOut'][] }) {
  const { t } = useTranslation()
  if (limits.length === 0) return <Typography color="text.secondary">{t('limits.noLimits')}</Typography>
  return (
    // In a wide card they stand in columns.
    <Box component="ul" sx={{ listStyle: 'none', p: 0, m: 0, columns: '320px', columnGap: 4 }}>
      {limits.map((limit) => {
        const severity = limit.severity as keyof typeof WEIGHT
        return (
          <Box
            component="li"
            key={limit.code + limit.short}
            sx={{ borderBottom: '1px dotted', borderColor: 'divider', breakInside: 'avoid' }}
          >
            <details>
              <Box
                component="summary"
                sx={{
                  display: 'flex',
                  justifyContent: 'space-between',
                  gap: 1,
                  py: 0.35,
                  cursor: 'pointer',
                  '&::after': { content: '"▾"', color: 'text.secondary', fontSize: '0.8rem' },
                }}
              >
                <Box component="span" sx={{ flex: 1, fontWeight: WEIGHT[severity] }}>
                  {limit.short}
                </Box>
                <Box
                  component="span"
                  sx={{ color: 'text.secondary', fontSize: '0.88rem', whiteSpace: 'nowrap' }}
                >
                  {t(`limits.severity.${severity}`)}
                </Box>
              </Box>
              <Box sx={{ fontSize: '0.9rem', lineHeight: 1.4, color: 'text.secondary', pb: 0.75 }}>
                {limit.reason}
                {limit.source !== '' && ` (${limit.source})`}
              </Box>
            </details>
          </Box>
        )
      })}
    </Box>
  )
}

import Box from '@mui/material/Box'
import { useTranslation } from 'react-i18next'
import { NavLink } from 'react-router'
import type { Schemas } from '../../api/client'
import { colours } from '../../app/theme'
import { clientAddress, useClientPath } from '../../common/route'

type Stop = Schemas['StopOut']

const VIEW: Record<Stop['stop'], string> = {
  limits: 'limits',
  measures: 'measures',
  choose: 'choose',
  set_up: 'set-up',
  on_the_mat: 'mat',
  responses: 'responses',
}

/** The work in its order, with what is done, missing or stale at each stop. */
export function Band({ stops }: { stops: Stop[] }) {
  const { t } = useTranslation()
  const { practice_id, client_id } = useClientPath()
  return (
    <Box component="nav" aria-label={t('band.label')} sx={{ display: 'flex', alignItems: 'center' }}>
      {stops.map((stop, index) => (
        <Box key={stop.stop} sx={{ display: 'flex', alignItems: 'center' }}>
          {index > 0 && <Box aria-hidden sx={{ width: 24, height: '1px', bgcolor: '#B7AC95', mx: 1.25 }} />}
          <Box
            component={NavLink}
            to={clientAddress(practice_id, client_id, VIEW[stop.stop])}
            sx={{
              color: 'text.secondary',
              textDecoration: 'none',
              display: 'flex',
              alignItems: 'center',
              gap: 1,
              py: 1.25,
              borderBottom: '3px solid transparent',
              mt: '3px',
              '&.active': { color: 'text.primary', fontWeight: 700, borderColor: colours.ink },
            }}
          >
            <StateDot state={stop.state} />
            <span>{t(`band.${stop.stop}`)}</span>
            <Box
              component="span"
              sx={{
                position: 'absolute',
                width: '1px',
                height: '1px',
                overflow: 'hidden',
                clip: 'rect(0 0 0 0)',
              }}
            >
              {t(`band.state.${stop.state}`)}
            </Box>
            {stop.state === 'attention' && (
              <Box component="span" sx={{ fontSize: '0.8rem', fontWeight: 400, color: '#7A5712' }}>
                {stop.note}
              </Box>
            )}
          </Box>
        </Box>
      ))}
    </Box>
  )
}

function StateDot({ state }: { state: Stop['state'] }) {
  return (
    <svg width="11" height="11" viewBox="0 0 11 11" aria-hidden>
      {state === 'attention' ? (
        <path d="M5.5 1 10 9.8H1Z" fill={colours.accent} stroke="#8A6420" strokeWidth="1.2" />
      ) : (
        <circle
          cx="5.5"
          cy="5.5"
          r="4"
          fill={state === 'done' ? colours.muted : 'none'}
          stroke={colours.muted}
          strokeWidth="1.4"
        />
      )}
    </svg>
  )
}

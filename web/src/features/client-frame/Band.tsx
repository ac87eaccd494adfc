import Box from '@mui/material/Box'
import Step from '@mui/material/Step'
import StepLabel from '@mui/material/StepLabel'
import Stepper from '@mui/material/Stepper'
import { useTranslation } from 'react-i18next'
import { NavLink } from 'react-router'
import type { Schemas } from '../../api/client'
import { useClientPath } from '../../common/route'
import { addressOf, stopScreen } from '../../common/screens'
import { Hidden } from '../../common/ui/Hidden'
import { colours } from '../../theme/theme'

type Stop = Schemas['StopOut']

/** The work in its order, with what is done, missing or stale at each stop. */
export function Band({ stops }: { stops: Stop[] }) {
  const { t } = useTranslation()
  const { practice_id, client_id } = useClientPath()
  return (
    <Box
      component="nav"
      aria-label={t('band.label')}
      sx={{
        // What is only heard stays inside as well.
        position: 'relative',
        overflowX: 'auto',
        minWidth: 0,
        maxWidth: '100%',
      }}
    >
      <Stepper nonLinear activeStep={-1} sx={{ gap: { xs: 0.5, md: 1 } }}>
        {stops.map((stop) => (
          <Step key={stop.stop} completed={stop.state === 'done'} sx={{ px: 0 }}>
            <Box
              component={NavLink}
              to={addressOf(stopScreen(stop.stop), practice_id, client_id)}
              sx={{
                display: 'flex',
                alignItems: 'center',
                minHeight: 44,
                color: 'text.secondary',
                textDecoration: 'none',
                whiteSpace: 'nowrap',
                borderBlock: '3px solid transparent',
                outlineOffset: '-3px !important',
                '&.active': { color: 'text.primary', fontWeight: 700, borderBottomColor: 'text.primary' },
                '& .MuiStepLabel-root': { p: 0 },
                '& .MuiStepLabel-label.MuiStepLabel-label': {
                  color: 'inherit',
                  fontSize: '1rem',
                  fontWeight: 'inherit',
                },
                '& .MuiStepLabel-iconContainer': { pr: 0.75 },
              }}
            >
              <StepLabel icon={<StateMark state={stop.state} />}>
                {t(`band.${stop.stop}`)}
                <Hidden>, {t(`band.state.${stop.state}`)}</Hidden>
                {stop.state === 'attention' && (
                  <Box
                    component="span"
                    sx={{ fontSize: '0.8rem', fontWeight: 400, color: 'surface.mind', pl: 1 }}
                  >
                    {stop.note}
                  </Box>
                )}
              </StepLabel>
            </Box>
          </Step>
        ))}
      </Stepper>
    </Box>
  )
}

function StateMark({ state }: { state: Stop['state'] }) {
  return (
    <svg width="11" height="11" viewBox="0 0 11 11" aria-hidden>
      {state === 'attention' ? (
        <path d="M5.5 1 10 9.8H1Z" fill={colours.accent} stroke={colours.mind} strokeWidth="1.2" />
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

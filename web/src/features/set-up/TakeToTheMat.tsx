import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import MenuItem from '@mui/material/MenuItem'
import TextField from '@mui/material/TextField'
import Typography from '@mui/material/Typography'
import { useTranslation } from 'react-i18next'
import { Refused } from '../../common/ui/States'
import type { Lane } from '../../api/client'
import { laneColour } from '../../theme/theme'
import { useClientPath } from '../../common/route'
import { Row } from '../../common/ui/layout'
import { useTakeToTheMat } from './queries'
import type { LaneState } from './useLaneState'

/** How long to hold, and the way to today's plan. Closed set-ups cannot be taken. */
export function TakeToTheMat({ side, state }: { side: Lane; state: LaneState }) {
  const { t } = useTranslation()
  const path = useClientPath()
  const take = useTakeToTheMat()
  const { rung } = state
  if (rung === undefined) return null
  const accepted = Object.entries(state.reasons)
    .filter(([, reason]) => reason.trim().length >= 3)
    .map(([code, reason]) => ({ codes: [code], reason: reason.trim() }))
  return (
    <Box>
      <Row>
        <TextField
          select
          label={t('setUp.hold')}
          value={state.dose}
          onChange={(event) => {
            state.setDose(Number(event.target.value))
          }}
          sx={{ minWidth: 84 }}
        >
          {rung.doses.map((each) => (
            <MenuItem key={each.seconds} value={each.seconds}>
              {each.words}
            </MenuItem>
          ))}
        </TextField>
        <Button
          variant="contained"
          size="large"
          color={side}
          disabled={take.isPending || state.detail?.allowed !== true}
          onClick={() => {
            take.mutate({
              params: { path },
              body: {
                variation: rung.variation,
                // A shape both legs share is planned for both.
                side: side === 'both' ? 'left' : side,
                setup: state.wanted,
                dose_s: state.dose,
                accepted,
              },
            })
          }}
        >
          {t('setUp.take')}
        </Button>
      </Row>
      {take.isSuccess && (
        <Typography role="status" sx={{ color: laneColour(side), fontWeight: 600, textAlign: 'right' }}>
          ✓ {t('setUp.taken')}
        </Typography>
      )}
      <Refused error={take.error} />
    </Box>
  )
}

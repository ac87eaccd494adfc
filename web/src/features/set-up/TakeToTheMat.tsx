import Button from '@mui/material/Button'
import MenuItem from '@mui/material/MenuItem'
import TextField from '@mui/material/TextField'
import { useTranslation } from 'react-i18next'
import type { Lane } from '../../api/client'
import { useClientPath } from '../../common/route'
import { Row } from '../../common/ui/layout'
import { Refused } from '../../common/ui/States'
import { sideOf, plannedNow, savedAs } from './model'
import type { useTakeToTheMat } from './queries'
import type { LaneState } from './useLaneState'

interface Props {
  side: Lane
  state: LaneState
  take: ReturnType<typeof useTakeToTheMat>
}

/** How long to hold, a note, and the way to today's plan. Closed set-ups cannot be taken. */
export function TakeToTheMat({ side, state, take }: Props) {
  const { t } = useTranslation()
  const path = useClientPath()
  const { rung } = state
  if (rung === undefined) return null
  // A shape both legs share is planned for both.
  const own = sideOf(side)
  const planned = plannedNow(rung, take.data, own)
  const saved = savedAs(planned, state.axes, state.indices, state.dose)
  const noted = take.variables?.body.note ?? rung.note
  return (
    <div style={{ marginTop: 6 }}>
      <Row gap={1}>
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
        <TextField
          label={t('setUp.note')}
          value={state.note}
          placeholder={t('setUp.noteHint')}
          slotProps={{ htmlInput: { maxLength: 300 }, inputLabel: { shrink: true } }}
          onChange={(event) => {
            state.setNote(event.target.value)
          }}
          sx={{ flex: 1, minWidth: 90, '& input': { boxSizing: 'border-box', height: 44 } }}
        />
        <Button
          variant="contained"
          size="large"
          color={side}
          disabled={
            take.isPending ||
            state.detail?.allowed !== true ||
            (saved === 'saved' && state.note.trim() === noted)
          }
          onClick={() => {
            take.mutate({
              params: { path },
              body: {
                variation: rung.variation,
                side: own,
                setup: state.wanted,
                dose_s: state.dose,
                note: state.note.trim(),
              },
            })
          }}
        >
          {t(saved === 'otherwise' ? 'setUp.takeAnew' : 'setUp.take')}
        </Button>
      </Row>
      <Refused error={take.error} />
    </div>
  )
}

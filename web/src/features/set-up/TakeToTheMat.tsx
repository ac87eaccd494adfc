import Button from '@mui/material/Button'
import MenuItem from '@mui/material/MenuItem'
import { styled } from '@mui/material/styles'
import TextField from '@mui/material/TextField'
import { useTranslation } from 'react-i18next'
import type { Lane } from '../../api/client'
import { useClientPath } from '../../common/route'
import { Row } from '../../common/ui/layout'
import { Refused } from '../../common/ui/States'
import { colours, laneColour } from '../../theme/theme'
import { partPlanned, savedAs } from './model'
import { useTakeToTheMat } from './queries'
import type { LaneState } from './useLaneState'

const Saved = styled('div')({
  fontSize: '0.9rem',
  lineHeight: 1.3,
  textAlign: 'right',
  marginTop: 4,
  color: colours.muted,
  '&[data-saved]': { color: 'var(--lane)', fontWeight: 600 },
})

/** How long to hold, a note, and the way to today's plan; what is planned is told from what is only looked at. Closed
 * set-ups cannot be taken. */
export function TakeToTheMat({ side, state }: { side: Lane; state: LaneState }) {
  const { t } = useTranslation()
  const path = useClientPath()
  const take = useTakeToTheMat()
  const { rung } = state
  if (rung === undefined) return null
  // A shape both legs share is planned for both.
  const own = side === 'both' ? 'left' : side
  const planned = take.data === undefined ? rung.planned : partPlanned(take.data, rung.variation, own)
  const saved = savedAs(planned, state.axes, state.indices, state.dose)
  return (
    <div>
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
          sx={{ width: 150 }}
        />
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
                side: own,
                setup: state.wanted,
                dose_s: state.dose,
                note: state.note.trim(),
              },
            })
          }}
        >
          {t(planned === null ? 'setUp.take' : 'setUp.takeAnew')}
        </Button>
      </Row>
      <Saved
        role="status"
        data-saved={saved === 'saved' ? '' : undefined}
        style={{ '--lane': laneColour(side) } as object}
      >
        {saved === 'saved' && '✓ '}
        {t(`setUp.saved.${saved}`)}
      </Saved>
      <Refused error={take.error} />
    </div>
  )
}

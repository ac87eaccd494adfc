import MenuItem from '@mui/material/MenuItem'
import TextField from '@mui/material/TextField'
import ToggleButton from '@mui/material/ToggleButton'
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup'
import { useTranslation } from 'react-i18next'
import type { Side } from '../../api/client'
import { length } from '../../common/practice'
import { laneColour } from '../../theme/theme'
import { Row } from '../../common/ui/layout'
import { type Sitter, useSitters } from './queries'

interface Props {
  sitter: Sitter
  shared: boolean
  /** Whose height it is; unknown while the figures are drawn. */
  statureCm: number | undefined
  set: (changes: Record<string, string | null>) => void
}

const TYPICAL = 'typical'
const SIDES: readonly Side[] = ['left', 'right']

/** Who the figures are drawn for, and which side works. */
export function SitterBar({ sitter, shared, statureCm, set }: Props) {
  const { t } = useTranslation()
  const clients = useSitters()
  return (
    <Row gap={1.5} wrap align="flex-start">
      <TextField
        select
        label={t('library.drawnFor')}
        value={sitter.client ?? TYPICAL}
        helperText={statureCm === undefined ? ' ' : t('library.stature', { stature: length(t, statureCm) })}
        sx={{ width: 230 }}
        onChange={(event) => {
          set({ client: event.target.value === TYPICAL ? null : event.target.value })
        }}
      >
        <MenuItem value={TYPICAL}>{t('library.typicalBody')}</MenuItem>
        {(clients.data ?? []).map((client) => (
          <MenuItem key={client.id} value={client.id} translate="no">
            {client.name}
          </MenuItem>
        ))}
      </TextField>
      {!shared && (
        <ToggleButtonGroup
          exclusive
          size="small"
          value={sitter.side}
          aria-label={t('library.side')}
          onChange={(_, side: Side | null) => {
            if (side !== null) set({ side })
          }}
        >
          {SIDES.map((side) => (
            <ToggleButton
              key={side}
              value={side}
              sx={{
                px: 1.75,
                '&.Mui-selected, &.Mui-selected:hover': { bgcolor: laneColour(side) },
              }}
            >
              {t(`side.${side}`)}
            </ToggleButton>
          ))}
        </ToggleButtonGroup>
      )}
    </Row>
  )
}

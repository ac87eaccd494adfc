import Box from '@mui/material/Box'
import MenuItem from '@mui/material/MenuItem'
import TextField from '@mui/material/TextField'
import ToggleButton from '@mui/material/ToggleButton'
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup'
import Typography from '@mui/material/Typography'
import { memo } from 'react'
import { useTranslation } from 'react-i18next'
import type { Schemas } from '../../api/client'
import { serif } from '../../theme/theme'

export type View = Schemas['SetupQuery']['view']
const VIEWS: readonly View[] = ['side', 'front', 'behind', 'above']

interface Props {
  families: readonly { family: string; name: string }[]
  family: string
  onFamily: (family: string) => void
  view: View
  onView: (view: View) => void
}

/** Which ladder is set up, and from where the figures are seen. */
export const PoseBar = memo(function PoseBar({ families, family, onFamily, view, onView }: Props) {
  const { t } = useTranslation()
  return (
    <Box sx={{ display: 'flex', alignItems: 'center', flexWrap: 'wrap', gap: 1, mb: 1 }}>
      <TextField
        select
        variant="standard"
        aria-label={t('setUp.ladder')}
        value={family}
        onChange={(event) => {
          onFamily(event.target.value)
        }}
        slotProps={{
          htmlInput: { 'aria-label': t('setUp.ladder') },
          input: {
            disableUnderline: true,
            sx: { fontFamily: serif, fontSize: '1.35rem', fontWeight: 600 },
          },
        }}
      >
        {families.map((each) => (
          <MenuItem key={each.family} value={each.family}>
            {each.name}
          </MenuItem>
        ))}
      </TextField>
      <Box sx={{ ml: 'auto', display: 'flex', gap: 1, alignItems: 'center', flexWrap: 'wrap' }}>
        <Typography variant="note" id="seen-from">
          {view === 'front' && `${t('setUp.mirrored')} · `}
          {t('setUp.seen')}
        </Typography>
        <ToggleButtonGroup
          exclusive
          size="small"
          aria-labelledby="seen-from"
          value={view}
          onChange={(_, each: View | null) => {
            if (each !== null) onView(each)
          }}
        >
          {VIEWS.map((each) => (
            <ToggleButton key={each} value={each}>
              {t(`setUp.views.${each}`)}
            </ToggleButton>
          ))}
        </ToggleButtonGroup>
      </Box>
    </Box>
  )
})

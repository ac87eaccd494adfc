import ToggleButton from '@mui/material/ToggleButton'
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup'
import { useTranslation } from 'react-i18next'
import { chooseLight, type Light, LIGHTS, type Place, useKeptLight } from '../../theme/light'

/** Day, dim room, or as the device has it; for the desk and for the mat each. */
export function LightChoice({ place, lights = LIGHTS }: { place: Place; lights?: readonly Light[] }) {
  const { t } = useTranslation()
  const light = useKeptLight(place)
  return (
    <ToggleButtonGroup
      exclusive
      size="small"
      value={light}
      aria-label={t('light.label')}
      onChange={(_, chosen: Light | null) => {
        if (chosen !== null) chooseLight(place, chosen)
      }}
    >
      {lights.map((each) => (
        <ToggleButton key={each} value={each}>
          {t(`light.${each}`)}
        </ToggleButton>
      ))}
    </ToggleButtonGroup>
  )
}

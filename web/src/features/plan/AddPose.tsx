import Autocomplete from '@mui/material/Autocomplete'
import TextField from '@mui/material/TextField'
import { useTranslation } from 'react-i18next'
import { useFamilies } from '../../common/ladders'

interface Props {
  planned: readonly string[]
  busy: boolean
  onAdd: (family: string) => void
}

/** Any ladder that is not planned yet, by its name. */
export function AddPose({ planned, busy, onAdd }: Props) {
  const { t } = useTranslation()
  const families = useFamilies()
  const options = (families.data ?? []).filter(({ family }) => !planned.includes(family))
  return (
    <Autocomplete
      // Empty again after each: what was chosen stands in the plan.
      key={planned.join()}
      options={options}
      disabled={busy}
      getOptionKey={({ family }) => family}
      getOptionLabel={({ name }) => name}
      loading={families.isPending}
      loadingText={t('common.loading')}
      noOptionsText={t('plan.noFamily')}
      openText={t('plan.addOpen')}
      closeText={t('plan.addClose')}
      clearText={t('plan.addClear')}
      onChange={(_, chosen) => {
        if (chosen !== null) onAdd(chosen.family)
      }}
      renderInput={(params) => <TextField {...params} label={t('plan.add')} />}
      style={{ width: 280, maxWidth: '100%' }}
    />
  )
}

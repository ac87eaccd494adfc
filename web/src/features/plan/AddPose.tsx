import Autocomplete from '@mui/material/Autocomplete'
import TextField from '@mui/material/TextField'
import { useEffect, useRef } from 'react'
import { useTranslation } from 'react-i18next'
import { useFamilies } from '../../common/ladders'

interface Props {
  planned: readonly string[]
  busy: boolean
  /** Whether one was added from here before: whoever did goes on typing the next. */
  again: boolean
  onAdd: (family: string) => void
}

/** Any ladder that is not planned yet, by its name. */
export function AddPose({ planned, busy, again, onAdd }: Props) {
  const { t } = useTranslation()
  const families = useFamilies()
  const field = useRef<HTMLInputElement>(null)
  const names = planned.join()
  useEffect(() => {
    if (again && !busy) field.current?.focus()
  }, [again, busy, names])
  const options = (families.data ?? []).filter(({ family }) => !planned.includes(family))
  return (
    <Autocomplete
      // Empty again after each: what was chosen stands in the plan.
      key={names}
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
      autoHighlight
      onChange={(_, chosen) => {
        if (chosen !== null) onAdd(chosen.family)
      }}
      renderInput={(params) => <TextField {...params} inputRef={field} label={t('plan.add')} />}
      style={{ width: 280, maxWidth: '100%' }}
    />
  )
}

import Autocomplete from '@mui/material/Autocomplete'
import TextField from '@mui/material/TextField'
import { useEffect, useRef } from 'react'
import { useTranslation } from 'react-i18next'
import { useFamilies } from '../../common/ladders'
import { meant } from '../../common/search'

interface Props {
  planned: readonly string[]
  busy: boolean
  /** Whether one was just added from here: whoever did goes on typing the next. */
  added: boolean
  onNext: () => void
  onAdd: (family: string) => void
}

/** Any ladder that is not planned yet, by its name. */
export function AddPose({ planned, busy, added, onNext, onAdd }: Props) {
  const { t } = useTranslation()
  const families = useFamilies()
  const field = useRef<HTMLInputElement>(null)
  const names = planned.join()
  useEffect(() => {
    if (!added || busy) return
    field.current?.focus()
    onNext()
  }, [added, busy, onNext])
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
      filterOptions={(all, { inputValue }) => meant(all, inputValue)}
      onChange={(_, chosen) => {
        if (chosen !== null) onAdd(chosen.family)
      }}
      renderInput={(params) => <TextField {...params} inputRef={field} label={t('plan.add')} />}
      style={{ width: 280, maxWidth: '100%' }}
    />
  )
}

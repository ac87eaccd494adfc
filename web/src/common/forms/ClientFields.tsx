import TextField from '@mui/material/TextField'
import { useTranslation } from 'react-i18next'
import { DateField } from './DateField'

/** Who somebody is, as it is typed. */
export interface ClientDraft {
  name: string
  birth_date: string
  occupation: string
}

interface Props {
  draft: ClientDraft
  problems: Partial<Record<string, string>>
  onDraft: (changed: Partial<ClientDraft>) => void
}

/** Name, date of birth and occupation. */
export function ClientFields({ draft, problems, onDraft }: Props) {
  const { t } = useTranslation()
  const field = (name: 'name' | 'occupation') => ({
    value: draft[name],
    error: problems[name] !== undefined,
    helperText: problems[name],
    onChange: (event: { target: { value: string } }) => {
      onDraft({ [name]: event.target.value })
    },
  })
  return (
    <>
      <TextField label={t('clients.name')} autoFocus required {...field('name')} />
      <DateField
        label={t('clients.birthDate')}
        value={draft.birth_date}
        problem={problems['birth_date']}
        onChange={(birth_date) => {
          onDraft({ birth_date })
        }}
      />
      <TextField label={t('clients.occupation')} {...field('occupation')} />
    </>
  )
}

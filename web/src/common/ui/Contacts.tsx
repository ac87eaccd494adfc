import { styled } from '@mui/material/styles'
import { useTranslation } from 'react-i18next'
import type { Schemas } from '../../api/client'
import { colours } from '../../theme/theme'

const List = styled('ul')(({ theme }) => ({
  listStyle: 'none',
  margin: 0,
  padding: 0,
  lineHeight: 1.4,
  '& li': { marginBottom: theme.spacing(0.75) },
  '& .more': { color: colours.muted },
}))

/** Whom to call: emergencies first, each with whether the client agreed to being spoken about. */
export function Contacts({ contacts }: { contacts: readonly Schemas['Contact'][] }) {
  const { t } = useTranslation()
  const first = [...contacts].sort(
    (one, other) => Number(other.role === 'emergency') - Number(one.role === 'emergency'),
  )
  return (
    <List aria-label={t('clients.contacts.short')}>
      {first.map(({ role, name, phone, email, consent }, place) => (
        <li key={place}>
          <span translate="no">
            <strong>{name}</strong> {phone !== '' && <a href={`tel:${phone.replace(/\s/g, '')}`}>{phone}</a>}{' '}
            {email !== '' && <a href={`mailto:${email}`}>{email}</a>}
          </span>
          <div className="more">
            {t(`clients.contacts.roles.${role}`)}, {t(`clients.contacts.short_${consent}`)}
          </div>
        </li>
      ))}
    </List>
  )
}

import Button from '@mui/material/Button'
import FormHelperText from '@mui/material/FormHelperText'
import IconButton from '@mui/material/IconButton'
import MenuItem from '@mui/material/MenuItem'
import { styled } from '@mui/material/styles'
import TextField from '@mui/material/TextField'
import { useTranslation } from 'react-i18next'
import type { Schemas } from '../../api/client'

type Contact = Schemas['Contact']

const ROLES: readonly Contact['role'][] = [
  'surgeon',
  'doctor',
  'physiotherapist',
  'midwife',
  'emergency',
  'other',
]
const CONSENTS: readonly Contact['consent'][] = ['unknown', 'yes', 'no']
const NEW: Contact = { role: 'doctor', name: '', phone: '', email: '', consent: 'unknown' }

const Set = styled('fieldset')(({ theme }) => ({
  border: 0,
  margin: 0,
  padding: 0,
  display: 'grid',
  gap: theme.spacing(1.5),
  '& legend': { fontWeight: 600, marginBottom: theme.spacing(1) },
  '& .one + .one': { marginTop: theme.spacing(1.5) },
  '& .one': {
    display: 'grid',
    gap: theme.spacing(1.25),
    gridTemplateColumns: '1fr 1fr 40px',
    '& > :nth-of-type(3)': { gridRow: 'span 1' },
  },
}))

interface Props {
  contacts: readonly Contact[]
  problem: string | undefined
  onContacts: (changed: Contact[]) => void
}

/** Who treats a client and whom to call, each with whether the client agreed to being spoken about. */
export function ContactFields({ contacts, problem, onContacts }: Props) {
  const { t } = useTranslation()
  const change = (at: number, more: Partial<Contact>) => {
    onContacts(contacts.map((each, place) => (place === at ? { ...each, ...more } : each)))
  }
  return (
    <Set>
      <legend>{t('clients.contacts.title')}</legend>
      {contacts.map((contact, at) => (
        // What is typed belongs to its place.
        <div key={at} className="one">
          <TextField
            select
            label={t('clients.contacts.role')}
            value={contact.role}
            onChange={(event) => {
              change(at, { role: event.target.value as Contact['role'] })
            }}
          >
            {ROLES.map((role) => (
              <MenuItem key={role} value={role}>
                {t(`clients.contacts.roles.${role}`)}
              </MenuItem>
            ))}
          </TextField>
          <TextField
            label={t('clients.contacts.name')}
            value={contact.name}
            onChange={(event) => {
              change(at, { name: event.target.value })
            }}
          />
          <IconButton
            aria-label={t('clients.contacts.remove')}
            onClick={() => {
              onContacts(contacts.filter((_, place) => place !== at))
            }}
          >
            ×
          </IconButton>
          <TextField
            label={t('clients.contacts.phone')}
            type="tel"
            value={contact.phone}
            onChange={(event) => {
              change(at, { phone: event.target.value })
            }}
          />
          <TextField
            label={t('clients.contacts.email')}
            type="email"
            value={contact.email}
            onChange={(event) => {
              change(at, { email: event.target.value })
            }}
          />
          <span />
          <TextField
            select
            label={t('clients.contacts.consent')}
            value={contact.consent}
            sx={{ gridColumn: '1 / 3' }}
            onChange={(event) => {
              change(at, { consent: event.target.value as Contact['consent'] })
            }}
          >
            {CONSENTS.map((each) => (
              <MenuItem key={each} value={each}>
                {t(`clients.contacts.consents.${each}`)}
              </MenuItem>
            ))}
          </TextField>
        </div>
      ))}
      {problem !== undefined && <FormHelperText error>{problem}</FormHelperText>}
      <Button
        variant="outlined"
        size="small"
        sx={{ justifySelf: 'start' }}
        onClick={() => {
          onContacts([...contacts, NEW])
        }}
      >
        {t('clients.contacts.add')}
      </Button>
    </Set>
  )
}

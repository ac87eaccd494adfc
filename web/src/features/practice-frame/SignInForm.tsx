import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import FormControl from '@mui/material/FormControl'
import InputLabel from '@mui/material/InputLabel'
import OutlinedInput from '@mui/material/OutlinedInput'
import { type SubmitEvent, useId, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Refused } from '../../common/ui/States'
import { useSignIn } from '../../common/session'
import { laneColour } from '../../theme/theme'

/** Address and password. Signing in leaves the page and its address as they are. */
export function SignInForm() {
  const { t } = useTranslation()
  const [email, setEmail] = useState('')
  const [password, setPassword] = useState('')
  const signIn = useSignIn()
  const submit = (event: SubmitEvent) => {
    event.preventDefault()
    signIn.mutate({ body: { email, password } })
  }
  return (
    <Box
      component="form"
      onSubmit={submit}
      sx={{ display: 'grid', gap: 2, borderTop: 3, borderColor: laneColour('left'), pt: 3 }}
    >
      <Refused error={signIn.error} />
      <Field label={t('signIn.email')} type="email" autoComplete="username" value={email} onType={setEmail} />
      <Field
        label={t('signIn.password')}
        type="password"
        autoComplete="current-password"
        value={password}
        onType={setPassword}
      />
      <Button type="submit" variant="contained" size="large" disabled={signIn.isPending}>
        {t('signIn.go')}
      </Button>
    </Box>
  )
}

interface FieldProps {
  label: string
  type: 'email' | 'password'
  autoComplete: string
  value: string
  onType: (text: string) => void
}

/** A field in its parts: MUI's whole one brings lists and menus along, which a sign-in does not need. */
function Field({ label, type, autoComplete, value, onType }: FieldProps) {
  const id = useId()
  return (
    <FormControl required size="small">
      <InputLabel htmlFor={id}>{label}</InputLabel>
      <OutlinedInput
        id={id}
        label={label}
        type={type}
        autoComplete={autoComplete}
        value={value}
        onChange={(event) => {
          onType(event.target.value)
        }}
      />
    </FormControl>
  )
}

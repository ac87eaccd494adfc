import Alert from '@mui/material/Alert'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import TextField from '@mui/material/TextField'
import { type SubmitEvent, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { colours } from '../../app/theme'
import { useSignIn } from '../../common/session'

/** Address and password. Signing in leaves the page and its address as they are. */
export function SignInForm() {
  const { t } = useTranslation()
  const [email, setEmail] = useState('')
  const [password, setPassword] = useState('')
  const signIn = useSignIn()
  const submit = (event: SubmitEvent) => {
    event.preventDefault()
    signIn.mutate({ email, password })
  }
  return (
    <Box
      component="form"
      onSubmit={submit}
      sx={{ display: 'grid', gap: 2, borderTop: 3, borderColor: colours.left, pt: 3 }}
    >
      {signIn.isError && (
        <Alert severity="error" variant="outlined">
          {signIn.error.message}
        </Alert>
      )}
      <TextField
        label={t('signIn.email')}
        type="email"
        autoComplete="username"
        value={email}
        onChange={(event) => {
          setEmail(event.target.value)
        }}
        required
      />
      <TextField
        label={t('signIn.password')}
        type="password"
        autoComplete="current-password"
        value={password}
        onChange={(event) => {
          setPassword(event.target.value)
        }}
        required
      />
      <Button type="submit" variant="contained" size="large" disabled={signIn.isPending}>
        {t('signIn.go')}
      </Button>
    </Box>
  )
}

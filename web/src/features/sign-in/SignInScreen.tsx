import Alert from '@mui/material/Alert'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import TextField from '@mui/material/TextField'
import Typography from '@mui/material/Typography'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { type SubmitEvent, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { useNavigate } from 'react-router'
import { api, unwrap } from '../../api/client'
import { colours } from '../../app/theme'
import { ME, useMe } from '../../common/session'

export function SignInScreen() {
  const { t } = useTranslation()
  // Asking who is signed in also brings the CSRF cookie the form needs.
  useMe()
  const [email, setEmail] = useState('')
  const [password, setPassword] = useState('')
  const queries = useQueryClient()
  const navigate = useNavigate()
  const signIn = useMutation({
    mutationFn: () => unwrap(api.POST('/api/auth/sign-in', { body: { email, password } })),
    onSuccess: (me) => {
      queries.setQueryData(ME, me)
      void navigate('/')
    },
  })
  const submit = (event: SubmitEvent) => {
    event.preventDefault()
    signIn.mutate()
  }
  return (
    <Box component="main" sx={{ minHeight: '100vh', display: 'grid', placeItems: 'center', p: 3 }}>
      <Box sx={{ width: 380 }}>
        <Typography variant="h1" sx={{ fontSize: '2.6rem' }}>
          {t('app.name')}
        </Typography>
        <Typography color="text.secondary" sx={{ mb: 4 }}>
          {t('app.tagline')}
        </Typography>
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
        <Typography variant="body2" color="text.secondary" sx={{ mt: 4 }}>
          {t('signIn.safety')}
        </Typography>
      </Box>
    </Box>
  )
}

import Box from '@mui/material/Box'
import Typography from '@mui/material/Typography'
import { useTranslation } from 'react-i18next'
import { Navigate } from 'react-router'
import { useMe } from '../../common/session'
import { SignInForm } from './SignInForm'

/** The sign-in as a page of its own: whoever signed in goes on to the clients. */
export function SignInScreen() {
  // Asking who is signed in also brings the CSRF cookie the form needs.
  const me = useMe()
  if (me.data?.signed_in === true) return <Navigate to="/" replace />
  return <SignInPage />
}

/** The sign-in in the place of a page: whoever signed in sees that page. */
export function SignInPage() {
  const { t } = useTranslation()
  return (
    <Box component="main" sx={{ minHeight: '100vh', display: 'grid', placeItems: 'center', p: 3 }}>
      <Box sx={{ width: 380 }}>
        <Typography variant="h1" sx={{ fontSize: '2.6rem' }}>
          {t('app.name')}
        </Typography>
        <Typography color="text.secondary" sx={{ mb: 4 }}>
          {t('app.tagline')}
        </Typography>
        <SignInForm />
        <Typography variant="body2" color="text.secondary" sx={{ mt: 4 }}>
          {t('signIn.safety')}
        </Typography>
      </Box>
    </Box>
  )
}

import Alert from '@mui/material/Alert'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import MenuItem from '@mui/material/MenuItem'
import Select from '@mui/material/Select'
import Typography from '@mui/material/Typography'
import { useMemo, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Link, NavLink, Outlet, useLocation, useNavigate } from 'react-router'
import { colours, serif } from '../../app/theme'
import { usePracticeId } from '../../common/route'
import { useMe, useSignOut } from '../../common/session'
import { useShortcuts } from '../../common/shortcuts'
import { Failure, NothingHere, Working } from '../../common/ui/States'
import { KeysDialog } from './KeysDialog'
import { LanguageChoice } from './LanguageChoice'
import { SessionEnded } from './SessionEnded'
import { SignInPage } from './SignInScreen'

/** The views of a practice, in the order of the bar. */
const VIEWS = ['clients', 'library'] as const

/** The bar above everything of a practice. The mat has the whole screen to itself. */
export function PracticeFrame() {
  const { t } = useTranslation()
  const me = useMe()
  const practiceId = usePracticeId()
  const navigate = useNavigate()
  const signOut = useSignOut()
  const { pathname } = useLocation()
  const [keys, setKeys] = useState(false)
  useShortcuts(
    useMemo(
      () => [
        {
          key: '?',
          run: () => {
            setKeys((open) => !open)
          },
        },
        { key: '/', run: () => void navigate(`/practices/${practiceId}/clients?find`) },
      ],
      [navigate, practiceId],
    ),
  )
  if (me.isPending) return <Working />
  if (me.isError) return <Failure error={me.error} again={() => void me.refetch()} />
  // The address stays: whoever signs in here sees what was asked for.
  if (!me.data.signed_in) return <SignInPage />
  const practice = me.data.practices.find((candidate) => candidate.id === practiceId)
  if (practice === undefined) return <NothingHere />
  const onTheMat = pathname.endsWith('/mat')
  return (
    <Box
      sx={{ '--left': colours.left, '--right': colours.right, '--both': colours.both, minHeight: '100vh' }}
    >
      {!onTheMat && (
        <Box
          component="header"
          sx={{
            '@media print': { display: 'none' },
            bgcolor: colours.ink,
            color: colours.ground,
            px: 2.75,
            height: 46,
            display: 'flex',
            alignItems: 'center',
            gap: 4,
          }}
        >
          <Typography
            component={Link}
            to="/"
            sx={{
              fontFamily: serif,
              fontWeight: 600,
              fontSize: '1.4rem',
              color: 'inherit',
              textDecoration: 'none',
            }}
          >
            {t('app.name')}
          </Typography>
          <Box component="nav" sx={{ display: 'flex', gap: 3, flex: 1, height: '100%' }}>
            {VIEWS.map((view) => (
              <Box
                key={view}
                component={NavLink}
                to={`/practices/${practiceId}/${view}`}
                sx={{
                  color: '#D9D2C3',
                  textDecoration: 'none',
                  display: 'grid',
                  alignItems: 'center',
                  borderBottom: '3px solid transparent',
                  '&.active': { color: '#fff', borderColor: colours.accent },
                }}
              >
                {t(`nav.${view}`)}
              </Box>
            ))}
          </Box>
          {me.data.practices.length > 1 ? (
            <Select
              size="small"
              variant="standard"
              disableUnderline
              value={practiceId}
              onChange={(event) => void navigate(`/practices/${event.target.value}/clients`)}
              sx={{ color: 'inherit', '& svg': { color: 'inherit' } }}
            >
              {me.data.practices.map((each) => (
                <MenuItem key={each.id} value={each.id} translate="no">
                  {each.name}
                </MenuItem>
              ))}
            </Select>
          ) : (
            <span translate="no">{practice.name}</span>
          )}
          <span translate="no" style={{ opacity: 0.85 }}>
            {me.data.full_name}
          </span>
          {me.data.languages.length > 1 && <LanguageChoice languages={me.data.languages} />}
          <Button
            color="inherit"
            size="small"
            onClick={() => {
              setKeys(true)
            }}
          >
            {t('common.shortcuts')}
          </Button>
          <Button
            color="inherit"
            size="small"
            onClick={() => {
              signOut.mutate()
            }}
          >
            {t('signIn.out')}
          </Button>
        </Box>
      )}
      {signOut.isError && (
        <Alert
          severity="error"
          sx={{ borderRadius: 0 }}
          onClose={() => {
            signOut.reset()
          }}
        >
          {t('common.signOutFailed')} {signOut.error.message}
        </Alert>
      )}
      <Outlet />
      <SessionEnded />
      <KeysDialog
        open={keys}
        onClose={() => {
          setKeys(false)
        }}
      />
    </Box>
  )
}

import Alert from '@mui/material/Alert'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Drawer from '@mui/material/Drawer'
import List from '@mui/material/List'
import ListItemButton from '@mui/material/ListItemButton'
import MenuItem from '@mui/material/MenuItem'
import TextField from '@mui/material/TextField'
import Typography from '@mui/material/Typography'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Link, NavLink, useNavigate } from 'react-router'
import type { Schemas } from '../../api/client'
import { typedDrafts } from '../../common/drafts'
import { addressOf, screenById, SCREENS } from '../../common/screens'
import { useSignOut } from '../../common/session'
import { LanguageChoice } from '../../common/ui/LanguageChoice'
import { LightChoice } from '../../common/ui/LightChoice'

interface Props {
  me: Schemas['Me']
  practiceId: string
  open: boolean
  onClose: () => void
  onKeys: () => void
}

/** Who is signed in, where, and how this device shows it. */
export function PersonDrawer({ me, practiceId, open, onClose, onKeys }: Props) {
  const { t } = useTranslation()
  const navigate = useNavigate()
  const signOut = useSignOut()
  const [leaving, setLeaving] = useState(0)
  return (
    <Drawer
      anchor="right"
      open={open}
      onClose={onClose}
      slotProps={{ paper: { sx: { width: 'min(340px, 88vw)' }, 'aria-labelledby': 'person' } }}
    >
      <Box sx={{ p: 2.5, display: 'grid', gap: 2.25 }}>
        <div>
          <Typography id="person" variant="h2" component="p" translate="no">
            {me.full_name}
          </Typography>
          <Typography color="text.secondary" translate="no">
            {me.practices.find((each) => each.id === practiceId)?.name}
          </Typography>
        </div>
        {me.practices.length > 1 && (
          <TextField
            select
            label={t('common.practice')}
            value={practiceId}
            onChange={(event) => {
              onClose()
              void navigate(addressOf(screenById('clients'), event.target.value))
            }}
          >
            {me.practices.map((each) => (
              <MenuItem key={each.id} value={each.id} translate="no">
                {each.name}
              </MenuItem>
            ))}
          </TextField>
        )}
        <Box component="nav" aria-label={t('nav.views')} sx={{ display: { md: 'none' } }}>
          <List disablePadding>
            {SCREENS.filter((each) => each.bar).map((each) => (
              <ListItemButton
                key={each.id}
                component={NavLink}
                to={addressOf(each, practiceId)}
                onClick={onClose}
                sx={{ minHeight: 44, '&.active': { fontWeight: 700, bgcolor: 'surface.note' } }}
              >
                {t(each.title)}
              </ListItemButton>
            ))}
          </List>
        </Box>
        <div>
          <Typography variant="overline" component="p">
            {t('light.label')}
          </Typography>
          <LightChoice place="desk" />
        </div>
        {me.languages.length > 1 && <LanguageChoice languages={me.languages} />}
        {SCREENS.filter((each) => each.aside).map((each) => (
          <Button
            key={each.id}
            component={Link}
            to={addressOf(each, practiceId)}
            variant="outlined"
            onClick={onClose}
          >
            {t(each.title)}
          </Button>
        ))}
        <Button variant="outlined" onClick={onKeys}>
          {t('common.shortcuts')}
        </Button>
        {signOut.isError && (
          <Alert severity="error">
            {t('common.signOutFailed')} {signOut.error.message}
          </Alert>
        )}
        {leaving > 0 && <Alert severity="warning">{t('common.draftsLost', { count: leaving })}</Alert>}
        <Button
          variant="contained"
          disabled={signOut.isPending}
          onClick={() => {
            const unsaved = typedDrafts()
            // Asked once: whoever goes on after that means it.
            if (unsaved > 0 && leaving === 0) setLeaving(unsaved)
            else signOut.mutate({})
          }}
        >
          {t(leaving > 0 ? 'common.signOutAnyway' : 'signIn.out')}
        </Button>
      </Box>
    </Drawer>
  )
}

import Autocomplete from '@mui/material/Autocomplete'
import Box from '@mui/material/Box'
import Dialog from '@mui/material/Dialog'
import DialogTitle from '@mui/material/DialogTitle'
import TextField from '@mui/material/TextField'
import { keepPreviousData } from '@tanstack/react-query'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { useNavigate, useParams } from 'react-router'
import { query } from '../../api/client'
import { useEveryCommand, writtenKeys } from '../../common/commands'
import { usePracticeId } from '../../common/route'
import { addressOf, isClients, screenById, SCREENS } from '../../common/screens'
import { HIDDEN } from '../../common/ui/Hidden'
import { type Entry, matching } from './palette'

/** One field that finds a client, a ladder, a screen or something to do. */
export function Palette({ onClose }: { onClose: () => void }) {
  const { t } = useTranslation()
  const practice_id = usePracticeId()
  const { clientId } = useParams()
  const navigate = useNavigate()
  const commands = useEveryCommand()
  const [text, setText] = useState('')
  const clients = query.useQuery(
    'post',
    '/api/practices/{practice_id}/clients/search',
    { params: { path: { practice_id } }, body: { text, archived: false } },
    { placeholderData: keepPreviousData, enabled: text.trim() !== '' },
  )
  const families = query.useQuery(
    'get',
    '/api/practices/{practice_id}/library',
    { params: { path: { practice_id } } },
    { staleTime: Infinity },
  )
  const to = (address: string) => () => void navigate(address)
  const found: Entry[] = (text.trim() === '' ? [] : (clients.data ?? [])).map((client) => ({
    id: `client ${client.id}`,
    group: 'clients',
    label: client.name,
    more: client.occupation,
    run: to(addressOf(screenById('choose'), practice_id, client.id)),
  }))
  const known: Entry[] = [
    ...SCREENS.filter(
      (each) => each.bar === true || each.aside === true || (isClients(each) && clientId !== undefined),
    ).map((each): Entry => ({
      id: `screen ${each.id}`,
      group: 'screens',
      label: t(each.title),
      run: to(addressOf(each, practice_id, clientId)),
    })),
    ...commands
      .filter((command) => command.keys?.length === 1 && !['find', 'keys'].includes(command.name))
      .map((command): Entry => ({
        id: `command ${command.name}`,
        group: 'actions',
        label: t(`commands.${command.name}`),
        more: writtenKeys(command),
        run: () => {
          command.run(command.keys?.[0] ?? '')
        },
      })),
    ...(families.data?.families ?? []).map((family): Entry => ({
      id: `family ${family.family}`,
      group: 'ladders',
      label: family.name,
      more: family.about,
      found_by: family.found_by,
      run: to(`/practices/${practice_id}/library/${family.family}`),
    })),
  ]
  return (
    <Dialog
      open
      onClose={onClose}
      fullWidth
      maxWidth="sm"
      sx={{ '& .MuiDialog-container': { alignItems: 'flex-start' } }}
    >
      <DialogTitle sx={HIDDEN}>{t('palette.title')}</DialogTitle>
      <Autocomplete
        sx={{ m: 2, mb: 0 }}
        open
        disablePortal
        autoHighlight
        options={[...found, ...matching(known, text)]}
        filterOptions={(options) => options}
        groupBy={(entry) => t(`palette.groups.${entry.group}`)}
        getOptionKey={(entry) => entry.id}
        getOptionLabel={(entry) => entry.label}
        inputValue={text}
        noOptionsText={t('palette.nothing', { text })}
        forcePopupIcon={false}
        onInputChange={(_, typed, reason) => {
          if (reason === 'input' || reason === 'clear') setText(typed)
        }}
        onChange={(_, entry) => {
          onClose()
          entry?.run()
        }}
        onClose={(_, reason) => {
          if (reason === 'escape') onClose()
        }}
        renderInput={(params) => <TextField {...params} label={t('palette.title')} autoFocus />}
        renderOption={({ key, ...props }, entry) => (
          <Box key={key} {...(props as object)}>
            <Box component="span" translate={entry.group === 'clients' ? 'no' : undefined} sx={{ flex: 1 }}>
              {entry.label}
            </Box>
            <Box
              component="span"
              sx={{ color: 'text.secondary', fontSize: '0.88rem', ml: 2, maxWidth: '55%' }}
            >
              {entry.more}
            </Box>
          </Box>
        )}
        renderGroup={({ key, group, children }) => (
          <div key={key} role="group" aria-label={group}>
            <Box
              aria-hidden
              sx={{ px: 2, pt: 1.5, color: 'text.secondary', fontWeight: 600, fontSize: '0.9rem' }}
            >
              {group}
            </Box>
            {children}
          </div>
        )}
        slotProps={{
          popper: {
            sx: { position: 'static !important', transform: 'none !important', width: '100% !important' },
          },
          paper: { sx: { border: 0, bgcolor: 'transparent' } },
          listbox: { component: 'div', sx: { maxHeight: '52vh' } },
        }}
      />
    </Dialog>
  )
}

import Button from '@mui/material/Button'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'
import FormControlLabel from '@mui/material/FormControlLabel'
import Switch from '@mui/material/Switch'
import Table from '@mui/material/Table'
import TableBody from '@mui/material/TableBody'
import TableCell from '@mui/material/TableCell'
import TableRow from '@mui/material/TableRow'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { keysOn, switchKeys, useEveryCommand, writtenKeys } from '../../common/commands'

/** The keys of where one is, from what is offered there. */
export function KeysDialog({ onClose }: { onClose: () => void }) {
  const { t } = useTranslation()
  const [on, setOn] = useState(keysOn)
  const commands = useEveryCommand().filter((command) => command.keys !== undefined)
  return (
    <Dialog open onClose={onClose} aria-labelledby="keys-title">
      <DialogTitle id="keys-title">{t('common.shortcuts')}</DialogTitle>
      <DialogContent>
        <Table size="small" aria-labelledby="keys-title">
          <TableBody>
            {commands.map((command) => (
              <TableRow key={`${command.name} ${command.keys?.join('') ?? ''}`}>
                <TableCell component="th" scope="row" sx={{ whiteSpace: 'nowrap' }}>
                  <kbd>{writtenKeys(command)}</kbd>
                </TableCell>
                <TableCell>{t(`commands.${command.name}`)}</TableCell>
              </TableRow>
            ))}
          </TableBody>
        </Table>
      </DialogContent>
      <DialogActions sx={{ px: 3 }}>
        <FormControlLabel
          control={<Switch checked={on} />}
          label={t('common.keysOn')}
          onChange={(_, checked) => {
            switchKeys(checked)
            setOn(checked)
          }}
          sx={{ mr: 'auto' }}
        />
        <Button variant="contained" onClick={onClose}>
          {t('common.close')}
        </Button>
      </DialogActions>
    </Dialog>
  )
}

import Button from '@mui/material/Button'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { shortcutsOn, switchShortcuts } from '../../common/shortcuts'

const KEYS = [
  ['?', '?'],
  ['/', '/'],
  ['[', '['],
  [']', ']'],
  ['l', 'l'],
  ['r', 'r'],
  ['0 – 9', 'digits'],
  ['space', 'space'],
] as const

export function KeysDialog({ open, onClose }: { open: boolean; onClose: () => void }) {
  const { t } = useTranslation()
  const [on, setOn] = useState(shortcutsOn)
  return (
    <Dialog open={open} onClose={onClose} aria-labelledby="keys-title">
      <DialogTitle id="keys-title">{t('common.shortcuts')}</DialogTitle>
      <DialogContent>
        <table>
          <tbody>
            {KEYS.map(([key, meaning]) => (
              <tr key={key}>
                <td style={{ padding: '4px 24px 4px 0' }}>
                  <kbd>{key}</kbd>
                </td>
                <td>{t(`keys.${meaning}`)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </DialogContent>
      <DialogActions>
        <Button
          onClick={() => {
            switchShortcuts(!on)
            setOn(!on)
          }}
        >
          {t(on ? 'common.shortcutsOff' : 'common.shortcutsOn')}
        </Button>
        <Button variant="contained" onClick={onClose}>
          {t('common.close')}
        </Button>
      </DialogActions>
    </Dialog>
  )
}

import Button from '@mui/material/Button'
import type { ReactNode } from 'react'
import type { Lane } from '../../api/client'

interface TouchProps {
  side: Lane
  on: boolean
  /** What it is called where its own words do not say enough. */
  label?: string
  onTouch: () => void
  children: ReactNode
}

/** Something that is said by one touch, in its lane's colour once it was. */
export function Touch({ side, on, label, onTouch, children }: TouchProps) {
  return (
    <Button
      variant={on ? 'contained' : 'outlined'}
      color={on ? side : 'primary'}
      aria-pressed={on}
      aria-label={label}
      onClick={onTouch}
      sx={{ minHeight: 44, minWidth: 44, px: 0.9, py: 0, fontSize: '0.95rem' }}
    >
      {children}
    </Button>
  )
}

import Box from '@mui/material/Box'
import type { ReactNode } from 'react'

/** For those who listen: there, and not seen. */
export function Hidden({ children }: { children: ReactNode }) {
  return (
    <Box component="span" sx={HIDDEN}>
      {children}
    </Box>
  )
}

export const HIDDEN = {
  position: 'absolute',
  width: '1px',
  height: '1px',
  overflow: 'hidden',
  clipPath: 'inset(50%)',
  whiteSpace: 'nowrap',
} as const

import { styled } from '@mui/material/styles'
import type { ReactNode } from 'react'

const Line = styled('div')(({ theme }) => ({
  display: 'grid',
  gridTemplateColumns: '1fr',
  marginTop: theme.spacing(0.6),
  fontSize: '0.92rem',
  lineHeight: 1.4,
  '& > :first-of-type': { color: theme.vars?.palette.text.secondary },
  [theme.breakpoints.up('sm')]: { gridTemplateColumns: '110px minmax(0, 1fr)', columnGap: 8 },
}))

/** One thing with what it is, beside it where there is room. */
export function Labelled({ label, children }: { label: string; children: ReactNode }) {
  return (
    <Line>
      <div>{label}</div>
      <div>{children}</div>
    </Line>
  )
}

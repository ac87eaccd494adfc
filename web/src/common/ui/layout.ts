import DialogContent from '@mui/material/DialogContent'
import { styled } from '@mui/material/styles'

interface RowProps {
  /** Room between its parts, in the theme's spacing; 1 when left out. */
  gap?: number
  /** Whether its parts may stand on several lines. */
  wrap?: boolean
  align?: 'center' | 'baseline' | 'flex-start' | 'stretch'
  justify?: 'center' | 'space-between'
}

/** Parts side by side. */
export const Row = styled('div', {
  shouldForwardProp: (name) => !['gap', 'wrap', 'align', 'justify'].includes(name as string),
})<RowProps>(({ theme, gap = 1, wrap = false, align = 'center', justify }) => ({
  display: 'flex',
  gap: theme.spacing(gap),
  alignItems: align,
  ...(wrap ? { flexWrap: 'wrap' } : {}),
  ...(justify === undefined ? {} : { justifyContent: justify }),
}))

/** What takes the room that is left in a row. */
export const Rest = styled('div')({ flex: 1, minWidth: 0 })

/**
 * Left beside right where there is room, or one lane for both. Left stands on the left in every language: it is the
 * client's side and no order of reading.
 */
export const Lanes = styled('div', { shouldForwardProp: (name) => name !== 'one' })<{ one?: boolean }>(
  ({ theme, one = false }) => ({
    display: 'grid',
    direction: 'ltr',
    gap: theme.spacing(1.75),
    gridTemplateColumns: 'minmax(0, 1fr)',
    ...(one
      ? {}
      : { [theme.breakpoints.up('md')]: { gridTemplateColumns: 'minmax(0, 1fr) minmax(0, 1fr)' } }),
  }),
)

/** Fields of a dialog beneath each other; the label of the first is not cut off. */
export const Fields = styled(DialogContent)(({ theme }) => ({
  display: 'grid',
  gap: theme.spacing(2),
  '.MuiDialogTitle-root + &': { paddingTop: 8 },
}))

import { createTheme } from '@mui/material/styles'
import { dim, theme } from '../../app/theme'

/** The dim room: the same components on a dark ground, with touch targets for one hand. */
export const dimTheme = createTheme(theme, {
  palette: {
    mode: 'dark',
    primary: { main: dim.ink, contrastText: dim.ground },
    background: { default: dim.ground, paper: dim.panel },
    text: { primary: dim.ink, secondary: dim.muted },
    divider: dim.line,
  },
  components: {
    MuiButton: { styleOverrides: { root: { minHeight: 46, fontSize: '1rem' } } },
    MuiOutlinedInput: {
      styleOverrides: { root: { backgroundColor: dim.panel }, notchedOutline: { borderColor: dim.line } },
    },
    MuiDialog: { styleOverrides: { paper: { border: `1px solid ${dim.line}` } } },
  },
})

import { createTheme } from '@mui/material/styles'

/** The colours of the application; the dim room's are for beside the mat. */
export const colours = {
  ground: '#FBF8F1',
  panel: '#F5F0E5',
  line: '#CFC5B0',
  ink: '#27343C',
  muted: '#5B6670',
  left: '#1E6F75',
  right: '#7B4B84',
  both: '#6B6150',
  accent: '#E0B070',
  note: '#EEE6D4',
} as const

export const dim = {
  ground: '#2B2825',
  panel: '#35312D',
  line: '#57514A',
  ink: '#EFE8DA',
  muted: '#B9B0A1',
  left: '#5FB7B4',
  right: '#C39BCB',
  both: '#C9BBA0',
  accent: '#E0B070',
} as const

export const serif = '"Fraunces Variable", Georgia, serif'
const sans = '"Atkinson Hyperlegible Next Variable", system-ui, sans-serif'

export const theme = createTheme({
  palette: {
    mode: 'light',
    primary: { main: colours.ink, contrastText: '#FBF8F1' },
    secondary: { main: colours.left },
    error: { main: '#8A3B2A' },
    warning: { main: '#8A6420' },
    info: { main: colours.muted },
    success: { main: colours.left },
    background: { default: colours.ground, paper: '#FDFBF6' },
    text: { primary: colours.ink, secondary: colours.muted },
    divider: colours.line,
  },
  shape: { borderRadius: 4 },
  typography: {
    fontFamily: sans,
    fontSize: 15,
    h1: { fontFamily: serif, fontSize: '1.7rem', fontWeight: 600 },
    h2: { fontFamily: serif, fontSize: '1.3rem', fontWeight: 600 },
    h3: { fontFamily: serif, fontSize: '1.08rem', fontWeight: 600 },
    button: { textTransform: 'none', fontWeight: 600 },
    overline: { letterSpacing: '0.06em', fontSize: '0.78rem', lineHeight: 1.5, fontWeight: 600 },
  },
  components: {
    MuiCssBaseline: {
      styleOverrides: {
        body: { fontVariantNumeric: 'tabular-nums' },
        'a:focus-visible, button:focus-visible, [tabindex]:focus-visible': {
          outline: `3px solid ${colours.accent}`,
          outlineOffset: 2,
        },
        '@media (prefers-reduced-motion: reduce)': {
          '*, *::before, *::after': { animation: 'none !important', transition: 'none !important' },
        },
      },
    },
    MuiButton: {
      defaultProps: { disableElevation: true, disableRipple: true },
      styleOverrides: { root: { minHeight: 38 } },
    },
    MuiButtonBase: {
      defaultProps: { disableRipple: true },
      styleOverrides: { root: { fontFamily: 'inherit', fontSize: 'inherit' } },
    },
    MuiTypography: {
      variants: [
        {
          props: { color: 'text.secondary' },
          style: ({ theme: t }) => ({ color: t.palette.text.secondary }),
        },
      ],
    },
    MuiPaper: { defaultProps: { elevation: 0 }, styleOverrides: { root: { backgroundImage: 'none' } } },
    MuiDialog: { styleOverrides: { paper: { border: `1px solid ${colours.line}` } } },
    MuiTextField: { defaultProps: { size: 'small' } },
    MuiOutlinedInput: {
      styleOverrides: {
        root: { backgroundColor: '#FFFDF8' },
        notchedOutline: { borderColor: '#A79D88' },
      },
    },
    MuiFormHelperText: { styleOverrides: { root: { marginLeft: 2, fontSize: '0.85rem' } } },
    MuiTooltip: {
      styleOverrides: {
        tooltip: { backgroundColor: colours.ink, fontSize: '0.85rem', maxWidth: 340 },
      },
    },
  },
})

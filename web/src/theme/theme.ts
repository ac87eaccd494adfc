import { createTheme } from '@mui/material/styles'
import type { Lane } from '../api/client'
import { figureColours } from '../figure/colours'
import { DAY, DIM, paletteOf } from './palette'

export const serif = '"Fraunces Variable", Georgia, serif'
const sans = '"Atkinson Hyperlegible Next Variable", system-ui, sans-serif'

/** Where the page says which light it is in. */
const LIGHT = 'data-light'

/** One theme for both lights: its colours are custom properties, and the page says which light it is in. */
export const theme = createTheme({
  cssVariables: { cssVarPrefix: 'asketa', colorSchemeSelector: LIGHT },
  colorSchemes: { light: { palette: paletteOf(DAY) }, dark: { palette: paletteOf(DIM) } },
  // Where there is room for what to mind beside a view.
  breakpoints: { values: { xs: 0, sm: 600, md: 900, mind: 1100, lg: 1200, xl: 1536 } },
  shape: { borderRadius: 4 },
  typography: {
    fontFamily: sans,
    fontSize: 15,
    h1: { fontFamily: serif, fontSize: '1.7rem', fontWeight: 600 },
    h2: { fontFamily: serif, fontSize: '1.3rem', fontWeight: 600 },
    h3: { fontFamily: serif, fontSize: '1.08rem', fontWeight: 600 },
    button: { textTransform: 'none', fontWeight: 600 },
    // What stands beside the thing itself, and what stands beneath it.
    note: { fontFamily: sans, fontSize: '0.92rem', lineHeight: 1.4 },
    small: { fontFamily: sans, fontSize: '0.84rem', lineHeight: 1.3 },
    overline: { letterSpacing: '0.06em', fontSize: '0.78rem', lineHeight: 1.5, fontWeight: 600 },
  },
  components: {
    MuiCssBaseline: {
      styleOverrides: ({ vars }) => ({
        ':root': {
          ...figureColours('day'),
          '--focus': vars.palette.text.primary,
        },
        [`[${LIGHT}="dark"]`]: figureColours('dim'),
        // The fields of dates and times, as all others.
        '.MuiPickersOutlinedInput-root': {
          backgroundColor: vars.palette.surface.fieldGround,
          '&:not(.Mui-focused, .Mui-error) .MuiPickersOutlinedInput-notchedOutline': {
            borderColor: vars.palette.surface.field,
          },
        },
        body: { fontVariantNumeric: 'tabular-nums' },
        a: { color: 'inherit' },
        [FOCUSED]: { outline: '3px solid var(--focus)', outlineOffset: 2 },
        '@media (prefers-reduced-motion: reduce)': {
          '*, *::before, *::after': { animation: 'none !important', transition: 'none !important' },
        },
      }),
    },
    MuiAppBar: {
      defaultProps: { position: 'static', elevation: 0, color: 'transparent' },
      styleOverrides: {
        root: ({ theme: { vars } }) => ({
          backgroundColor: vars.palette.surface.bar,
          color: vars.palette.surface.onBar,
          '--focus': vars.palette.surface.accent,
        }),
      },
    },
    MuiButton: {
      defaultProps: { disableElevation: true, disableRipple: true },
      styleOverrides: {
        root: { minHeight: 38 },
        // As large as a thumb.
        sizeLarge: { minHeight: 44, fontSize: 'inherit' },
        outlined: ({ theme: { vars } }) => ({
          '&.MuiButton-colorPrimary': { borderColor: vars.palette.surface.field },
        }),
      },
    },
    MuiButtonBase: {
      defaultProps: { disableRipple: true },
      styleOverrides: { root: { fontFamily: 'inherit', fontSize: 'inherit' } },
    },
    MuiTypography: {
      defaultProps: { variantMapping: { note: 'div', small: 'div' } },
      variants: [
        {
          props: ({ variant }) => variant === 'note' || variant === 'small',
          style: ({ theme: { vars } }) => ({ color: vars.palette.text.secondary }),
        },
        {
          props: { color: 'text.secondary' },
          style: ({ theme: { vars } }) => ({ color: vars.palette.text.secondary }),
        },
      ],
    },
    MuiPaper: { defaultProps: { elevation: 0 }, styleOverrides: { root: { backgroundImage: 'none' } } },
    MuiDialog: {
      styleOverrides: {
        paper: ({ theme: { vars } }) => ({
          border: `1px solid ${vars.palette.divider}`,
          borderTop: `5px solid ${vars.palette.text.primary}`,
        }),
      },
    },
    MuiDialogTitle: {
      styleOverrides: { root: { fontFamily: serif, fontWeight: 600, fontSize: '1.3rem' } },
    },
    MuiMenu: {
      styleOverrides: {
        paper: ({ theme: { vars } }) => ({ border: `1px solid ${vars.palette.divider}` }),
      },
    },
    MuiTextField: { defaultProps: { size: 'small' } },
    MuiOutlinedInput: {
      styleOverrides: {
        root: ({ theme: { vars } }) => ({
          backgroundColor: vars.palette.surface.fieldGround,
          '& .MuiOutlinedInput-notchedOutline': { borderColor: vars.palette.surface.field },
        }),
      },
    },
    MuiFormHelperText: { styleOverrides: { root: { marginLeft: 2, fontSize: '0.85rem' } } },
    MuiTab: {
      styleOverrides: {
        root: ({ theme: { vars } }) => ({
          textTransform: 'none',
          fontSize: '1rem',
          fontWeight: 600,
          minHeight: 48,
          color: vars.palette.text.secondary,
          '&.Mui-selected': { color: vars.palette.text.primary },
          '&:focus-visible': { outlineOffset: -3 },
        }),
      },
    },
    MuiTabs: { styleOverrides: { indicator: { height: 3 } } },
    MuiAlert: {
      defaultProps: { variant: 'outlined' },
      styleOverrides: { outlined: ({ theme: { vars } }) => ({ color: vars.palette.text.primary }) },
    },
    MuiToggleButton: {
      styleOverrides: {
        root: ({ theme: { vars } }) => ({
          textTransform: 'none',
          minHeight: 44,
          padding: '0 10px',
          borderColor: vars.palette.surface.field,
          color: vars.palette.text.secondary,
          '&.Mui-selected, &.Mui-selected:hover': {
            backgroundColor: vars.palette.text.primary,
            color: vars.palette.background.default,
          },
        }),
      },
    },
  },
})

/** Everything that can have the focus, however MUI marks it. */
const FOCUSED = [
  'a:focus-visible',
  'button:focus-visible',
  'summary:focus-visible',
  '[tabindex="0"]:focus-visible',
  '[role="combobox"]:focus-visible',
  'input[type="file"]:focus-visible',
  '.MuiButtonBase-root.Mui-focusVisible',
  '.MuiSwitch-switchBase.Mui-focusVisible + .MuiSwitch-track',
].join(', ')

/** The theme's colours as custom properties, which it was told to make. */
const vars = theme.vars as NonNullable<typeof theme.vars>

/** The colours of the application by what they are for, as they are in the light of the page. */
export const colours = {
  ...vars.palette.surface,
  ground: vars.palette.background.default,
  paper: vars.palette.background.paper,
  line: vars.palette.divider,
  ink: vars.palette.text.primary,
  muted: vars.palette.text.secondary,
}

/** A sheet of paper, in whatever light it is looked at. */
export const SHEET = { ground: '#FFFFFF', ink: '#111111', line: '#BBBBBB' } as const

/** The colour of a lane. */
export function laneColour(lane: Lane): string {
  return vars.palette[lane].main
}

/** Hatching of what is closed, with `gap` pixels between its lines. */
export function hatching(gap: number): string {
  return `repeating-linear-gradient(-45deg, transparent 0 ${gap.toString()}px, ${colours.hatch} ${gap.toString()}px ${(gap + 1).toString()}px)`
}

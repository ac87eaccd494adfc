import type { CSSProperties } from 'react'
import type { PaletteColor, PaletteColorOptions, PaletteOptions } from '@mui/material/styles'

/** What the ground and the panels on it are filled with, besides MUI's own. */
interface Surfaces {
  panel: string
  /** What is to be noticed: where a side stands, the next change. */
  note: string
  /** A ruler's ground, and the span of error on it. */
  track: string
  span: string
  hatch: string
  /** Lines of fields and buttons; 3:1 on every surface. */
  field: string
  fieldGround: string
  /** The bar above everything, and what is quiet on it. */
  bar: string
  onBar: string
  quietOnBar: string
  accent: string
  /** Words that ask to be minded. */
  mind: string
}

declare module '@mui/material/styles' {
  interface Palette {
    left: PaletteColor
    right: PaletteColor
    both: PaletteColor
    surface: Surfaces
  }
  interface BreakpointOverrides {
    mind: true
  }
  interface PaletteOptions {
    left: PaletteColorOptions
    right: PaletteColorOptions
    both: PaletteColorOptions
    surface: Surfaces
  }
}
declare module '@mui/material/styles' {
  interface TypographyVariants {
    note: CSSProperties
    small: CSSProperties
  }
  interface TypographyVariantsOptions {
    note: CSSProperties
    small: CSSProperties
  }
}
declare module '@mui/material/Typography' {
  interface TypographyPropsVariantOverrides {
    note: true
    small: true
  }
}
declare module '@mui/material/Button' {
  interface ButtonPropsColorOverrides {
    left: true
    right: true
    both: true
  }
}

interface Roles extends Surfaces {
  ground: string
  paper: string
  line: string
  ink: string
  muted: string
  left: string
  right: string
  both: string
  error: string
  /** What filled buttons turn to under the pointer, by what they are filled with. */
  hovered: Record<'ink' | 'left' | 'right' | 'both' | 'error', string>
  disabled: string
  disabledGround: string
}

export const DAY: Roles = {
  ground: '#FBF8F1',
  paper: '#FDFBF6',
  panel: '#F5F0E5',
  note: '#EEE6D4',
  line: '#CFC5B0',
  track: '#F1EADB',
  span: '#DDD2B8',
  hatch: '#E4DBC6',
  field: '#857B65',
  fieldGround: '#FFFDF8',
  bar: '#27343C',
  onBar: '#FBF8F1',
  quietOnBar: '#D9D2C3',
  accent: '#E0B070',
  mind: '#7A5712',
  ink: '#27343C',
  muted: '#5B6670',
  left: '#1E6F75',
  right: '#7B4B84',
  both: '#6B6150',
  error: '#8A3B2A',
  hovered: { ink: '#3A4B56', left: '#16575C', right: '#64396C', both: '#544C3E', error: '#702F21' },
  disabled: '#6F777D',
  disabledGround: '#E6DECD',
}

export const DIM: Roles = {
  ground: '#2B2825',
  paper: '#302C29',
  panel: '#35312D',
  note: '#403A33',
  line: '#57514A',
  track: '#3A3530',
  span: '#595147',
  hatch: '#4A443D',
  field: '#9A9184',
  fieldGround: '#35312D',
  bar: '#1F1C1A',
  onBar: '#EFE8DA',
  quietOnBar: '#B9B0A1',
  accent: '#E0B070',
  mind: '#E0B070',
  ink: '#EFE8DA',
  muted: '#B9B0A1',
  left: '#5FB7B4',
  right: '#C39BCB',
  both: '#C9BBA0',
  error: '#E39A84',
  hovered: { ink: '#D6CCBA', left: '#7CC8C5', right: '#D0AFD7', both: '#DACDB4', error: '#EDB5A4' },
  disabled: '#A0978A',
  disabledGround: '#403A33',
}

/** A light's colours as MUI's palette. */
export function paletteOf(roles: Roles): PaletteOptions {
  const { ground, paper, line, ink, muted, left, right, both, error, hovered, disabled, disabledGround } =
    roles
  const filled = (main: string, dark: string) => ({ main, dark, light: main, contrastText: ground })
  return {
    primary: filled(ink, hovered.ink),
    secondary: filled(left, hovered.left),
    left: filled(left, hovered.left),
    right: filled(right, hovered.right),
    both: filled(both, hovered.both),
    error: filled(error, hovered.error),
    warning: filled(roles.mind, roles.mind),
    info: filled(muted, ink),
    success: filled(left, hovered.left),
    background: { default: ground, paper },
    text: { primary: ink, secondary: muted, disabled },
    divider: line,
    action: { active: ink, disabled, disabledBackground: disabledGround },
    surface: surfacesOf(roles),
  }
}

function surfacesOf(roles: Roles): Surfaces {
  const { panel, note, track, span, hatch, field, fieldGround, bar, onBar, quietOnBar, accent, mind } = roles
  return { panel, note, track, span, hatch, field, fieldGround, bar, onBar, quietOnBar, accent, mind }
}

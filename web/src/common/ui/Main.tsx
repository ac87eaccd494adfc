import Box, { type BoxProps } from '@mui/material/Box'

/** Where the skip link leads. */
export const MAIN = 'main'

/** The one main part of a page. */
export function Main(props: Omit<BoxProps<'main'>, 'component' | 'id'>) {
  return <Box component="main" id={MAIN} tabIndex={-1} {...props} />
}

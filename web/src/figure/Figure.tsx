import Box from '@mui/material/Box'

/**
 * A computed figure. The drawing is made by the server from the same posture as the numbers and carries
 * its own text description; colours follow the page through custom properties.
 */
export function Figure({
  svg,
  height,
  faded = false,
  decorative = false,
}: {
  svg: string
  height: number | string
  faded?: boolean
  /** Whether what it stands in says what it shows. */
  decorative?: boolean
}) {
  return (
    <Box
      aria-hidden={decorative || undefined}
      sx={{ height, opacity: faded ? 0.34 : 1, '& svg': { height: '100%', width: '100%', display: 'block' } }}
      dangerouslySetInnerHTML={{ __html: svg }}
    />
  )
}

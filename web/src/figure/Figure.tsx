import Box from '@mui/material/Box'
import { memo } from 'react'

/** Less high than this, px, a figure's numbers cannot be read. */
const READABLE = 200

/**
 * A computed figure. The drawing is made by the server from the same posture as the numbers and carries
 * its own text description; colours follow the page through custom properties.
 */
export const Figure = memo(function Figure({
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
      sx={{
        height,
        opacity: faded ? 0.34 : 1,
        '& svg': { height: '100%', width: '100%', display: 'block' },
        // Too small to be read, its numbers would only be in the way.
        ...(typeof height === 'number' && height < READABLE ? { '& text': { display: 'none' } } : {}),
      }}
      dangerouslySetInnerHTML={{ __html: svg }}
    />
  )
})

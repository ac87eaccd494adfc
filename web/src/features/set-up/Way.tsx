import Typography from '@mui/material/Typography'
import Box from '@mui/material/Box'
import { useEffect, useState } from 'react'
import type { Schemas } from '../../api/client'
import { Figure } from '../../figure/Figure'
import { useWay } from './queries'

/** As long as the supports are still being stepped through nothing is asked for. */
const SETTLED_MS = 500
const HEIGHT = 112

interface Props {
  rung: Schemas['SetupOut']
  setup: Record<string, Schemas['SlotValue']>
}

/** How one gets into the set-up and out of it: figures in a row, to one scale. */
export function Way({ rung, setup }: Props) {
  const settled = useSettled(setup)
  const way = useWay(rung.variation, rung.side, settled)
  return (
    <Box
      component="ol"
      sx={{ display: 'flex', gap: 1, m: 0, mt: 0.5, p: 0, listStyle: 'none', minHeight: HEIGHT + 34 }}
    >
      {way.data?.map((moment) => (
        <Box component="li" key={moment.words} sx={{ flex: 1, minWidth: 0, textAlign: 'center' }}>
          <Figure svg={moment.figure} height={HEIGHT} />
          <Typography variant="small">{moment.words}</Typography>
        </Box>
      ))}
    </Box>
  )
}

/** A value once it has stood still for a moment. */
function useSettled<T>(value: T): T {
  const [settled, setSettled] = useState(value)
  const key = JSON.stringify(value)
  useEffect(() => {
    const timer = setTimeout(() => {
      setSettled(JSON.parse(key) as T)
    }, SETTLED_MS)
    return () => {
      clearTimeout(timer)
    }
  }, [key])
  return settled
}

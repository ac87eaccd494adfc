import { useEffect, useState } from 'react'

const TICK_MS = 250

/** The time while a clock runs, ms; and how to look at it at once. */
export function useNow(running: boolean): [number, (at: number) => void] {
  const [now, setNow] = useState(() => Date.now())
  useEffect(() => {
    if (!running) return
    const tick = setInterval(() => {
      setNow(Date.now())
    }, TICK_MS)
    return () => {
      clearInterval(tick)
    }
  }, [running])
  return [now, setNow]
}

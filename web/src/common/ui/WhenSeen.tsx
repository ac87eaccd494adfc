import Box from '@mui/material/Box'
import { type ReactNode, useEffect, useRef } from 'react'

/** How far ahead of the screen something counts as seen. */
const AHEAD = '700px'

/** Says once that it came near the screen, so that what it stands for can be asked for then. */
export function WhenSeen({ onSeen, children }: { onSeen: () => void; children: ReactNode }) {
  const box = useRef<HTMLDivElement>(null)
  const told = useRef(onSeen)
  useEffect(() => {
    told.current = onSeen
  })
  useEffect(() => {
    if (box.current === null) return
    const observer = new IntersectionObserver(
      (entries) => {
        if (!entries.some((entry) => entry.isIntersecting)) return
        observer.disconnect()
        told.current()
      },
      { rootMargin: AHEAD },
    )
    observer.observe(box.current)
    return () => {
      observer.disconnect()
    }
  }, [])
  return <Box ref={box}>{children}</Box>
}

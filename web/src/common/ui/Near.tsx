import { type ReactNode, useEffect, useRef, useState } from 'react'

/** How far beyond the screen something is still drawn. */
const BEYOND = '160px'

/** Draws what stands near the screen only, and keeps the room of what does not: a page of many drawings stays light.
 * What has the focus stays. */
export function Near({ height, children }: { height: number; children: ReactNode }) {
  const box = useRef<HTMLDivElement>(null)
  const known = useRef(height)
  const [room, setRoom] = useState<number | null>(null)
  useEffect(() => {
    const element = box.current
    if (element === null) return
    const observer = new IntersectionObserver(
      (entries) => {
        const near = entries.at(-1)?.isIntersecting ?? true
        if (near) {
          setRoom(null)
        } else if (!element.contains(document.activeElement)) {
          known.current = element.offsetHeight || known.current
          setRoom(known.current)
        }
      },
      { rootMargin: BEYOND },
    )
    observer.observe(element)
    return () => {
      observer.disconnect()
    }
  }, [])
  return (
    <div ref={box} style={room === null ? undefined : { height: room }}>
      {room === null && children}
    </div>
  )
}

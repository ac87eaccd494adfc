import { type RefObject, useLayoutEffect, useRef, useState } from 'react'

/** An element and how wide it is, px; `first` until it was measured. */
export function useWidth<Of extends HTMLElement>(first: number): [RefObject<Of | null>, number] {
  const element = useRef<Of>(null)
  const [width, setWidth] = useState(first)
  useLayoutEffect(() => {
    const measured = element.current
    if (measured === null) return
    const measure = () => {
      if (measured.clientWidth > 0) setWidth(measured.clientWidth)
    }
    measure()
    const observer = new ResizeObserver(measure)
    observer.observe(measured)
    return () => {
      observer.disconnect()
    }
  }, [])
  return [element, width]
}

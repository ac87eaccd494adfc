import { useCallback, useEffect, useRef } from 'react'

/** A function that stays the same and does what the latest one does: what is given it need not be drawn anew. */
export function useLatest<Args extends unknown[]>(act: (...args: Args) => void): (...args: Args) => void {
  const latest = useRef(act)
  useEffect(() => {
    latest.current = act
  })
  return useCallback((...args: Args) => {
    latest.current(...args)
  }, [])
}

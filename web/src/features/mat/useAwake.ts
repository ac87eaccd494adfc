import { useEffect } from 'react'

/** Keeps the screen from going dark while one works beside the mat, where the device can. */
export function useAwake(): void {
  useEffect(() => {
    if (!('wakeLock' in navigator)) return
    let lock: WakeLockSentinel | null = null
    let over = false
    const ask = () => {
      if (document.visibilityState !== 'visible') return
      navigator.wakeLock.request('screen').then(
        (found) => {
          if (over) void found.release()
          else lock = found
        },
        () => {
          // Refused on low power: the screen goes dark as it would.
        },
      )
    }
    ask()
    // A hidden page loses it.
    document.addEventListener('visibilitychange', ask)
    return () => {
      over = true
      document.removeEventListener('visibilitychange', ask)
      void lock?.release()
    }
  }, [])
}

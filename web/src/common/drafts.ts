import { useEffect, useState } from 'react'

const PREFIX = 'asketa-draft:'

/**
 * State that survives moving away and coming back within this browser tab. Drafts hold what was typed
 * and not yet stored; signing out forgets them.
 */
export function useDraft<T>(key: string, initial: T): [T, (next: T) => void, () => void] {
  const [value, setValue] = useState<T>(() => read(key) ?? initial)
  useEffect(() => {
    sessionStorage.setItem(PREFIX + key, JSON.stringify(value))
  }, [key, value])
  const clear = () => {
    sessionStorage.removeItem(PREFIX + key)
    setValue(initial)
  }
  return [value, setValue, clear]
}

function read<T>(key: string): T | undefined {
  const stored = sessionStorage.getItem(PREFIX + key)
  return stored === null ? undefined : (JSON.parse(stored) as T)
}

export function forgetDrafts(): void {
  for (const key of Object.keys(sessionStorage)) if (key.startsWith(PREFIX)) sessionStorage.removeItem(key)
}

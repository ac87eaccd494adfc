import { useCallback, useSyncExternalStore } from 'react'

const PREFIX = 'asketa-draft:'

/** What is stored under each key, read once: a value keeps its identity until it is set anew. */
const values = new Map<string, unknown>()
const listeners = new Set<() => void>()

/**
 * State that survives moving away, a reload and signing in again within this browser tab. Drafts hold
 * what was typed or chosen and not yet stored; signing out forgets them. A changed key shows that key's
 * own draft.
 */
export function useDraft<T>(key: string, initial: T): [T, (next: T) => void, () => void] {
  const stored = useSyncExternalStore(subscribe, () => read(key)) as T | undefined
  const set = useCallback(
    (next: T) => {
      values.set(key, next)
      sessionStorage.setItem(PREFIX + key, JSON.stringify(next))
      tell()
    },
    [key],
  )
  const clear = useCallback(() => {
    values.set(key, undefined)
    sessionStorage.removeItem(PREFIX + key)
    tell()
  }, [key])
  return [stored ?? initial, set, clear]
}

function subscribe(listener: () => void): () => void {
  listeners.add(listener)
  return () => {
    listeners.delete(listener)
  }
}

function tell(): void {
  for (const listener of listeners) listener()
}

function read(key: string): unknown {
  if (!values.has(key)) values.set(key, parsed(sessionStorage.getItem(PREFIX + key)))
  return values.get(key)
}

/** A draft another version of the application wrote may be anything: what cannot be read is no draft. */
function parsed(stored: string | null): unknown {
  if (stored === null) return undefined
  try {
    return JSON.parse(stored) as unknown
  } catch {
    return undefined
  }
}

export function forgetDrafts(): void {
  for (const key of Object.keys(sessionStorage)) if (key.startsWith(PREFIX)) sessionStorage.removeItem(key)
  values.clear()
  tell()
}

import { useCallback, useSyncExternalStore } from 'react'

const PREFIX = 'asketa-draft:'
/** What nobody came back to for so long is forgotten: it is about people's health. */
const KEPT_MS = 24 * 3600 * 1000

/** Text somebody typed, or only what was picked out on a screen: losing the one is worth a question. */
export type Kind = 'typed' | 'picked'

interface Kept {
  kind: Kind
  /** When it was last changed, in milliseconds. */
  at: number
  value: unknown
}

/** What is stored under each key, read once: a value keeps its identity until it is set anew. */
const values = new Map<string, Kept | undefined>()
const listeners = new Set<() => void>()

export interface Draft<T> {
  value: T
  set: (next: T) => void
  clear: () => void
  /** When what is kept was last changed; nothing kept has no time. */
  since: number | undefined
}

/**
 * State that survives moving away, a reload and signing in again, in this tab and in every other of this browser.
 * Drafts hold what was typed or picked and not yet stored; signing out forgets them, and so does a day. A changed key
 * shows that key's own draft.
 */
export function useKeptDraft<T>(key: string, initial: T, kind: Kind = 'typed'): Draft<T> {
  const kept = useSyncExternalStore(subscribe, () => read(key))
  const set = useCallback(
    (value: T) => {
      write(key, { kind, at: Date.now(), value })
    },
    [key, kind],
  )
  const clear = useCallback(() => {
    write(key, undefined)
  }, [key])
  return { value: kept === undefined ? initial : (kept.value as T), set, clear, since: kept?.at }
}

/**
 * State kept like a draft that is led on by events: `after` is a pure function of what was and what happened. The
 * second of the pair keeps its identity as long as key, functions and `initial` do.
 */
export function useKeptSteps<State, Event>(
  key: string,
  after: (state: State, event: Event) => State,
  initial: State,
  kindOf: (state: State) => Kind = picked,
): [State, (event: Event) => void] {
  const { value } = useKeptDraft(key, initial)
  const step = useCallback(
    (event: Event) => {
      // What is kept now, not what was rendered last: two events may come between two renders.
      const kept = read(key)
      const value = after(kept === undefined ? initial : (kept.value as State), event)
      write(key, { kind: kindOf(value), at: Date.now(), value })
    },
    [key, after, initial, kindOf],
  )
  return [value, step]
}

const picked = (): Kind => 'picked'

/** The same as a tuple, for what is picked rather than typed. */
export function usePicked<T>(key: string, initial: T): [T, (next: T) => void] {
  const { value, set } = useKeptDraft(key, initial, 'picked')
  return [value, set]
}

function write(key: string, kept: Kept | undefined): void {
  values.set(key, kept)
  if (kept === undefined) localStorage.removeItem(PREFIX + key)
  else localStorage.setItem(PREFIX + key, JSON.stringify(kept))
  tell()
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

function read(key: string): Kept | undefined {
  if (!values.has(key)) values.set(key, parsed(localStorage.getItem(PREFIX + key)))
  return values.get(key)
}

/** A draft another version of the application wrote may be anything: what cannot be read is no draft. */
function parsed(stored: string | null): Kept | undefined {
  if (stored === null) return undefined
  try {
    const kept = JSON.parse(stored) as Partial<Kept> | null
    const known = typeof kept?.at === 'number' && (kept.kind === 'typed' || kept.kind === 'picked')
    return known && Date.now() - (kept.at ?? 0) < KEPT_MS ? (kept as Kept) : undefined
  } catch {
    return undefined
  }
}

const keys = () => Object.keys(localStorage).filter((key) => key.startsWith(PREFIX))

/** How many drafts hold text that is stored nowhere else. */
export function typedDrafts(): number {
  return keys().filter((key) => read(key.slice(PREFIX.length))?.kind === 'typed').length
}

export function forgetDrafts(): void {
  for (const key of keys()) localStorage.removeItem(key)
  values.clear()
  tell()
}

// What another tab kept or forgot is the same here; what is too old is removed at the start.
window.addEventListener('storage', ({ key }) => {
  if (key === null) values.clear()
  else if (key.startsWith(PREFIX)) values.delete(key.slice(PREFIX.length))
  else return
  tell()
})
for (const key of keys()) if (parsed(localStorage.getItem(key)) === undefined) localStorage.removeItem(key)

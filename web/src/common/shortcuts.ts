import { useEffect } from 'react'

const SWITCH = 'asketa-keys-off'

/** One key and what it does. `key` is compared with `KeyboardEvent.key`. */
export interface Shortcut {
  key: string
  run: () => void
}

export function shortcutsOn(): boolean {
  return localStorage.getItem(SWITCH) !== 'yes'
}

export function switchShortcuts(on: boolean): void {
  if (on) localStorage.removeItem(SWITCH)
  else localStorage.setItem(SWITCH, 'yes')
}

function typing(target: EventTarget | null): boolean {
  return target instanceof HTMLElement && /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName)
}

/** Keys of a screen while it is shown; quiet while somebody types or a dialog is open. */
export function useShortcuts(shortcuts: Shortcut[]): void {
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (!shortcutsOn() || event.ctrlKey || event.metaKey || event.altKey || typing(event.target)) return
      if (document.querySelector('[role="dialog"]') !== null && event.key !== '?') return
      const found = shortcuts.find((shortcut) => shortcut.key === event.key)
      if (found === undefined) return
      event.preventDefault()
      found.run()
    }
    window.addEventListener('keydown', onKey)
    return () => {
      window.removeEventListener('keydown', onKey)
    }
  }, [shortcuts])
}

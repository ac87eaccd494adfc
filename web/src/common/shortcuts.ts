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

const TYPING =
  'input, textarea, select, [contenteditable], [role="combobox"], [role="listbox"], [role="menu"]'
/** What a browser presses with Space or Enter while it has the focus. */
const PRESSED = 'button, a[href], summary, [role="button"], [role="radio"], [role="tab"]'

/** Whether a key belongs to what has the focus and not to the screen. */
function takenByFocus(target: EventTarget | null, key: string): boolean {
  if (!(target instanceof Element)) return false
  if (target.closest(TYPING) !== null) return true
  return (key === ' ' || key === 'Enter') && target.closest(PRESSED) !== null
}

/** Keys of a screen while it is shown; quiet while somebody types or a dialog is open. */
export function useShortcuts(shortcuts: Shortcut[]): void {
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (!shortcutsOn() || event.ctrlKey || event.metaKey || event.altKey) return
      if (takenByFocus(event.target, event.key)) return
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

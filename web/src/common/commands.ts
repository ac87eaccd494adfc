import { useEffect, useId, useSyncExternalStore } from 'react'
import { useHotkeys } from 'react-hotkeys-hook'
import { useTranslation } from 'react-i18next'
import type { en } from './i18n/en'

/** What can be done, by the name its words stand under in the catalogue. */
export type CommandName = keyof typeof en.commands

/** Something a screen offers while it is shown. */
export interface Command {
  name: CommandName
  /** What `KeyboardEvent.key` says when it is pressed. */
  keys?: readonly string[]
  /** How the keys are written where they are told, if not as they are. */
  keysAs?: string
  run: (key: string) => void
}

const offered = new Map<string, readonly Command[]>()
const listeners = new Set<() => void>()
let all: readonly Command[] = []

function tell(): void {
  all = [...offered.values()].flat()
  for (const listener of listeners) listener()
}

function subscribe(listener: () => void): () => void {
  listeners.add(listener)
  return () => {
    listeners.delete(listener)
  }
}

/** Offers commands while the component is shown: to keys, to the list of keys, to hints and to the palette. */
export function useCommands(commands: readonly Command[]): void {
  const id = useId()
  useEffect(() => {
    offered.set(id, commands)
    tell()
    return () => {
      offered.delete(id)
      tell()
    }
  }, [id, commands])
}

/** Everything that can be done where one is; what came last comes first. */
export function useEveryCommand(): readonly Command[] {
  return useSyncExternalStore(subscribe, () => all)
}

/** How a command's keys are told, `undefined` while it is not offered or keys are off. */
export function useKeysOf(name: CommandName): string | undefined {
  const found = useEveryCommand().find((command) => command.name === name)
  return keysOn() && found !== undefined ? writtenKeys(found) : undefined
}

export function writtenKeys({ keys, keysAs }: Command): string | undefined {
  return keysAs ?? keys?.join(' ')
}

/** A command's words with its keys, as a hint beside what does the same. */
export function useHint(name: CommandName): string {
  const { t } = useTranslation()
  const keys = useKeysOf(name)
  return keys === undefined ? t(`commands.${name}`) : `${t(`commands.${name}`)} (${keys})`
}

const OFF = 'asketa-keys-off'

export function keysOn(): boolean {
  return localStorage.getItem(OFF) !== 'yes'
}

export function switchKeys(on: boolean): void {
  if (on) localStorage.removeItem(OFF)
  else localStorage.setItem(OFF, 'yes')
  tell()
}

const TYPING =
  'input:not([type="radio"], [type="checkbox"]), textarea, select, [contenteditable], [role="combobox"], [role="listbox"], [role="menu"], [role="grid"]'
/** What a browser presses with Space or Enter while it has the focus. */
const PRESSED = 'button, a[href], summary, input, [role="button"], [role="radio"], [role="tab"]'

/** Whether a key belongs to what has the focus and not to the screen. */
function takenByFocus(target: EventTarget | null, key: string): boolean {
  if (!(target instanceof Element)) return false
  if (target.closest(TYPING) !== null) return true
  return (key === ' ' || key === 'Enter') && target.closest(PRESSED) !== null
}

/** Runs what a key stands for; quiet while somebody types or a dialog is open. To be used once. */
export function useKeys(): void {
  useHotkeys(
    '*',
    (event) => {
      const found = all.findLast((command) => command.keys?.includes(event.key))
      if (found === undefined) return
      event.preventDefault()
      found.run(event.key)
    },
    {
      enableOnFormTags: true,
      ignoreEventWhen: (event) =>
        !keysOn() ||
        event.ctrlKey ||
        event.metaKey ||
        event.altKey ||
        takenByFocus(event.target, event.key) ||
        (document.querySelector('[role="dialog"]') !== null && event.key !== '?'),
    },
  )
}

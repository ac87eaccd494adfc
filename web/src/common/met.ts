import { useState } from 'react'

/** Words of ours that want explaining, in the order they are met. */
export const OWN_WORDS = [
  'ladder',
  'rung',
  'setup',
  'clear',
  'with_setup',
  'with_eye',
  'check_first',
  'leave_out',
  'purpose',
  'margin',
  'step_back',
  'calm',
  'watch',
  'flare',
  'pending',
  'both_ways',
] as const
export type OwnWord = (typeof OWN_WORDS)[number]

const KEY = 'asketa:met'

function met(): string[] {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(KEY) ?? '[]')
    return Array.isArray(kept) ? kept.filter((each) => typeof each === 'string') : []
  } catch {
    return []
  }
}

/** Those of some words that nobody was told of on this device, and how to say that they are known now. */
export function useUnmet(words: readonly OwnWord[]): [OwnWord[], () => void] {
  const [unmet, setUnmet] = useState(() => words.filter((each) => !met().includes(each)))
  return [
    unmet,
    () => {
      localStorage.setItem(KEY, JSON.stringify([...new Set([...met(), ...words])]))
      setUnmet([])
    },
  ]
}

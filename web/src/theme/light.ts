import { useColorScheme } from '@mui/material/styles'
import { useEffect, useSyncExternalStore } from 'react'

/** What a screen is looked at in; `device` follows the device. */
export const LIGHTS = ['day', 'dim', 'device'] as const
export type Light = (typeof LIGHTS)[number]

/** A desk and a mat each have their own light: beside the mat the room is dim unless somebody says otherwise. */
export type Place = 'desk' | 'mat'

const UNTIL_CHOSEN: Record<Place, Light> = { desk: 'device', mat: 'dim' }
const MODE = { day: 'light', dim: 'dark', device: 'system' } as const
const CHOSEN = 'asketa:light-chosen'

const keyOf = (place: Place) => `asketa:light:${place}`

function isLight(value: string | null): value is Light {
  return LIGHTS.some((each) => each === value)
}

function keptLight(place: Place): Light {
  const kept = localStorage.getItem(keyOf(place))
  return isLight(kept) ? kept : UNTIL_CHOSEN[place]
}

/** The mode MUI begins with, so that nothing flashes up in another light. */
export function modeAtStart(): (typeof MODE)[Light] {
  return MODE[keptLight(window.location.pathname.endsWith('/mat') ? 'mat' : 'desk')]
}

export function chooseLight(place: Place, light: Light): void {
  localStorage.setItem(keyOf(place), light)
  window.dispatchEvent(new Event(CHOSEN))
}

function subscribe(listener: () => void): () => void {
  window.addEventListener(CHOSEN, listener)
  // Another tab chose.
  window.addEventListener('storage', listener)
  return () => {
    window.removeEventListener(CHOSEN, listener)
    window.removeEventListener('storage', listener)
  }
}

/** The light somebody chose for a place on this device. */
export function useKeptLight(place: Place): Light {
  return useSyncExternalStore(subscribe, () => keptLight(place))
}

/** Puts the page into the light of a place while it is shown. */
export function useLightOf(place: Place): void {
  const { setMode } = useColorScheme()
  const light = useKeptLight(place)
  useEffect(() => {
    setMode(MODE[light])
  }, [setMode, light])
}

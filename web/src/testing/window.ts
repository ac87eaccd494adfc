import { vi } from 'vitest'

/** The width of a desk's window, px. */
export const DESK = 1280

/** From here to the end of the test the window is so wide, px. */
export function asWideAs(px: number): void {
  vi.stubGlobal('matchMedia', (query: string) => ({
    matches: Number(/min-width:\s*([\d.]+)/.exec(query)?.[1] ?? Infinity) <= px,
    media: query,
    addListener: () => undefined,
    removeListener: () => undefined,
    addEventListener: () => undefined,
    removeEventListener: () => undefined,
  }))
}

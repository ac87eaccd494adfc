import { cleanup, configure } from '@testing-library/react'
import { afterEach, vi } from 'vitest'
import { forgetDrafts } from '../common/drafts'
import '../common/i18n'
import '../common/i18n/views'

configure({
  asyncUtilTimeout: 8000,
  getElementError: (message) => new Error((message ?? '').split('\n\n')[0]),
})

/** As wide as a desk. */
const WIDTH = 1280

// What a browser has and the page of the tests has not.
vi.stubGlobal('matchMedia', (query: string) => ({
  matches: Number(/min-width:\s*([\d.]+)/.exec(query)?.[1] ?? Infinity) <= WIDTH,
  media: query,
  addListener: () => undefined,
  removeListener: () => undefined,
  addEventListener: () => undefined,
  removeEventListener: () => undefined,
}))
vi.stubGlobal(
  'IntersectionObserver',
  class {
    constructor(private readonly told: (entries: { isIntersecting: boolean }[]) => void) {}
    observe() {
      this.told([{ isIntersecting: true }])
    }
    disconnect() {
      return undefined
    }
  },
)
vi.stubGlobal(
  'ResizeObserver',
  class {
    observe = () => undefined
    unobserve = () => undefined
    disconnect = () => undefined
  },
)

HTMLCanvasElement.prototype.getContext = () => null

afterEach(() => {
  cleanup()
  forgetDrafts()
  localStorage.clear()
})

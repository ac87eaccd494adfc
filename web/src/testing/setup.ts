import { cleanup, configure } from '@testing-library/react'
import { afterEach, vi } from 'vitest'
import { forgetDrafts } from '../common/drafts'
import '../common/i18n'
import '../common/i18n/views'
import { asWideAs, DESK } from './window'

configure({
  asyncUtilTimeout: 30_000,
  getElementError: (message) => new Error((message ?? '').split('\n\n')[0]),
})

// What a browser has and the page of the tests has not.
asWideAs(DESK)
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
  asWideAs(DESK)
  forgetDrafts()
  localStorage.clear()
})

import { cleanup } from '@testing-library/react'
import { afterEach } from 'vitest'
import '../common/i18n'
import '../common/i18n/views'

afterEach(() => {
  cleanup()
  localStorage.clear()
})

import { act, renderHook } from '@testing-library/react'
import { beforeEach, describe, expect, it } from 'vitest'
import { useUnmet } from './met'

const unmet = (...words: Parameters<typeof useUnmet>[0]) => renderHook(() => useUnmet(words)).result

describe('words of ours', () => {
  beforeEach(() => {
    localStorage.clear()
  })

  it('are told once on a device', () => {
    const first = unmet('ladder', 'rung')
    expect(first.current[0]).toEqual(['ladder', 'rung'])
    act(() => {
      first.current[1]()
    })
    expect(first.current[0]).toEqual([])
    expect(unmet('rung', 'flare').current[0]).toEqual(['flare'])
  })

  it('are told again where what was kept cannot be read', () => {
    for (const kept of ['{', '{"a": 1}', '[1, null]']) {
      localStorage.setItem('asketa:met', kept)
      expect(unmet('ladder').current[0]).toEqual(['ladder'])
    }
  })
})

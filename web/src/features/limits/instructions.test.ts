import { describe, expect, it } from 'vitest'
import type { Schemas } from '../../api/client'
import { figuresFrom, keyOf, typedIn, unreadableFigures } from './instructions'

const figure = (unit: string, value: number): Schemas['FigureOut'] => ({
  rule: 'knee.share', readout: 'kneecap_share', words: '', above: true, value, unit, severity: 'stop', said_by: '',
}) as never // prettier-ignore

describe('figures of a professional', () => {
  it('are typed in the unit they are read in, and sent in the rule’s own', () => {
    const share = figure('share', 0.3)
    expect(typedIn(share)).toBe('percent')
    expect(figuresFrom([share], { [keyOf(share)]: '25' })).toEqual([
      { rule: 'knee.share', readout: 'kneecap_share', value: 0.25 },
    ])
  })

  it('leave out what was not spoken of, and never guess at what is no number', () => {
    const angle = figure('deg', 90)
    expect(figuresFrom([angle], {})).toEqual([])
    expect(unreadableFigures([angle], { [keyOf(angle)]: 'deep' })).toEqual([angle])
  })
})

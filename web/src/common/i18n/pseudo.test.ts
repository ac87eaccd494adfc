import { describe, expect, it } from 'vitest'
import { en } from './en'
import { disguised, disguisedAll } from './pseudo'

describe('the pseudo-language', () => {
  it('leaves no plain letter but in what is filled in', () => {
    expect(disguised('{{count}} holds of <b>{{name}}</b>, 5 cm')).toBe(
      '{{count}} ĥöļðš öƒ <b>{{name}}</b>, 5 çɱ',
    )
    expect(JSON.stringify(Object.values(disguisedAll(en.signIn)))).not.toMatch(/[A-Za-z]/)
  })
})

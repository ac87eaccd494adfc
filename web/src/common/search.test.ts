import { describe, expect, it } from 'vitest'
import { beginsWith, hasWords, meant } from './search'

const ladder = (name: string, found_by: string) => ({ name, found_by, about: `About ${name}.` })
const names = (text: string) => meant(LADDERS, text).map(({ name }) => name)
const LADDERS = [
  ladder('Bound angle', 'butterfly, cobbler, hip opener'),
  ladder('Figure-four', 'piriformis, hip opener'),
  ladder('Hip hinge', 'flat back fold'),
]

describe('what is looked for', () => {
  it('has every word somewhere, however it is written', () => {
    expect(hasWords('Señal azul', 'AZUL senal')).toBe(true)
    expect(hasWords('Señal azul', 'rojo')).toBe(false)
    expect(hasWords('anything', '  ')).toBe(true)
    expect(beginsWith('Étoile', 'eto')).toBe(true)
  })

  it('is found by the names people use', () => {
    expect(names('butterfly')).toEqual(['Bound angle'])
    expect(names('PIRI')).toEqual(['Figure-four'])
    expect(names('swan')).toEqual([])
  })

  it('begins with those whose own name says it', () => {
    expect(names('hip')).toEqual(['Hip hinge', 'Bound angle', 'Figure-four'])
  })
})

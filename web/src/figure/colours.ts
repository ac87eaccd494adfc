import palettes from './palettes.json'

export type Light = keyof typeof palettes

/** Custom properties that give every figure inside an element the colours of a light. */
export function figureColours(light: Light): Record<`--fig-${string}`, string> {
  return Object.fromEntries(
    Object.entries(palettes[light]).map(([role, colour]) => [`--fig-${role}`, colour]),
  )
}

import { describe, expect, it } from 'vitest'
import { DAY, DIM } from './palette'

const channel = (hex: string, at: number) => {
  const value = Number.parseInt(hex.slice(at, at + 2), 16) / 255
  return value <= 0.04045 ? value / 12.92 : ((value + 0.055) / 1.055) ** 2.4
}
const luminance = (hex: string) =>
  0.2126 * channel(hex, 1) + 0.7152 * channel(hex, 3) + 0.0722 * channel(hex, 5)
/** How far two colours stand apart, as WCAG counts it. */
function contrast(one: string, other: string): number {
  const [light, dark] = [luminance(one), luminance(other)].sort((a, b) => b - a) as [number, number]
  return (light + 0.05) / (dark + 0.05)
}

describe.each([
  ['day', DAY],
  ['dim room', DIM],
])('the colours of the %s', (_, light) => {
  const grounds = { ground: light.ground, paper: light.paper, panel: light.panel, note: light.note }

  it('are read on every ground', () => {
    for (const [name, ground] of Object.entries(grounds)) {
      for (const role of ['ink', 'muted', 'left', 'right', 'both', 'error', 'mind'] as const) {
        expect(contrast(light[role], ground), `${role} on ${name}`).toBeGreaterThanOrEqual(4.5)
      }
    }
    for (const role of ['onBar', 'quietOnBar'] as const) {
      expect(contrast(light[role], light.bar), `${role} on bar`).toBeGreaterThanOrEqual(4.5)
    }
  })

  it('have lines and focus that are seen', () => {
    for (const [name, ground] of Object.entries({ ...grounds, field: light.fieldGround })) {
      expect(contrast(light.field, ground), `field on ${name}`).toBeGreaterThanOrEqual(3)
      expect(contrast(light.ink, ground), `focus on ${name}`).toBeGreaterThanOrEqual(3)
    }
    expect(contrast(light.accent, light.bar)).toBeGreaterThanOrEqual(3)
  })

  it('leave filled buttons readable under the pointer, and closed ones legible', () => {
    for (const [role, hovered] of Object.entries(light.hovered)) {
      const main = light[role as keyof typeof light.hovered]
      expect(contrast(light.ground, main), role).toBeGreaterThanOrEqual(4.5)
      expect(contrast(light.ground, hovered), `${role} hovered`).toBeGreaterThanOrEqual(4.5)
    }
    for (const ground of [...Object.values(grounds), light.disabledGround]) {
      expect(contrast(light.disabled, ground)).toBeGreaterThanOrEqual(3)
    }
  })
})

import { ApiProblem, type Schemas } from '../../api/client'
import { hasWords } from '../../common/search'

export type Family = Schemas['ShelfFamily']

export type Purpose = Schemas['CodeWords']

export interface Shelf {
  purpose: Purpose
  families: Family[]
}

/** Families by purpose; one with several purposes stands under each. */
export function byPurpose(families: readonly Family[], purposes: readonly Purpose[]): Shelf[] {
  return purposes
    .map((purpose) => ({
      purpose,
      families: families.filter((family) => family.purposes.includes(purpose.code)),
    }))
    .filter((shelf) => shelf.families.length > 0)
}

export interface Hit {
  family: Family
  rungs: Family['rungs']
}

/**
 * Families and rungs that have every word of a text: in the names, in what they are for, among the props.
 * A family found by its own words is found with all its rungs.
 */
export function search(families: readonly Family[], text: string): Hit[] {
  return families.flatMap((family) => {
    const own = [family.name, family.about, family.found_by].join(' ')
    if (hasWords(own, text)) return [{ family, rungs: family.rungs }]
    const rungs = family.rungs.filter((rung) =>
      hasWords([own, rung.name, rung.short, ...rung.props].join(' '), text),
    )
    return rungs.length > 0 ? [{ family, rungs }] : []
  })
}

/** What was typed for a figure and is no number: kept word for word. */
interface Unread {
  typed: string
}

export type Figure = number | Unread

/** What may be adjusted of a slot; what a file says besides is kept as it is. */
export interface Slot {
  type: 'stack' | 'angle' | 'distance' | 'choice'
  label: string
  base?: 'floor' | 'chair'
  from?: Figure
  to?: Figure
  step?: Figure
  plain: Figure | string | { percent: Figure; of: string }
  between_cm?: [Figure, Figure]
  max_layers?: Figure
  required?: boolean
}

/** A variation's file as far as it is adjusted here. */
export interface VariationFile {
  format: string
  version: number
  family: string
  after: string
  variation: {
    name: string
    sanskrit?: string
    short: string
    slots: Record<string, Slot>
    recipe: Record<string, unknown>
    hold: {
      style: 'seconds' | 'breaths' | 'minutes' | 'reps'
      from: Figure
      to: Figure
      step: Figure
      sets: Figure
    }
    cues: string[]
    own_cues: string[]
    watch: string[]
  }
}

/** The angles of the trunk a recipe may fix. */
const TRUNK = ['lean_deg', 'recline_deg', 'turn_deg', 'side_bend_deg', 'roll_deg'] as const
export type TrunkAngle = (typeof TRUNK)[number]

/** Trunk angles a recipe fixes at a figure other than zero, in order. */
export function fixedAngles(recipe: Record<string, unknown>): [TrunkAngle, number][] {
  return TRUNK.flatMap((name) => {
    const value = recipe[name]
    return typeof value === 'number' && value !== 0 ? [[name, value]] : []
  })
}

/** A draft to begin a copy with: the name says that it is one. */
export function copyOf(file: VariationFile, name: string): VariationFile {
  return { ...file, variation: { ...file.variation, name } }
}

/** A file with one slot adjusted. */
export function withSlot(file: VariationFile, name: string, change: Partial<Slot>): VariationFile {
  const slot = file.variation.slots[name]
  if (slot === undefined) return file
  return {
    ...file,
    variation: { ...file.variation, slots: { ...file.variation.slots, [name]: { ...slot, ...change } } },
  }
}

/** The path of the first figure for which something was typed that cannot be read. */
export function firstUnreadable(value: unknown, path: string[] = []): string | undefined {
  if (typeof value !== 'object' || value === null) return undefined
  if ('typed' in value) return path.join('.')
  for (const [key, inner] of Object.entries(value)) {
    const found = firstUnreadable(inner, [...path, key])
    if (found !== undefined) return found
  }
  return undefined
}

/** One cue a line; empty lines fall away. */
export function linesFrom(text: string): string[] {
  return text
    .split('\n')
    .map((line) => line.trim())
    .filter((line) => line !== '')
}

/** The first message among field problems that begin with a path. */
export function problemAt(problems: Record<string, string>, path: string): string | undefined {
  return Object.entries(problems).find(([field]) => field === path || field.startsWith(`${path}.`))?.[1]
}

/** The version somebody else saved while this one was edited, when that is why a save was refused. */
export function savedMeanwhile(error: Error | null): { number: number; file: VariationFile } | undefined {
  if (!(error instanceof ApiProblem) || error.status !== 409) return undefined
  return error.problem.current as unknown as { number: number; file: VariationFile }
}

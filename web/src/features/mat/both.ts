import type { Schemas, Side } from '../../api/client'

export type Which = 'a' | 'b'

/** Two ways being tried: which slot's, and what was felt in each. */
export interface Trying {
  /** Made once for a trial, so that sending it again stores nothing twice. */
  id: string
  slot: string
  other: Schemas['SlotValue']
  felt: Record<Which, number | null>
  /** Chosen by hand; `null` leaves it to what was felt. */
  chosen: Which | null
}

type Way = Pick<Schemas['WayOut'], 'slot' | 'setup'>

/** How the slot a way is about is in it. */
function valueOf({ slot, setup }: Way): Schemas['SlotValue'] {
  return setup[slot] ?? { stack: null, number: null, choice: null }
}

export function newTrial(way: Way): Trying {
  return {
    id: crypto.randomUUID(),
    slot: way.slot,
    other: valueOf(way),
    felt: { a: null, b: null },
    chosen: null,
  }
}

/** Whether a way is the one being tried. */
export function isTried(trying: Trying, way: Way): boolean {
  return trying.slot === way.slot && JSON.stringify(trying.other) === JSON.stringify(valueOf(way))
}

/** The way to keep: the one chosen, else the calmer; between equals the one that is planned. `null` until both were felt. */
export function keptOf({ felt, chosen }: Trying): Which | null {
  if (felt.a === null || felt.b === null) return null
  return chosen ?? (felt.b < felt.a ? 'b' : 'a')
}

/** What is sent; `null` until both ways were felt. */
export function trialFrom(
  trying: Trying,
  mat: Pick<Schemas['MatSide'], 'variation'>,
  setup: Schemas['DrawnSetup']['setup'],
  side: Side,
): Schemas['TrialIn'] | null {
  const { id, slot, other, felt } = trying
  const kept = keptOf(trying)
  if (kept === null || felt.a === null || felt.b === null) return null
  return { id, variation: mat.variation, side, slot, setup, other, felt_a: felt.a, felt_b: felt.b, kept }
}

import type { Schemas, Side } from '../api/client'

type Quantity = Schemas['ReadingIn']['quantity']
type Of<Q> = Q extends `seen.${infer Name}` ? Name : never

/** What usually ends a shape, and a therapist may have seen otherwise. */
export type Bound = Of<Quantity>

/** Something seen rather than measured, as a reading: 1 from today on, 0 where it is taken back. */
export function seenReading(bound: Bound, side: Side, value: 0 | 1): Schemas['ReadingIn'] {
  return {
    quantity: `seen.${bound}`,
    side,
    value,
    method: '',
    conditions: {},
    pelvis_held: 'unknown',
    note: '',
  }
}

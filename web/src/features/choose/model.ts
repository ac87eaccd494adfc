import type { Side } from '../../api/client'

/** The rung picked out on each side, as an id. */
export type Chosen = Partial<Record<Side, string>>

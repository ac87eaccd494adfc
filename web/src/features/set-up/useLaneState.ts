import { useState } from 'react'
import type { Schemas, Side } from '../../api/client'
import { setupFrom } from './model'
import { useDetail, useSetup } from './queries'

/** One lane: the rung's whole grid, the choice on every slot, and the chosen set-up in full. */
export function useLaneState(
  variationId: string | undefined,
  side: Side,
  view: Schemas['SetupQuery']['view'],
) {
  const setup = useSetup(variationId, side)
  const [chosen, setChosen] = useState<Record<string, number[]>>({})
  const first =
    setup.data?.last_used?.allowed === true ? setup.data.last_used : setup.data?.options[0]?.detail
  const indices = (variationId === undefined ? undefined : chosen[variationId]) ?? first?.index ?? []
  const axes = setup.data?.axes ?? []
  const wanted = setupFrom(axes, indices)
  const detail = useDetailOf(setup.data, side, wanted, view)
  const choose = (next: number[]) => {
    if (variationId !== undefined) setChosen({ ...chosen, [variationId]: next })
  }
  return { setup, axes, indices, wanted, detail, choose }
}

export type LaneState = ReturnType<typeof useLaneState>

function useDetailOf(
  setup: Schemas['SetupOut'] | undefined,
  side: Side,
  wanted: Record<string, Schemas['SlotValue']>,
  view: Schemas['SetupQuery']['view'],
): Schemas['DetailOut'] | undefined {
  const query = useDetail(
    setup?.variation ?? '',
    side,
    wanted,
    view,
    setup !== undefined && setup.grid !== null,
  )
  // While another rung loads, the last rung's drawing must not stand in for it.
  return query.isPlaceholderData && setup === undefined ? undefined : query.data
}

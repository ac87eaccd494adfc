import { useState } from 'react'
import type { Schemas, Side } from '../../api/client'
import { setupFrom, verdictAt } from './model'
import { useDetail, useSetup } from './queries'

/** One lane: the rung's whole grid, the choice on every slot, and the chosen set-up in full. */
export function useLaneState(
  variationId: string | undefined,
  side: Side,
  view: Schemas['SetupQuery']['view'],
  offered: Schemas['StepOut'] | null,
) {
  const setup = useSetup(variationId, side)
  const [chosen, setChosen] = useState<Record<string, number[]>>({})
  const [doses, setDoses] = useState<Record<string, number>>({})
  const [reasons, setReasons] = useState<Record<string, string>>({})
  const rung = setup.data
  const first = rung?.last_used?.allowed === true ? rung.last_used : rung?.options[0]?.detail
  const key = variationId ?? ''
  const indices = chosen[key] ?? offeredIndices(rung, offered) ?? first?.index ?? []
  const axes = rung?.axes ?? []
  const wanted = setupFrom(axes, indices)
  const query = useDetail(key, side, wanted, view, rung !== undefined && rung.grid !== null)
  return {
    setup,
    axes,
    indices,
    wanted,
    verdict: (rung?.grid && verdictAt(rung.grid, indices)) ?? rung?.verdict ?? 'leave_out',
    // While another rung loads, the last rung's drawing must not stand in for it.
    detail: rung === undefined ? undefined : query.data,
    choose: (next: number[]) => {
      setChosen({ ...chosen, [key]: next })
    },
    dose:
      doses[key] ??
      (offered?.variation === variationId ? offered?.dose_s : undefined) ??
      rung?.hold_from_s ??
      30,
    setDose: (seconds: number) => {
      setDoses({ ...doses, [key]: seconds })
    },
    reasons,
    setReason: (code: string, reason: string) => {
      setReasons({ ...reasons, [code]: reason })
    },
  }
}

export type LaneState = ReturnType<typeof useLaneState>

/** The set-up decided for next time, as indices on this rung's axes. */
function offeredIndices(
  rung: Schemas['SetupOut'] | undefined,
  offered: Schemas['StepOut'] | null,
): number[] | undefined {
  if (rung === undefined || offered?.variation !== rung.variation) return undefined
  return rung.axes.map((axis) => {
    const wanted = offered.setup[axis.name]
    const same = axis.choices.findIndex(
      ({ value }) =>
        value.stack === wanted?.stack &&
        value.choice === wanted?.choice &&
        (value.stack != null || value.number === wanted?.number),
    )
    return Math.max(0, same)
  })
}

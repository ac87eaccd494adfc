import { useState } from 'react'
import type { Schemas, Side } from '../../api/client'
import { setupFrom, verdictAt } from './model'
import { useDetail, useSetup } from './queries'

/** What was chosen and not yet taken to the mat, by rung and side; shared shapes have one choice for both. */
export function useChosen() {
  const [indices, setIndices] = useState<Record<string, number[]>>({})
  const [doses, setDoses] = useState<Record<string, number>>({})
  return { indices, setIndices, doses, setDoses }
}

export type ChosenSetups = ReturnType<typeof useChosen>

/** One lane: the rung's whole grid, the choice on every slot, and the chosen set-up in full. */
export function useLaneState(
  variationId: string | undefined,
  side: Side,
  view: Schemas['SetupQuery']['view'],
  offered: Schemas['StepOut'] | null,
  chosen: ChosenSetups,
) {
  const setup = useSetup(variationId, side)
  const [reasons, setReasons] = useState<Record<string, string>>({})
  const rung = setup.data
  const first = rung?.last_used?.allowed === true ? rung.last_used : rung?.options[0]?.detail
  const id = variationId ?? ''
  const key = rung?.shared === true ? id : `${id}:${side}`
  const indices = chosen.indices[key] ?? offeredIndices(rung, offered) ?? first?.index ?? []
  const axes = rung?.axes ?? []
  const wanted = setupFrom(axes, indices)
  const query = useDetail(id, side, wanted, view, rung !== undefined && rung.grid !== null)
  return {
    setup,
    axes,
    indices,
    wanted,
    verdict: (rung?.grid && verdictAt(rung.grid, indices)) ?? rung?.verdict ?? 'leave_out',
    // While another rung loads, the last rung's drawing must not stand in for it.
    detail: rung === undefined ? undefined : query.data,
    choose: (next: number[]) => {
      chosen.setIndices({ ...chosen.indices, [key]: next })
    },
    dose:
      chosen.doses[key] ??
      (offered?.variation === variationId ? offered?.dose_s : undefined) ??
      rung?.hold_from_s ??
      30,
    setDose: (seconds: number) => {
      chosen.setDoses({ ...chosen.doses, [key]: seconds })
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

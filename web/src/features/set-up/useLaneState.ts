import { useCallback, useMemo } from 'react'
import type { Schemas, Side } from '../../api/client'
import { useKeptSteps } from '../../common/drafts'
import { choiceKey, type Choices, type Chosen, choicesAfter, NOTHING_CHOSEN } from './choices'
import { doseFrom, indicesOf, setupFrom, verdictAt } from './model'
import { useDetail, useSetup } from './queries'

/** What was chosen today and the way to choose. */
export function useChosen(clientId: string, today: string) {
  return useKeptSteps<Choices, Chosen>(`set-up:${clientId}:${today}`, choicesAfter, NOTHING_CHOSEN)
}

const NO_AXES: Schemas['AxisOut'][] = []
const NO_PLACES: number[] = []

/**
 * One lane: the rung's whole grid, the choice on every slot, and the chosen set-up in full. It keeps its identity while
 * nothing of this lane changes, so that a step on one side draws nothing anew on the other.
 */
export function useLaneState(
  variationId: string | undefined,
  side: Side,
  view: Schemas['SetupQuery']['view'],
  offered: Schemas['StepOut'] | null,
  [choices, choose]: ReturnType<typeof useChosen>,
) {
  const { data: rung, error, refetch } = useSetup(variationId, side)
  const first = rung?.options[0]?.detail
  const id = variationId ?? ''
  const key = choiceKey(id, side, rung?.shared === true)
  const axes = rung?.axes ?? NO_AXES
  const own = choices[key]
  const indices = useMemo(
    () => indicesOf(axes, own?.setup) ?? first?.index ?? NO_PLACES,
    [axes, own?.setup, first],
  )
  const wanted = useMemo(() => setupFrom(axes, indices), [axes, indices])
  const found = useDetail(id, side, wanted, view, rung !== undefined && rung.grid !== null).data
  // While another rung loads, the last rung's drawing must not stand in for it.
  const detail = rung === undefined ? undefined : found
  const again = useCallback(() => void refetch(), [refetch])
  const offer = offered !== null && offered.variation === variationId ? offered.dose_s : undefined
  return useMemo(
    () => ({
      rung,
      error,
      again,
      axes,
      indices,
      wanted,
      verdict: (rung?.grid && verdictAt(rung.grid, indices)) ?? rung?.verdict ?? 'leave_out',
      detail,
      dose: doseFrom(rung?.doses ?? [], own?.dose ?? offer),
      choose: (next: number[]) => {
        choose({ chose: 'setup', of: key, setup: setupFrom(axes, next) })
      },
      note: own?.note ?? rung?.note ?? '',
      setNote: (note: string) => {
        choose({ chose: 'note', of: key, note })
      },
      setDose: (seconds: number) => {
        choose({ chose: 'dose', of: key, seconds })
      },
    }),
    [rung, error, again, axes, indices, wanted, detail, own, offer, choose, key],
  )
}

export type LaneState = ReturnType<typeof useLaneState>

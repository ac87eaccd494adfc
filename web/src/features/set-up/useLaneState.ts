import type { Schemas, Side } from '../../api/client'
import { usePicked } from '../../common/drafts'
import { doseFrom, indicesOf, setupFrom, verdictAt } from './model'
import { useDetail, useSetup } from './queries'

/** What was chosen on one rung: slot values, the dose in seconds, and why a caution is accepted, by its code. */
interface Choice {
  setup?: Setup
  dose?: number
  reasons?: Record<string, string>
}

type Setup = Record<string, Schemas['SlotValue']>

const NONE: Record<string, Choice> = {}

/**
 * What was chosen today, by rung and side; shared shapes have one choice for both.
 * Values are kept and not places on an axis: what the room can build may change in between.
 */
export function useChosen(clientId: string, today: string) {
  const [choices, setChoices] = usePicked(`set-up:${clientId}:${today}`, NONE)
  return {
    of: (key: string): Choice => choices[key] ?? {},
    choose: (key: string, choice: Choice) => {
      setChoices({ ...choices, [key]: { ...choices[key], ...choice } })
    },
  }
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
  const rung = setup.data
  const first = rung?.options[0]?.detail
  const id = variationId ?? ''
  const key = rung?.shared === true ? id : `${id}:${side}`
  const axes = rung?.axes ?? []
  const own = chosen.of(key)
  const indices = indicesOf(axes, own.setup) ?? first?.index ?? []
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
      chosen.choose(key, { setup: setupFrom(axes, next) })
    },
    dose: doseFrom(
      rung?.doses ?? [],
      own.dose ?? (offered !== null && offered.variation === variationId ? offered.dose_s : undefined),
    ),
    setDose: (seconds: number) => {
      chosen.choose(key, { dose: seconds })
    },
    reasons: own.reasons ?? {},
    setReason: (code: string, reason: string) => {
      chosen.choose(key, { reasons: { ...own.reasons, [code]: reason } })
    },
  }
}

export type LaneState = ReturnType<typeof useLaneState>

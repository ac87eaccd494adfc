import { useMemo, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { ApiProblem, type Schemas } from '../../api/client'
import { useCommands } from '../../common/commands'
import { useKeptSteps } from '../../common/drafts'
import { useClientPath } from '../../common/route'
import { kindOfLane, laneAfter, newLane } from './lane'
import { correctionOf, itemFrom, leavesUnsaid, type LogDraft, saidFrom, type Used } from './model'
import { useCorrectItem, useLogItem } from './queries'
import { sideOf } from './road'
import type { Lane } from '../../api/client'

interface Wanted {
  lane: Lane
  /** The day of the plan: nothing begun on another day is gone on with. */
  date: string
  mat: Schemas['MatSide']
  /** Discomfort on arrival: what a hold rose from, where nobody says otherwise. */
  before: number | null
  /** Seconds the clock ran; asked at the moment of logging. */
  held: () => number | null
  onLogged: (mat: Schemas['MatOut']) => void
}

/** One lane as it is worked: the hold being described, the step back, correcting what was logged. */
export function useLane({ lane: name, date, mat, before, held, onLogged }: Wanted) {
  const { t } = useTranslation()
  const path = useClientPath()
  const side = sideOf(name)
  const [fresh] = useState(newLane)
  const [lane, step] = useKeptSteps(
    `lane:${path.client_id}:${date}:${mat.variation}:${side}`,
    laneAfter,
    fresh,
    kindOfLane,
  )
  const [correcting, setCorrecting] = useState<{ hold: Schemas['ItemOut']; draft: LogDraft } | null>(null)
  const [hint, setHint] = useState<string>()
  const log = useLogItem()
  const correct = useCorrectItem()
  const used: Used = lane.steppedTo ?? mat
  const onPlan = used.variation === mat.variation
  const stepBack = useMemo(
    () => () => {
      const back = mat.step_back
      if (back === null) return
      const { variation, short, setup, setup_words, dose_s, dose } = back
      step({ did: 'stepped back', to: { variation, short, setup, setup_words, dose_s, dose } })
    },
    [mat.step_back, step],
  )
  const unstep = useMemo(
    () => () => {
      step({ did: 'stepped forward' })
    },
    [step],
  )
  useCommands(
    useMemo(
      () => [
        { name: 'stepBack' as const, keys: ['['], run: stepBack },
        { name: 'stepForward' as const, keys: [']'], run: unstep },
      ],
      [stepBack, unstep],
    ),
  )
  const said = (draft: LogDraft): LogDraft => ({
    ...draft,
    scores: { ...draft.scores, before: draft.scores.before ?? before },
  })
  const logged = (answer: Schemas['MatOut']) => {
    step({ did: 'logged' })
    onLogged(answer)
  }
  const send = () => {
    const seconds = lane.log.held === undefined ? held() : lane.log.held
    const item = itemFrom(said(lane.log), used, side, seconds)
    if (item === null) {
      setHint(t('mat.pickDuring'))
      return
    }
    if (leavesUnsaid(lane.log) && !lane.log.asked) {
      step({ did: 'was asked' })
      setHint(t('mat.unsaid'))
      return
    }
    setHint(undefined)
    step({ did: 'sent', held: seconds })
    log.mutate({ params: { path }, body: item }, { onSuccess: logged })
  }
  const sendCorrection = () => {
    if (correcting === null) return
    const body = saidFrom(correcting.draft, correcting.hold.held_s)
    if (body === null) {
      setHint(t('mat.pickDuring'))
      return
    }
    setHint(undefined)
    correct.mutate(
      { params: { path: { ...path, item_id: correcting.hold.id } }, body },
      {
        onSuccess: () => {
          setCorrecting(null)
        },
      },
    )
  }
  // An answer was lost on the way and something was changed since: both are there, and this one may go on top.
  const stored = sentBefore(log.error)
  const keepMine = () => {
    const body = saidFrom({ ...said(lane.log), id: crypto.randomUUID() }, lane.log.held ?? null)
    if (stored !== null && body !== null) {
      correct.mutate(
        { params: { path: { ...path, item_id: lane.log.id } }, body },
        {
          onSuccess: (answer) => {
            log.reset()
            logged(answer)
          },
        },
      )
    }
  }
  return {
    used,
    figure: onPlan || mat.step_back === null ? mat.figure : mat.step_back.figure,
    stepped: lane.steppedTo !== null,
    stepBack,
    unstep,
    /** Whether a hold is to be described: rounds are left, or one more was asked for. */
    describing: mat.logged_today.length < mat.rounds || lane.another,
    again: () => {
      step({ did: 'went round again' })
    },
    draft: correcting?.draft ?? lane.log,
    setDraft: (draft: LogDraft) => {
      if (correcting !== null) {
        setCorrecting({ ...correcting, draft })
        return
      }
      setHint(undefined)
      step({ did: 'said', log: draft })
    },
    correcting: correcting?.hold ?? null,
    correct: (hold: Schemas['ItemOut'] | null) => {
      setHint(undefined)
      correct.reset()
      setCorrecting(hold === null ? null : { hold, draft: correctionOf(hold) })
    },
    send: correcting === null ? send : sendCorrection,
    busy: log.isPending || correct.isPending,
    hint,
    failed: log.error ?? correct.error,
    stored,
    keepMine,
  }
}

/** The discomfort stored under the same hold, when that is why a log was refused. */
function sentBefore(error: Error | null): string | null {
  if (!(error instanceof ApiProblem) || error.problem.code !== 'sent_before') return null
  const during = error.problem.current?.['during']
  return typeof during === 'number' ? during.toString() : ''
}

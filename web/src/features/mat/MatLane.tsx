import Alert from '@mui/material/Alert'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Typography from '@mui/material/Typography'
import { useMemo, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { ApiProblem, type Lane, type Schemas, type Side } from '../../api/client'
import { shortDate } from '../../common/dates'
import { useKeptSteps } from '../../common/drafts'
import { LANE_HEAD } from '../../common/lanes'
import { useClientPath } from '../../common/route'
import { useCommands } from '../../common/commands'
import { Figure } from '../../figure/Figure'
import { colours, laneColour, serif } from '../../theme/theme'
import { Row } from '../../common/ui/layout'
import { HoldForm } from './HoldForm'
import { kindOfLane, laneAfter, newLane } from './lane'
import { LoggedHolds, scoresOf } from './LoggedHolds'
import { correctionOf, itemFrom, leavesUnsaid, type LogDraft, saidFrom, type Used } from './model'
import { useCorrectItem, useLogItem } from './queries'

interface Props {
  side: Side
  /** What the lane stands for: its side, or both where the legs share the shape and a hold is logged once. */
  name: Lane
  /** The day of the plan: nothing begun on another day is gone on with. */
  date: string
  mat: Schemas['MatSide'] | null
  active: boolean
  onActivate: () => void
  /** Seconds the clock ran for this side; asked at the moment of logging. */
  held: () => number | null
  onLogged: () => void
}

/** One side beside the mat: picture, set-up, last time, one touch for each thing that happened. */
export function MatLane({ mat, ...props }: Props) {
  const { t } = useTranslation()
  if (mat === null) {
    return (
      <Box component="section" sx={{ borderTop: `5px solid ${laneColour(props.name)}`, p: 2 }}>
        <LaneName side={props.name} />
        <Typography color="text.secondary">{t('mat.nothing')}</Typography>
      </Box>
    )
  }
  // What was begun on one rung is not carried over to another.
  return <Planned key={mat.variation} mat={mat} {...props} />
}

function LaneName({ side }: { side: Lane }) {
  const { t } = useTranslation()
  return (
    <Box
      component="h2"
      sx={{ fontFamily: serif, fontSize: '1.4rem', fontWeight: 600, m: 0, color: laneColour(side) }}
    >
      {t(`side.${LANE_HEAD[side]}`)}
    </Box>
  )
}

function Planned({
  side,
  name,
  date,
  mat,
  active,
  onActivate,
  held,
  onLogged,
}: Props & { mat: Schemas['MatSide'] }) {
  const { t } = useTranslation()
  const path = useClientPath()
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
  const figure = used.variation === mat.step_back?.variation ? mat.step_back.figure : mat.figure
  const describing = mat.logged_today.length === 0 || lane.another
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
      () =>
        active
          ? [
              { name: 'stepBack' as const, keys: ['['], run: stepBack },
              { name: 'stepForward' as const, keys: [']'], run: unstep },
            ]
          : [],
      [active, stepBack, unstep],
    ),
  )
  const logged = () => {
    step({ did: 'logged' })
    onLogged()
  }
  const send = () => {
    const seconds = lane.log.held === undefined ? held() : lane.log.held
    const item = itemFrom(lane.log, used, side, seconds)
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
    const said = saidFrom(correcting.draft, correcting.hold.held_s)
    if (said === null) {
      setHint(t('mat.pickDuring'))
      return
    }
    setHint(undefined)
    correct.mutate(
      { params: { path: { ...path, item_id: correcting.hold.id } }, body: said },
      {
        onSuccess: () => {
          setCorrecting(null)
        },
      },
    )
  }
  // An answer was lost on the way and something was changed since: both are there, and this one may go on top.
  const before = sentBefore(log.error)
  const keepMine = () => {
    const said = saidFrom({ ...lane.log, id: crypto.randomUUID() }, lane.log.held ?? null)
    if (before !== null && said !== null) {
      correct.mutate(
        { params: { path: { ...path, item_id: lane.log.id } }, body: said },
        {
          onSuccess: () => {
            log.reset()
            logged()
          },
        },
      )
    }
  }
  const failed = log.error ?? correct.error
  return (
    <Box
      component="section"
      aria-label={t(`side.${name}`)}
      onClickCapture={onActivate}
      sx={{
        borderTop: `5px solid ${laneColour(name)}`,
        display: 'flex',
        flexDirection: 'column',
        minHeight: 0,
        bgcolor: active ? 'background.paper' : 'transparent',
      }}
    >
      <Box
        sx={{
          flex: 1,
          overflowY: 'auto',
          px: 1.5,
          pt: 1,
          display: 'flex',
          flexDirection: 'column',
          gap: 0.6,
        }}
      >
        <Row gap={1.5} align="baseline">
          <LaneName side={name} />
          <Box sx={{ lineHeight: 1.25 }}>
            <strong>{used.short}</strong>, {used.dose}
            {used.setup_words !== '' && ` · ${used.setup_words}`}
          </Box>
        </Row>
        {mat.changed_since !== null && (
          <Alert severity="warning">
            <strong>{t('mat.changedSince')}</strong>{' '}
            {t('mat.changedFrom', {
              was: mat.changed_since.was,
              then:
                mat.changed_since.verdict_then === null
                  ? t('mat.verdictNotKept')
                  : t(`verdict.${mat.changed_since.verdict_then}`),
              now: t(`verdict.${mat.changed_since.verdict_now}`),
            })}
          </Alert>
        )}
        <Box sx={{ flex: 'none' }}>
          <Figure svg={figure} height="clamp(150px, 36vh, 480px)" />
        </Box>
        <Typography variant="note">
          {mat.last === null
            ? t(`mat.firstTime.${name}`)
            : t('mat.lastTime', {
                date: shortDate(mat.last.date),
                short: mat.last.short,
                dose: mat.last.dose,
                scores: scoresOf(mat.last, t('mat.during'), t('mat.after')),
                tolerance: t(`mat.tolerance.${mat.last.tolerance}`),
              })}{' '}
          {mat.logged_today.length === 0 && mat.decision.reason}
        </Typography>
        <LoggedHolds
          side={name}
          holds={mat.logged_today}
          onCorrect={(hold) => {
            setHint(undefined)
            correct.reset()
            setCorrecting({ hold, draft: correctionOf(hold) })
          }}
        />
        {mat.logged_today.length > 0 && (
          // Once something was logged the decision rests on today.
          <Typography sx={{ fontSize: '0.88rem', lineHeight: 1.3 }}>
            <strong>{t('responses.next')}:</strong> {mat.decision.reason}
          </Typography>
        )}
        {correcting !== null ? (
          <>
            <Typography sx={{ fontWeight: 700 }}>
              {t('mat.correcting', { short: correcting.hold.short, dose: correcting.hold.dose })}
            </Typography>
            <HoldForm
              side={name}
              active={active}
              draft={correcting.draft}
              onDraft={(draft) => {
                setCorrecting({ ...correcting, draft })
              }}
            />
          </>
        ) : describing ? (
          <HoldForm
            side={name}
            active={active}
            draft={lane.log}
            onDraft={(log) => {
              setHint(undefined)
              step({ did: 'said', log })
            }}
          />
        ) : (
          <Button
            variant="outlined"
            color="inherit"
            onClick={() => {
              step({ did: 'went round again' })
            }}
            sx={{ alignSelf: 'flex-start', minHeight: 44 }}
          >
            {t('mat.another')}
          </Button>
        )}
      </Box>
      <Box sx={{ p: 1, borderTop: `1px solid ${colours.line}`, display: 'grid', gap: 0.75 }}>
        {hint !== undefined && (
          <Typography role="alert" sx={{ color: colours.accent, fontSize: '0.95rem', lineHeight: 1.25 }}>
            {hint}
          </Typography>
        )}
        {failed !== null && hint === undefined && (
          <Alert
            severity="error"
            action={
              before !== null && (
                <Button color="inherit" size="small" disabled={correct.isPending} onClick={keepMine}>
                  {t('mat.keepMine')}
                </Button>
              )
            }
          >
            {before === null ? failed.message : t('mat.sentBefore', { during: before })}
          </Alert>
        )}
        <Row align="stretch">
          {correcting === null ? (
            <StepBack
              side={name}
              mat={mat}
              stepped={lane.steppedTo !== null}
              onStep={stepBack}
              onUnstep={unstep}
            />
          ) : (
            <Button
              variant="outlined"
              color="inherit"
              sx={{ flex: 1 }}
              onClick={() => {
                setHint(undefined)
                correct.reset()
                setCorrecting(null)
              }}
            >
              {t('common.cancel')}
            </Button>
          )}
          {(describing || correcting !== null) && (
            <Button
              variant="contained"
              onClick={correcting === null ? send : sendCorrection}
              disabled={log.isPending || correct.isPending}
              sx={{ flex: 1 }}
            >
              {t(correcting === null ? 'mat.log' : 'mat.saveCorrection', { side: t(`side.${name}`) })}
            </Button>
          )}
        </Row>
      </Box>
    </Box>
  )
}

/** The discomfort stored under the same hold, when that is why a log was refused. */
function sentBefore(error: Error | null): string | null {
  if (!(error instanceof ApiProblem) || error.problem.code !== 'sent_before') return null
  const during = error.problem.current?.['during']
  return typeof during === 'number' ? during.toString() : ''
}

interface StepProps {
  side: Lane
  mat: Schemas['MatSide']
  stepped: boolean
  onStep: () => void
  onUnstep: () => void
}

function StepBack({ side, mat, stepped, onStep, onUnstep }: StepProps) {
  const { t } = useTranslation()
  const named = ({ short, setup_words }: Pick<Used, 'short' | 'setup_words'>) =>
    setup_words === '' ? short : `${short}: ${setup_words}`
  return (
    <Button
      variant="outlined"
      disabled={mat.step_back === null && !stepped}
      onClick={stepped ? onUnstep : onStep}
      aria-pressed={stepped}
      sx={{
        flex: 1,
        borderColor: colours.accent,
        color: colours.accent,
        lineHeight: 1.2,
        flexDirection: 'column',
      }}
    >
      {t(stepped ? 'mat.unstep' : 'mat.stepBack', { side: t(`side.${side}`) })}
      <Box component="span" sx={{ fontSize: '0.85rem', fontWeight: 400 }}>
        {stepped ? named(mat) : mat.step_back === null ? t('mat.noStepBack') : named(mat.step_back)}
      </Box>
    </Button>
  )
}

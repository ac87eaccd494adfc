import Alert from '@mui/material/Alert'
import Button from '@mui/material/Button'
import { styled } from '@mui/material/styles'
import Typography from '@mui/material/Typography'
import { useTranslation } from 'react-i18next'
import type { Lane, Schemas } from '../../api/client'
import { shortDate } from '../../common/dates'
import { usePicked } from '../../common/drafts'
import { LANE_HEAD } from '../../common/lanes'
import { useClientPath } from '../../common/route'
import { Rest } from '../../common/ui/layout'
import { Figure } from '../../figure/Figure'
import { colours, laneColour, serif } from '../../theme/theme'
import { type Hold, heldSeconds, NO_HOLD } from './hold'
import { HoldForm } from './HoldForm'
import { HoldTimer } from './HoldTimer'
import { LoggedHolds, scoresOf } from './LoggedHolds'
import { type Used } from './model'
import { TriedBefore, TryBoth } from './TryBoth'
import { useLane } from './useLane'

const Work = styled('section')(({ theme }) => ({
  display: 'flex',
  flexDirection: 'column',
  minHeight: 0,
  borderTop: '5px solid var(--lane)',
  backgroundColor: colours.paper,
  '& .scroll': { flex: 1, minHeight: 0, overflowY: 'auto', padding: theme.spacing(1, 2) },
  '& .top': {
    display: 'grid',
    gap: theme.spacing(0, 2.5),
    gridTemplateColumns: 'minmax(0, 1fr)',
    direction: 'ltr',
    [theme.breakpoints.up('sm')]: { gridTemplateColumns: 'minmax(0, 0.82fr) minmax(0, 1fr)' },
  },
  '& .told': { display: 'grid', gap: theme.spacing(1), alignContent: 'start' },
  '& h2': { fontFamily: serif, fontSize: '1.6rem', fontWeight: 600, margin: 0, lineHeight: 1.15 },
  '& h2 .side': { color: 'var(--lane)' },
  '& .setup': { lineHeight: 1.3 },
  '& .mind': {
    margin: 0,
    padding: theme.spacing(0, 0, 0, 1.25),
    borderLeft: `3px solid ${colours.accent}`,
    listStyle: 'none',
    fontSize: '1rem',
    lineHeight: 1.3,
    color: colours.mind,
  },
  '& .line': { borderTop: `1px solid ${colours.line}`, marginBlock: theme.spacing(1) },
  '& .bar': {
    display: 'flex',
    flexWrap: 'wrap',
    gap: theme.spacing(1),
    padding: theme.spacing(0.75, 2),
    borderTop: `1px solid ${colours.line}`,
  },
}))

/** As many of what is to be minded as are taken in at a glance. */
const MOST_MINDED = 3

interface Props {
  lane: Lane
  name: string
  date: string
  mat: Schemas['MatSide']
  breath_s: number
  before: number | null
  /** What limits and what is to be asked on this side, from the client's records. */
  notes: readonly string[]
  /** Where the log button leads. */
  onLogged: (mat: Schemas['MatOut']) => void
  onSkip: () => void
}

/** The side that is worked on, large: its picture, its set-up, what to mind, the clock, and what happened. */
export function WorkingLane({ lane, name, date, mat, breath_s, before, notes, onLogged, onSkip }: Props) {
  const { t } = useTranslation()
  const { client_id } = useClientPath()
  const [hold, setHold] = usePicked<Hold>(`hold:${client_id}:${date}:${mat.variation}:${lane}`, NO_HOLD)
  const work = useLane({
    lane,
    date,
    mat,
    before,
    held: () => heldSeconds(hold, Date.now()),
    onLogged: (answer) => {
      setHold(NO_HOLD)
      onLogged(answer)
    },
  })
  const { used, correcting, hint, failed, stored } = work
  const minded = [...new Set([...mat.cautions.map(({ sentence }) => sentence), ...notes, ...mat.watch])]
  const whose = t(`side.${lane}`)
  return (
    <Work aria-label={whose} style={{ '--lane': laneColour(lane) } as object}>
      <div className="scroll">
        <div className="top">
          <Figure svg={work.figure} height="clamp(210px, 46vh, 560px)" />
          <div className="told">
            <h2>
              <span className="side">{t(`side.${LANE_HEAD[lane]}`)}</span> {name}
            </h2>
            <div className="setup">
              <strong>{used.short}</strong>, {used.dose}
              {used.setup_words !== '' && ` · ${used.setup_words}`}
            </div>
            {mat.note !== '' && (
              <div className="setup" translate="no">
                “{mat.note}”
              </div>
            )}
            {mat.changed_since !== null && <Changed since={mat.changed_since} />}
            {minded.length > 0 && (
              <ul className="mind" aria-label={t('mat.mind')}>
                {minded.slice(0, MOST_MINDED).map((each) => (
                  <li key={each}>{each}</li>
                ))}
              </ul>
            )}
            <HoldTimer lane={lane} part={mat} hold={hold} onHold={setHold} />
            <Typography variant="note">
              {mat.last === null
                ? t(`mat.firstTime.${lane}`)
                : t('mat.lastTime', {
                    date: shortDate(mat.last.date),
                    short: mat.last.short,
                    dose: mat.last.dose,
                    scores: scoresOf(mat.last, t('mat.during'), t('mat.after')),
                    tolerance: t(`mat.tolerance.${mat.last.tolerance}`),
                  })}{' '}
              {mat.logged_today.length === 0 && mat.decision.reason} <TriedBefore trials={mat.trials} />
            </Typography>
          </div>
        </div>
        <div className="line" />
        <LoggedHolds side={lane} holds={mat.logged_today} onCorrect={work.correct} />
        {mat.logged_today.length > 0 && (
          // Once something was logged the decision rests on today.
          <Typography variant="note" component="p">
            <strong>{t('responses.next')}:</strong> {mat.decision.reason}
          </Typography>
        )}
        {correcting !== null && (
          <Typography component="p" sx={{ fontWeight: 700 }}>
            {t('mat.correcting', { short: correcting.short, dose: correcting.dose })}
          </Typography>
        )}
        {(work.describing || correcting !== null) && (
          <HoldForm
            key={correcting?.id ?? 'own'}
            side={lane}
            draft={work.draft}
            onDraft={work.setDraft}
            before={correcting === null ? before : null}
          />
        )}
      </div>
      {(hint !== undefined || failed !== null) && (
        <Alert
          role="alert"
          severity={hint === undefined ? 'error' : 'warning'}
          action={
            stored !== null &&
            hint === undefined && (
              <Button color="inherit" size="small" disabled={work.busy} onClick={work.keepMine}>
                {t('mat.keepMine')}
              </Button>
            )
          }
        >
          {hint ?? (stored === null ? failed?.message : t('mat.sentBefore', { during: stored }))}
        </Alert>
      )}
      <div className="bar">
        {correcting === null ? (
          <>
            <StepBack
              lane={lane}
              mat={mat}
              stepped={work.stepped}
              onStep={work.stepBack}
              onUnstep={work.unstep}
            />
            {!work.stepped && <TryBoth lane={lane} name={name} date={date} breath_s={breath_s} mat={mat} />}
            <Rest />
            {!work.describing && (
              <Button variant="outlined" color="inherit" onClick={work.again}>
                {t('mat.another')}
              </Button>
            )}
            <Button variant="outlined" color="inherit" onClick={onSkip}>
              {t(work.describing ? 'mat.skip' : 'mat.on')}
            </Button>
          </>
        ) : (
          <>
            <Button
              variant="outlined"
              color="inherit"
              onClick={() => {
                work.correct(null)
              }}
            >
              {t('common.cancel')}
            </Button>
            <Rest />
          </>
        )}
        {(work.describing || correcting !== null) && (
          <Button
            variant="contained"
            size="large"
            color={lane}
            disabled={work.busy}
            onClick={work.send}
            style={{ minWidth: 170 }}
          >
            {t(correcting === null ? 'mat.log' : 'mat.saveCorrection', { side: whose })}
          </Button>
        )}
      </div>
    </Work>
  )
}

function Changed({ since }: { since: Schemas['ChangedSince'] }) {
  const { t } = useTranslation()
  return (
    <Alert severity="warning">
      <strong>{t('mat.changedSince')}</strong>{' '}
      {t('mat.changedFrom', {
        was: since.was,
        then: since.verdict_then === null ? t('mat.verdictNotKept') : t(`verdict.${since.verdict_then}`),
        now: t(`verdict.${since.verdict_now}`),
      })}
    </Alert>
  )
}

interface StepProps {
  lane: Lane
  mat: Schemas['MatSide']
  stepped: boolean
  onStep: () => void
  onUnstep: () => void
}

/** Always in sight: where to go from here when something is not well, ready as it is to be set up. */
function StepBack({ lane, mat, stepped, onStep, onUnstep }: StepProps) {
  const { t } = useTranslation()
  const named = ({ short, setup_words }: Pick<Used, 'short' | 'setup_words'>) =>
    setup_words === '' ? short : `${short}: ${setup_words}`
  return (
    <Button
      variant="outlined"
      disabled={mat.step_back === null && !stepped}
      onClick={stepped ? onUnstep : onStep}
      aria-pressed={stepped}
      style={{
        flex: '1 1 220px',
        maxWidth: 470,
        flexDirection: 'column',
        lineHeight: 1.2,
        ...(mat.step_back === null && !stepped ? {} : { borderColor: colours.accent, borderWidth: 2 }),
      }}
    >
      {t(stepped ? 'mat.unstep' : 'mat.stepBack', { side: t(`side.${lane}`) })}
      <Typography variant="small" component="span">
        {stepped ? named(mat) : mat.step_back === null ? t('mat.noStepBack') : named(mat.step_back)}
      </Typography>
    </Button>
  )
}

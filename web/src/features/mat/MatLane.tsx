import Alert from '@mui/material/Alert'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import TextField from '@mui/material/TextField'
import Typography from '@mui/material/Typography'
import { useMemo, useState } from 'react'
import { useTranslation } from 'react-i18next'
import type { Schemas, Side } from '../../api/client'
import { dim, serif } from '../../app/theme'
import { Figure } from '../../figure/Figure'
import { shortDate } from '../../common/dates'
import { useDraft } from '../../common/drafts'
import { useClientPath } from '../../common/route'
import { useShortcuts } from '../../common/shortcuts'
import { Chips } from './Chips'
import { correctionOf, itemFrom, newDraft, type Phase, PHASES, withScore } from './model'
import { useLogItem } from './queries'

const KINDS: readonly Schemas['ItemIn']['kind'][] = [
  'stretch',
  'warm',
  'pressure',
  'none',
  'sharp',
  'pinching',
  'tingling',
  'numb',
]
const PLACES: readonly Schemas['ItemIn']['place'][] = ['wanted', 'hip', 'groin', 'knee', 'back', 'other']
const SIGNS: readonly Schemas['ItemIn']['signs'][number][] = [
  'breath_held',
  'grimace',
  'wobble',
  'back_rounds',
  'knee_rides_up',
  'pelvis_tilts',
  'clunk',
  'gave_way',
]
const SCORES = Array.from({ length: 11 }, (_, score) => score)

interface Props {
  side: Side
  mat: Schemas['MatSide'] | null
  active: boolean
  onActivate: () => void
}

/** One side beside the mat: picture, set-up, last time, one touch for each thing that happened. */
export function MatLane({ side, mat, active, onActivate }: Props) {
  const { t } = useTranslation()
  if (mat === null) {
    return (
      <Box component="section" sx={{ borderTop: `5px solid var(--${side})`, p: 2 }}>
        <LaneName side={side} />
        <Typography color="text.secondary">{t('mat.nothing')}</Typography>
      </Box>
    )
  }
  return <Planned side={side} mat={mat} active={active} onActivate={onActivate} />
}

function LaneName({ side }: { side: Side }) {
  const { t } = useTranslation()
  return (
    <Box
      component="h2"
      sx={{ fontFamily: serif, fontSize: '1.4rem', fontWeight: 600, m: 0, color: `var(--${side})` }}
    >
      {t(side === 'left' ? 'side.Left' : 'side.Right')}
    </Box>
  )
}

function Planned({ side, mat, active, onActivate }: Props & { mat: Schemas['MatSide'] }) {
  const { t } = useTranslation()
  const { client_id } = useClientPath()
  const [draft, setDraft, clearDraft] = useDraft(`log:${client_id}:${mat.variation}:${side}`, newDraft())
  const [phase, setPhase] = useState<Phase>('before')
  const [stepped, setStepped] = useState(false)
  const [correcting, setCorrecting] = useState(false)
  const [hint, setHint] = useState(false)
  const log = useLogItem()
  const used = stepped && mat.step_back !== null ? mat.step_back : mat
  const score = (value: number) => {
    const { draft: next, next: asked } = withScore(draft, phase, value)
    setDraft(next)
    setPhase(asked)
    setHint(false)
  }
  useShortcuts(
    useMemo(
      () =>
        active
          ? [
              ...SCORES.slice(0, 10).map((value) => ({
                key: String(value),
                run: () => {
                  setDraft({ ...draft, scores: { ...draft.scores, during: value } })
                },
              })),
              {
                key: ')',
                run: () => {
                  setDraft({ ...draft, scores: { ...draft.scores, during: 10 } })
                },
              },
              {
                key: '[',
                run: () => {
                  if (mat.step_back !== null) setStepped(true)
                },
              },
              {
                key: ']',
                run: () => {
                  setStepped(false)
                },
              },
            ]
          : [],
      [active, draft, mat.step_back, setDraft],
    ),
  )
  const send = () => {
    const item = itemFrom(draft, used, side)
    if (item === null) {
      setHint(true)
      setPhase('during')
      return
    }
    log.mutate(item, {
      onSuccess: () => {
        setCorrecting(false)
        clearDraft()
        setDraft(newDraft())
        setPhase('before')
      },
    })
  }
  const logged = mat.logged_today
  return (
    <Box
      component="section"
      aria-label={t(`side.${side}`)}
      onClickCapture={onActivate}
      sx={{
        borderTop: `5px solid var(--${side})`,
        display: 'flex',
        flexDirection: 'column',
        minHeight: 0,
        bgcolor: active ? '#302C29' : 'transparent',
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
        <Box sx={{ display: 'flex', alignItems: 'baseline', gap: 1.5 }}>
          <LaneName side={side} />
          <Box sx={{ lineHeight: 1.25 }}>
            <strong>{used.short}</strong>, {used.dose_s} s · {used.setup_words}
          </Box>
        </Box>
        <Box sx={{ flex: 'none' }}>
          <Figure svg={used.figure} height={132} />
        </Box>
        <Typography sx={{ fontSize: '0.88rem', color: dim.muted, lineHeight: 1.3 }}>
          {mat.last === null
            ? t('mat.firstTime')
            : t('mat.lastTime', {
                date: shortDate(mat.last.date),
                short: mat.last.short,
                dose: mat.last.dose_s,
                during: mat.last.during,
                after: mat.last.after,
                tolerance: t(`choose.tolerance.${mat.last.tolerance}`),
              })}{' '}
          {mat.decision.reason}
        </Typography>
        {logged !== null && !correcting ? (
          <Box role="status" sx={{ border: `1px solid var(--${side})`, borderRadius: 1, p: 1.5 }}>
            <strong>✓ {t('mat.logged', { tolerance: t(`choose.tolerance.${logged.tolerance}`) })}</strong>
            <div>{t('mat.loggedMore', { during: logged.during, after: logged.after })}</div>
            <Button
              variant="outlined"
              color="inherit"
              sx={{ mt: 1 }}
              onClick={() => {
                setDraft(correctionOf(logged))
                setCorrecting(true)
              }}
            >
              {t('mat.correct')}
            </Button>
          </Box>
        ) : (
          <>
            <Box
              sx={{ display: 'flex', gap: 0.75, alignItems: 'center', flexWrap: 'wrap' }}
              role="radiogroup"
              aria-label={t('mat.discomfort')}
            >
              <span style={{ fontSize: '0.92rem', color: dim.muted }}>{t('mat.discomfort')}</span>
              {PHASES.map((each) => (
                <Button
                  key={each}
                  color="inherit"
                  role="radio"
                  aria-checked={phase === each}
                  onClick={() => {
                    setPhase(each)
                  }}
                  sx={{
                    minHeight: 44,
                    px: 1.25,
                    textDecoration: phase === each ? 'underline' : 'none',
                    textDecorationThickness: 3,
                    textUnderlineOffset: 6,
                  }}
                >
                  {t(`mat.${each}`)} {draft.scores[each] ?? '–'}
                </Button>
              ))}
            </Box>
            <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(11, 1fr)', gap: 0.5 }}>
              {SCORES.map((value) => {
                const on = draft.scores[phase] === value
                return (
                  <Button
                    key={value}
                    aria-label={`${t(`mat.${phase}`)} ${value.toString()}, ${t(`side.${side}`)}`}
                    aria-pressed={on}
                    onClick={() => {
                      score(value)
                    }}
                    sx={{
                      minWidth: 0,
                      p: 0,
                      border: `1px solid ${dim.line}`,
                      bgcolor: on ? `var(--${side})` : 'transparent',
                      color: on ? dim.ground : dim.ink,
                    }}
                  >
                    {value}
                  </Button>
                )
              })}
            </Box>
            {hint && (
              <Typography role="alert" sx={{ color: dim.accent }}>
                {t('mat.pickDuring')}
              </Typography>
            )}
            <Chips
              label={t('mat.kind')}
              side={side}
              options={KINDS}
              word={(kind) => t(`mat.kinds.${kind}`)}
              chosen={[draft.kind]}
              onToggle={(kind) => {
                setDraft({ ...draft, kind })
              }}
            />
            <Chips
              label={t('mat.place')}
              side={side}
              options={PLACES}
              word={(place) => t(`mat.places.${place}`)}
              chosen={[draft.place]}
              onToggle={(place) => {
                setDraft({ ...draft, place })
              }}
            />
            <Chips
              label={t('mat.seen')}
              side={side}
              options={SIGNS}
              word={(sign) => t(`mat.signs.${sign}`)}
              chosen={draft.signs ?? []}
              onToggle={(sign) => {
                const signs = draft.signs ?? []
                setDraft({
                  ...draft,
                  signs: signs.includes(sign) ? signs.filter((each) => each !== sign) : [...signs, sign],
                })
              }}
            />
            <TextField
              label={t('mat.note')}
              value={draft.note}
              onChange={(event) => {
                setDraft({ ...draft, note: event.target.value })
              }}
              multiline
              maxRows={3}
            />
            {log.isError && (
              <Alert severity="error" variant="outlined">
                {log.error.message}
              </Alert>
            )}
          </>
        )}
      </Box>
      <Box sx={{ display: 'flex', gap: 1, p: 1, borderTop: `1px solid ${dim.line}` }}>
        <Button
          variant="outlined"
          disabled={mat.step_back === null}
          onClick={() => {
            setStepped(!stepped)
          }}
          aria-pressed={stepped}
          sx={{
            flex: 1,
            borderColor: dim.accent,
            color: dim.accent,
            lineHeight: 1.2,
            flexDirection: 'column',
          }}
        >
          {t(stepped ? 'mat.unstep' : 'mat.stepBack', { side: t(`side.${side}`) })}
          <Box component="span" sx={{ fontSize: '0.85rem', fontWeight: 400 }}>
            {mat.step_back === null
              ? t('mat.noStepBack')
              : stepped
                ? `${mat.short}: ${mat.setup_words}`
                : `${mat.step_back.short}: ${mat.step_back.setup_words}`}
          </Box>
        </Button>
        {(logged === null || correcting) && (
          <Button variant="contained" onClick={send} disabled={log.isPending} sx={{ flex: 1 }}>
            {t('mat.log', { side: t(`side.${side}`) })}
          </Button>
        )}
      </Box>
    </Box>
  )
}

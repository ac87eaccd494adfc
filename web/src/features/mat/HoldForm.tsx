import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import TextField from '@mui/material/TextField'
import { useMemo, useState } from 'react'
import { useTranslation } from 'react-i18next'
import type { Lane } from '../../api/client'
import { dim } from '../../app/theme'
import { useShortcuts } from '../../common/shortcuts'
import { Chips } from './Chips'
import {
  calm,
  type Kind,
  type LogDraft,
  type Phase,
  PHASES,
  type Place,
  type Sign,
  withScore,
  withSign,
} from './model'

const KINDS: readonly Kind[] = [
  'calm',
  'stretch',
  'warm',
  'pressure',
  'none',
  'sharp',
  'pinching',
  'tingling',
  'numb',
]
const PLACES: readonly Place[] = ['wanted', 'hip', 'groin', 'knee', 'back', 'other']
const SIGNS: readonly Sign[] = [
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
const KEY_OF_TEN = ')'

interface Props {
  side: Lane
  draft: LogDraft
  onDraft: (draft: LogDraft) => void
  /** Whether keys go to this lane. */
  active: boolean
}

/** One touch for each thing that happened in a hold. Nothing is chosen before somebody says it. */
export function HoldForm({ side, draft, onDraft, active }: Props) {
  const { t } = useTranslation()
  const [phase, setPhase] = useState<Phase>('during')
  useShortcuts(
    useMemo(() => {
      if (!active) return []
      const during = (score: number) => () => {
        onDraft({ ...draft, scores: { ...draft.scores, during: score } })
      }
      return [
        ...SCORES.slice(0, 10).map((score) => ({ key: String(score), run: during(score) })),
        { key: KEY_OF_TEN, run: during(10) },
      ]
    }, [active, draft, onDraft]),
  )
  return (
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
                const { draft: next, next: asked } = withScore(draft, phase, value)
                onDraft(next)
                setPhase(asked)
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
      <Button
        variant="outlined"
        color="inherit"
        aria-pressed={draft.kind === 'calm' && draft.place === 'wanted' && draft.signs?.length === 0}
        onClick={() => {
          onDraft(calm(draft))
        }}
        sx={{ alignSelf: 'flex-start', minHeight: 44 }}
      >
        {t('mat.calm')}
      </Button>
      <Chips
        label={t('mat.kind')}
        side={side}
        options={KINDS}
        word={(kind) => t(`mat.kinds.${kind}`)}
        chosen={draft.kind === null ? [] : [draft.kind]}
        onToggle={(kind) => {
          onDraft({ ...draft, kind: draft.kind === kind ? null : kind })
        }}
      />
      <Chips
        label={t('mat.place')}
        side={side}
        options={PLACES}
        word={(place) => t(`mat.places.${place}`)}
        chosen={draft.place === null ? [] : [draft.place]}
        onToggle={(place) => {
          onDraft({ ...draft, place: draft.place === place ? null : place })
        }}
      />
      <Chips
        label={t('mat.seen')}
        side={side}
        options={[NOTHING_SEEN, ...SIGNS]}
        word={(sign) => t(sign === NOTHING_SEEN ? 'mat.nothingSeen' : `mat.signs.${sign}`)}
        chosen={draft.signs === null ? [] : draft.signs.length === 0 ? [NOTHING_SEEN] : draft.signs}
        onToggle={(sign) => {
          if (sign !== NOTHING_SEEN) onDraft(withSign(draft, sign))
          else onDraft({ ...draft, signs: draft.signs?.length === 0 ? null : [] })
        }}
      />
      <TextField
        label={t('mat.note')}
        value={draft.note}
        onChange={(event) => {
          onDraft({ ...draft, note: event.target.value })
        }}
        multiline
        maxRows={3}
      />
    </>
  )
}

const NOTHING_SEEN = 'nothing_seen'

import Typography from '@mui/material/Typography'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import TextField from '@mui/material/TextField'
import ToggleButton from '@mui/material/ToggleButton'
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup'
import { useId, useMemo, useState } from 'react'
import { useTranslation } from 'react-i18next'
import type { Lane } from '../../api/client'
import { useCommands } from '../../common/commands'
import { Chips, Touch } from './Chips'
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
  const heading = useId()
  const [phase, setPhase] = useState<Phase>('during')
  useCommands(
    useMemo(() => {
      if (!active) return []
      return [
        {
          name: 'during' as const,
          keys: [...SCORES.slice(0, 10).map(String), KEY_OF_TEN],
          keysAs: '0 – 9',
          run: (key: string) => {
            const score = key === KEY_OF_TEN ? 10 : Number(key)
            onDraft({ ...draft, scores: { ...draft.scores, during: score } })
          },
        },
      ]
    }, [active, draft, onDraft]),
  )
  return (
    <>
      <Box sx={{ display: 'flex', columnGap: 1, alignItems: 'center', flexWrap: 'wrap' }}>
        <Typography variant="note" component="span" id={heading}>
          {t('mat.discomfort')}
        </Typography>
        <ToggleButtonGroup
          exclusive
          aria-labelledby={heading}
          value={phase}
          onChange={(_, each: Phase | null) => {
            if (each !== null) setPhase(each)
          }}
        >
          {PHASES.map((each) => (
            <ToggleButton key={each} value={each}>
              {t(`mat.${each}`)} {draft.scores[each] ?? '–'}
            </ToggleButton>
          ))}
        </ToggleButtonGroup>
      </Box>
      {/* Two rows of digits large enough to be met at arm's length. */}
      <Box
        role="group"
        aria-labelledby={heading}
        sx={{ display: 'grid', gridTemplateColumns: 'repeat(6, minmax(44px, 1fr))', gap: 0.5 }}
      >
        {SCORES.map((value) => (
          <Touch
            key={value}
            side={side}
            on={draft.scores[phase] === value}
            label={`${t(`mat.${phase}`)} ${value.toString()}, ${t(`side.${side}`)}`}
            onTouch={() => {
              const { draft: next, next: asked } = withScore(draft, phase, value)
              onDraft(next)
              setPhase(asked)
            }}
          >
            {value}
          </Touch>
        ))}
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

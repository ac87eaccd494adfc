import Button from '@mui/material/Button'
import { styled } from '@mui/material/styles'
import TextField from '@mui/material/TextField'
import ToggleButton from '@mui/material/ToggleButton'
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup'
import Typography from '@mui/material/Typography'
import { useId, useMemo, useState } from 'react'
import { useTranslation } from 'react-i18next'
import type { Lane } from '../../api/client'
import { useCommands } from '../../common/commands'
import { Row } from '../../common/ui/layout'
import { BodyPlaces } from './BodyPlaces'
import { Touch } from '../../common/ui/Touch'
import { Chips } from './Chips'
import { calm, type Kind, type LogDraft, type Phase, PHASES, type Sign, withScore, withSign } from './model'
import { SCORES, Scores } from '../../common/ui/Scores'

const KINDS: readonly Kind[] = [
  'stretch',
  'warm',
  'pressure',
  'none',
  'sharp',
  'pinching',
  'tingling',
  'numb',
]
const SIGNS: readonly Sign[] = [
  'breath_held',
  'grimace',
  'wobble',
  'knee_drifts_in',
  'knee_rides_up',
  'arch_falls',
  'hip_hikes',
  'back_rounds',
  'pelvis_tilts',
  'clunk',
  'gave_way',
]
const KEY_OF_TEN = ')'

const Form = styled('div')(({ theme }) => ({
  display: 'grid',
  gap: theme.spacing(1, 3),
  gridTemplateColumns: 'minmax(0, 1fr)',
  [theme.breakpoints.up('sm')]: { gridTemplateColumns: 'minmax(0, 1fr) minmax(0, 1fr)' },
  '& .kinds': {
    display: 'grid',
    gap: theme.spacing(0.75),
    gridTemplateColumns: 'repeat(4, minmax(0, 1fr))',
    '& button': { fontSize: '1rem', paddingInline: 2 },
  },
  '& .half': { display: 'grid', gap: theme.spacing(0.75), alignContent: 'start' },
  '& .more': {
    gridColumn: '1 / -1',
    display: 'grid',
    gap: theme.spacing(1.5),
    gridTemplateColumns: '144px minmax(0, 1fr)',
    '& > :last-child': { display: 'grid', gap: theme.spacing(1), alignContent: 'start' },
  },
}))

interface Props {
  side: Lane
  draft: LogDraft
  onDraft: (draft: LogDraft) => void
  /** Discomfort on arrival: what stands for the discomfort before where nobody says otherwise. */
  before: number | null
}

/** What happened in a hold: large digits, then one touch for all that is well, or for its kind; the rest on demand. */
export function HoldForm({ side, draft, onDraft, before }: Props) {
  const { t } = useTranslation()
  const heading = useId()
  const more = useId()
  const [phase, setPhase] = useState<Phase>('during')
  const saysMore =
    (draft.place !== null && draft.place !== 'wanted') || (draft.signs?.length ?? 0) > 0 || draft.note !== ''
  const [open, setOpen] = useState(saysMore)
  useCommands(
    useMemo(
      () => [
        {
          name: 'during' as const,
          keys: [...SCORES.slice(0, 10).map(String), KEY_OF_TEN],
          keysAs: '0 – 9',
          run: (key: string) => {
            const score = key === KEY_OF_TEN ? 10 : Number(key)
            onDraft({ ...draft, scores: { ...draft.scores, during: score } })
          },
        },
      ],
      [draft, onDraft],
    ),
  )
  const isCalm = draft.kind === 'calm' && draft.place === 'wanted' && draft.signs?.length === 0
  const shown = (each: Phase) => draft.scores[each] ?? (each === 'before' ? before : null) ?? '–'
  return (
    <Form>
      <div className="half">
        <Row gap={1} wrap>
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
                {t(`mat.${each}`)} {shown(each)}
              </ToggleButton>
            ))}
          </ToggleButtonGroup>
        </Row>
        <Scores
          side={side}
          of={{ id: heading }}
          value={draft.scores[phase]}
          named={(score) => `${t(`mat.${phase}`)} ${score.toString()}, ${t(`side.${side}`)}`}
          large
          onScore={(score) => {
            const { draft: next, next: asked } = withScore(draft, phase, score)
            onDraft(next)
            setPhase(asked)
          }}
        />
      </div>
      <div className="half">
        <Button
          variant={isCalm ? 'contained' : 'outlined'}
          color={isCalm ? side : 'primary'}
          size="large"
          aria-pressed={isCalm}
          onClick={() => {
            onDraft(calm(draft))
          }}
        >
          {t('mat.calm')}
        </Button>
        <div className="kinds" role="group" aria-label={t('mat.kind')}>
          {KINDS.map((kind) => (
            <Touch
              key={kind}
              side={side}
              on={draft.kind === kind}
              onTouch={() => {
                onDraft({ ...draft, kind: draft.kind === kind ? null : kind })
              }}
            >
              {t(`mat.kinds.${kind}`)}
            </Touch>
          ))}
        </div>
        <Button
          variant="outlined"
          color="inherit"
          aria-expanded={open}
          aria-controls={more}
          onClick={() => {
            setOpen(!open)
          }}
        >
          {t(open ? 'mat.less' : 'mat.more')}
        </Button>
      </div>
      {open && (
        <div className="more" id={more}>
          <BodyPlaces
            side={side}
            place={draft.place}
            onPlace={(place) => {
              onDraft({ ...draft, place: draft.place === place ? null : place })
            }}
          />
          <div>
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
          </div>
        </div>
      )}
    </Form>
  )
}

const NOTHING_SEEN = 'nothing_seen'

import Alert from '@mui/material/Alert'
import Autocomplete from '@mui/material/Autocomplete'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogTitle from '@mui/material/DialogTitle'
import TextField from '@mui/material/TextField'
import Typography from '@mui/material/Typography'
import { type SubmitEvent, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { ApiProblem, type Schemas } from '../../api/client'
import { useKeptDraft } from '../../common/drafts'
import { usePracticeId } from '../../common/route'
import { FieldProblem, FigureField } from './FigureField'
import { Fields, Row } from '../../common/ui/layout'
import {
  copyOf,
  savedMeanwhile,
  type Figure,
  firstUnreadable,
  fixedAngles,
  linesFrom,
  problemAt,
  type VariationFile,
  withSlot,
} from './model'
import { useAddVariation, useChangeVariation, useWords } from './queries'
import { SlotFields } from './SlotFields'

interface Props {
  data: Schemas['VariationOut']
  /** The version a change is made on; without one a copy is made. */
  version?: number
  onClose: () => void
  onSaved: (id: string) => void
}

type Part = Partial<VariationFile['variation']>

/** A rung adjusted: as a copy of the practice's own, or as the next version of one. */
export function AdjustDialog({ data, version, onClose, onSaved }: Props) {
  const { t } = useTranslation()
  const original = data.file as unknown as VariationFile
  const start =
    version === undefined ? copyOf(original, t('library.copyName', { name: data.name })) : original
  const {
    value: draft,
    set: setDraft,
    clear,
  } = useKeptDraft(`variation:${data.id}:${version?.toString() ?? 'copy'}`, {
    file: start,
    ownCues: start.variation.own_cues.join('\n'),
  })
  const practice_id = usePracticeId()
  const add = useAddVariation()
  const change = useChangeVariation()
  const saving = version === undefined ? add : change
  // Saved by somebody else in between: this one goes on top of theirs when it is saved again.
  const meanwhile = savedMeanwhile(saving.error)
  const latest = meanwhile?.number ?? version ?? 1
  const [unreadable, setUnreadable] = useState<string>()
  const problems = {
    ...(saving.error instanceof ApiProblem ? saving.error.byField : {}),
    ...(unreadable === undefined ? {} : { [unreadable]: t('common.notANumber') }),
  }
  const variation = draft.file.variation
  const setFile = (file: VariationFile) => {
    setDraft({ ...draft, file })
  }
  const set = (part: Part) => {
    setFile({ ...draft.file, variation: { ...variation, ...part } })
  }
  const saved = ({ id }: Schemas['SavedOut']) => {
    clear()
    onClose()
    onSaved(id)
  }
  const submit = (event: SubmitEvent) => {
    event.preventDefault()
    const wrong = firstUnreadable(draft.file)
    setUnreadable(wrong)
    if (wrong !== undefined) return
    const file = {
      ...draft.file,
      variation: { ...variation, own_cues: linesFrom(draft.ownCues) },
    } as unknown as Schemas['ChangeIn']['file']
    if (version === undefined)
      add.mutate({ params: { path: { practice_id } }, body: file }, { onSuccess: saved })
    else {
      const path = { practice_id, variation_id: data.id }
      change.mutate({ params: { path }, body: { number: latest, file } }, { onSuccess: saved })
    }
  }
  const at = (path: string) => problemAt(problems, `variation.${path}`)
  const known = [
    'name',
    'short',
    'hold',
    'cues',
    'watch',
    'own_cues',
    ...Object.keys(variation.slots).map((s) => `slots.${s}`),
  ]
  const elsewhere = Object.entries(problems).find(
    ([field]) =>
      !known.some((path) => field === `variation.${path}` || field.startsWith(`variation.${path}.`)),
  )
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="md" aria-labelledby="adjust-title">
      <Box
        component="form"
        onSubmit={submit}
        noValidate
        // The fields scroll; what was wrong and the buttons stay in sight.
        sx={{ display: 'flex', flexDirection: 'column', minHeight: 0 }}
      >
        <DialogTitle id="adjust-title">
          {t(version === undefined ? 'library.copyTitle' : 'library.changeTitle', { name: data.name })}
        </DialogTitle>
        {unreadable !== undefined && (
          <Alert severity="error" sx={{ mx: 3, mb: 1 }}>
            {t('library.notSaved')}
          </Alert>
        )}
        {saving.isError && unreadable === undefined && (
          <Alert severity="error" sx={{ mx: 3, mb: 1 }}>
            {messageOf(saving.error, elsewhere, t('library.notSaved'))}
          </Alert>
        )}
        {meanwhile !== undefined && (
          <Alert severity="warning" sx={{ mx: 3, mb: 1 }}>
            {t('library.meanwhile', { number: meanwhile.number, name: meanwhile.file.variation.name })}
          </Alert>
        )}
        <Fields>
          <Box sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr', md: '1fr 260px' }, gap: 2 }}>
            <TextField
              label={t('library.name')}
              value={variation.name}
              error={at('name') !== undefined}
              helperText={at('name')}
              onChange={(event) => {
                set({ name: event.target.value })
              }}
            />
            <TextField
              label={t('library.short')}
              value={variation.short}
              error={at('short') !== undefined}
              helperText={at('short') ?? t('library.shortHint')}
              onChange={(event) => {
                set({ short: event.target.value })
              }}
            />
          </Box>
          <Typography variant="h3">{t('library.mayBeSet')}</Typography>
          {Object.entries(variation.slots)
            .filter(([, slot]) => slot.type !== 'choice')
            .map(([name, slot]) => (
              <SlotFields
                key={name}
                slot={slot}
                problem={at(`slots.${name}`)}
                onChange={(part) => {
                  setFile(withSlot(draft.file, name, part))
                }}
              />
            ))}
          {fixedAngles(original.variation.recipe).map(([name]) => (
            <Row key={name} gap={1.5}>
              <Box sx={{ width: 190 }}>{t(`library.trunk.${name}`)}</Box>
              <FigureField
                name={t(`library.trunk.${name}`)}
                unit="deg"
                value={variation.recipe[name] as Figure}
                onChange={(value) => {
                  set({ recipe: { ...variation.recipe, [name]: value } })
                }}
              />
            </Row>
          ))}
          <Typography variant="h3">{t('library.dose')}</Typography>
          <HoldFields
            hold={variation.hold}
            problem={at('hold')}
            onChange={(hold) => {
              set({ hold })
            }}
          />
          <Words
            section="cues"
            label={t('library.say')}
            chosen={variation.cues}
            problem={at('cues')}
            onChange={(cues) => {
              set({ cues })
            }}
          />
          <TextField
            multiline
            minRows={2}
            label={t('library.ownCues')}
            value={draft.ownCues}
            error={at('own_cues') !== undefined}
            helperText={at('own_cues') ?? t('library.ownCuesHint')}
            onChange={(event) => {
              setDraft({ ...draft, ownCues: event.target.value })
            }}
          />
          <Words
            section="watch"
            label={t('library.watchFor')}
            chosen={variation.watch}
            problem={at('watch')}
            onChange={(watch) => {
              set({ watch })
            }}
          />
          <Typography variant="note">{t('library.keptFromOriginal')}</Typography>
        </Fields>
        <DialogActions>
          <Button
            onClick={() => {
              clear()
              onClose()
            }}
          >
            {t('library.discard')}
          </Button>
          <Button onClick={onClose}>{t('library.later')}</Button>
          <Button type="submit" variant="contained" disabled={saving.isPending}>
            {t(saving.isPending ? 'library.checking' : 'common.save')}
          </Button>
        </DialogActions>
      </Box>
    </Dialog>
  )
}

/** What stands above the fields: what is said of no field here, else that one of them needs a look. */
function messageOf(error: Error, elsewhere: [string, string] | undefined, look: string): string {
  if (elsewhere !== undefined) return `${elsewhere[0]}: ${elsewhere[1]}`
  return error instanceof ApiProblem && error.problem.fields.length > 0 ? look : error.message
}

interface HoldProps {
  hold: VariationFile['variation']['hold']
  problem: string | undefined
  onChange: (hold: VariationFile['variation']['hold']) => void
}

function HoldFields({ hold, problem, onChange }: HoldProps) {
  const { t } = useTranslation()
  const field = (name: 'from' | 'to' | 'step' | 'sets') => (
    <FigureField
      label={t(`library.hold.${name}`)}
      unit={hold.style === 'seconds' && name !== 'sets' ? 's' : 'plain'}
      value={hold[name]}
      onChange={(value) => {
        onChange({ ...hold, [name]: value })
      }}
    />
  )
  return (
    <Box>
      <Row gap={1.5}>
        <Box sx={{ width: 190 }}>{t(`library.holdStyle.${hold.style}`)}</Box>
        {field('from')}
        {field('to')}
        {field('step')}
        {hold.style === 'reps' && field('sets')}
      </Row>
      {problem !== undefined && <FieldProblem text={problem} />}
    </Box>
  )
}

interface WordsProps {
  section: 'cues' | 'watch'
  label: string
  chosen: string[]
  problem: string | undefined
  onChange: (codes: string[]) => void
}

/** Sentences of the catalogue, in the order they were chosen. */
function Words({ section, label, chosen, problem, onChange }: WordsProps) {
  const { t } = useTranslation()
  const words = useWords()
  const all = words.data?.[section] ?? []
  const say = new Map(all.map((each) => [each.code, each.words]))
  return (
    <Autocomplete
      multiple
      disableCloseOnSelect
      clearText={t('common.list.clear')}
      openText={t('common.list.open')}
      closeText={t('common.list.close')}
      noOptionsText={t('common.list.nothing')}
      options={all.map((each) => each.code)}
      value={chosen}
      getOptionLabel={(code) => say.get(code) ?? code}
      onChange={(_, codes) => {
        onChange(codes)
      }}
      renderInput={(params) => (
        <TextField {...params} label={label} error={problem !== undefined} helperText={problem} />
      )}
    />
  )
}

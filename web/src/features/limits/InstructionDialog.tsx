import Button from '@mui/material/Button'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogTitle from '@mui/material/DialogTitle'
import { styled } from '@mui/material/styles'
import TextField from '@mui/material/TextField'
import { type SubmitEvent, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { ApiProblem, type Schemas } from '../../api/client'
import { useKeptDraft } from '../../common/drafts'
import { DateField } from '../../common/forms/DateField'
import { undated } from '../../common/forms/dated'
import { NumberField } from '../../common/forms/NumberField'
import { UNFINISHED } from '../../common/forms/unfinished'
import { type Who, WordFields } from '../../common/forms/WordFields'
import { useClientPath } from '../../common/route'
import { DraftNote } from '../../common/ui/DraftNote'
import { Fields, Row } from '../../common/ui/layout'
import { Refused } from '../../common/ui/States'
import { colours } from '../../theme/theme'
import { type FiguresDraft, figuresFrom, inUnit, keyOf, typedIn, unreadableFigures } from './instructions'
import { useGiveInstruction } from './queries'

const Figures = styled('div')(({ theme }) => ({
  display: 'grid',
  gridTemplateColumns: 'minmax(0, 1fr) auto 150px',
  gap: theme.spacing(1, 1.5),
  alignItems: 'center',
  '& .now': { color: colours.muted, fontVariantNumeric: 'tabular-nums', whiteSpace: 'nowrap' },
  '& h3': { gridColumn: '1 / -1', margin: 0, fontSize: '1rem' },
  '& p': { gridColumn: '1 / -1', margin: 0, color: colours.muted, fontSize: '0.92rem' },
}))

interface Draft {
  who: Who
  date: string
  until: string
  text: string
  figures: FiguresDraft
}

interface Props {
  entry: Schemas['EntryOut']
  onClose: () => void
}

/** What a treating professional said of a record: in their words, and as figures in the place of the usual ones. */
export function InstructionDialog({ entry, onClose }: Props) {
  const { t } = useTranslation()
  const path = useClientPath()
  const {
    value: draft,
    set: setDraft,
    clear,
    since,
  } = useKeptDraft<Draft>(`instruction:${entry.root}`, {
    who: entry.operated_on === null ? 'doctor' : 'surgeon',
    date: '',
    until: '',
    text: '',
    figures: {},
  })
  const give = useGiveInstruction()
  const [tried, setTried] = useState(false)
  const problems = give.error instanceof ApiProblem ? give.error.byField : {}
  const missing = undated(draft.date)
  const unread = unreadableFigures(entry.figures, draft.figures)
  const figures = figuresFrom(entry.figures, draft.figures)
  const empty = draft.text.trim() === '' && figures.length === 0
  const submit = (event: SubmitEvent) => {
    event.preventDefault()
    setTried(true)
    if (missing !== undefined || unread.length > 0 || empty || draft.until === UNFINISHED) return
    const { who, date, until, text } = draft
    give.mutate(
      {
        params: { path: { ...path, entry_id: entry.id } },
        body: { who, date, text: text.trim(), figures, ...(until === '' ? {} : { until }) },
      },
      {
        onSuccess: () => {
          clear()
          onClose()
        },
      },
    )
  }
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="sm" aria-labelledby="instruction-title">
      <form onSubmit={submit} noValidate>
        <DialogTitle id="instruction-title">{t('limits.word.title', { what: entry.label })}</DialogTitle>
        <Fields>
          <DraftNote since={since} onDiscard={clear} />
          <Refused error={give.error} />
          <Row align="flex-start" gap={2} wrap>
            <WordFields
              who={draft.who}
              date={draft.date}
              problem={tried && missing !== undefined ? t(missing) : problems['date']}
              onChange={(changed) => {
                setDraft({ ...draft, ...changed })
              }}
            />
            <DateField
              label={t('limits.word.until')}
              value={draft.until}
              problem={draft.until === UNFINISHED && tried ? t('common.unfinishedDate') : problems['until']}
              onChange={(until) => {
                setDraft({ ...draft, until })
              }}
            />
          </Row>
          <TextField
            label={t('limits.word.text')}
            value={draft.text}
            multiline
            minRows={2}
            error={tried && empty}
            helperText={tried && empty ? t('limits.word.empty') : undefined}
            onChange={(event) => {
              setDraft({ ...draft, text: event.target.value })
            }}
          />
          {entry.figures.length > 0 && (
            <Figures>
              <h3>{t('limits.word.figures')}</h3>
              <p>{t('limits.word.figuresMore')}</p>
              {entry.figures.map((figure) => {
                const key = keyOf(figure)
                return [
                  <span key={`${key} words`}>{figure.words}</span>,
                  <span key={`${key} now`} className="now">
                    {t(figure.above ? 'limits.word.upTo' : 'limits.word.atLeast', {
                      figure: inUnit(t, figure),
                    })}
                  </span>,
                  <NumberField
                    key={key}
                    name={t('limits.word.instead', { what: figure.words })}
                    unit={typedIn(figure)}
                    text={draft.figures[key] ?? ''}
                    onType={(text) => {
                      setDraft({ ...draft, figures: { ...draft.figures, [key]: text } })
                    }}
                  />,
                ]
              })}
            </Figures>
          )}
        </Fields>
        <DialogActions>
          <Button onClick={onClose}>{t('common.cancel')}</Button>
          <Button type="submit" variant="contained" disabled={give.isPending}>
            {t('common.save')}
          </Button>
        </DialogActions>
      </form>
    </Dialog>
  )
}

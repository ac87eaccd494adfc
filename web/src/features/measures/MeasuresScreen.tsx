import Alert from '@mui/material/Alert'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Checkbox from '@mui/material/Checkbox'
import FormControlLabel from '@mui/material/FormControlLabel'
import MenuItem from '@mui/material/MenuItem'
import TextField from '@mui/material/TextField'
import Typography from '@mui/material/Typography'
import { type SubmitEvent, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { ApiProblem, type Schemas } from '../../api/client'
import { asTyped } from '../../common/forms/numbers'
import { length } from '../../common/practice'
import { shortDate } from '../../common/dates'
import { useKeptDraft } from '../../common/drafts'
import { DateField } from '../../common/forms/DateField'
import { UNFINISHED } from '../../common/forms/unfinished'
import { NumberField } from '../../common/forms/NumberField'
import { notANumber } from '../../common/forms/words'
import { useClientHead } from '../../common/head'
import { useClientPath } from '../../common/route'
import { SideHead } from '../../common/ui/SideHead'
import { Failure, Working, Refused } from '../../common/ui/States'
import { DraftNote } from '../../common/ui/DraftNote'
import { laneColour } from '../../theme/theme'
import { Row } from '../../common/ui/layout'
import { EMPTY_DRAFT, type Method, readingsFrom, unitOfField } from './model'
import { useMeasures, useStoreReadings } from './queries'
import { RangeRow } from './RangeRow'
import { SittingCheck } from './SittingCheck'
import { SeenShapes } from './SeenShapes'
import { Tests } from './Tests'
import { SolesTogether } from './SolesTogether'

const METHODS: readonly Method[] = ['goniometer', 'inclinometer', 'tape', 'eye']

/** In the order one measures in the room: what today's ladders lean on comes first. */
const ORDER: readonly Schemas['Quantity'][] = [
  'open_external_rotation',
  'hip_flexion',
  'knee_flexion',
  'open_abduction',
  'straight_leg_raise',
  'ninety_ninety_lack',
  'hip_internal_rotation',
  'hip_adduction',
  'hip_extension',
  'planted_dorsiflexion',
]

/** Measures, left and right fields facing. What is typed stays until it is stored. */
export function MeasuresScreen() {
  const { t } = useTranslation()
  const path = useClientPath()
  const measures = useMeasures()
  const head = useClientHead()
  const store = useStoreReadings()
  const {
    value: draft,
    set: setDraft,
    clear,
    since,
  } = useKeptDraft(`measures:${path.client_id}`, EMPTY_DRAFT)
  const [local, setLocal] = useState<Record<string, string>>({})
  if (measures.isPending) return <Working />
  if (measures.isError) return <Failure error={measures.error} again={() => void measures.refetch()} />
  const problems = { ...(store.error instanceof ApiProblem ? store.error.byField : {}), ...local }
  const type = (field: string, text: string) => {
    setLocal(Object.fromEntries(Object.entries(local).filter(([name]) => name !== field)))
    setDraft({ ...draft, typed: { ...draft.typed, [field]: text } })
  }
  const submit = (event: SubmitEvent) => {
    event.preventDefault()
    const found = readingsFrom(draft, (unit) => notANumber(t, unit))
    if (draft.date === UNFINISHED) found.problems['date'] = t('common.unfinishedDate')
    setLocal(found.problems)
    if (Object.keys(found.problems).length > 0) return
    if (found.readings.length === 0) {
      setLocal({ '(form)': t('measures.nothingToStore') })
      return
    }
    store.mutate(
      {
        params: { path },
        body: { readings: found.readings, ...(draft.date === '' ? {} : { date: draft.date }) },
      },
      { onSuccess: clear },
    )
  }
  const chairAdvice = (surplus: number) => {
    const height = length(t, Math.abs(surplus))
    if (Math.round(surplus) === 0) return t('measures.chairFits')
    return t(surplus > 0 ? 'measures.chairHigh' : 'measures.chairLow', { height })
  }
  const bodyField = (quantity: 'stature' | 'weight' | 'chair_height') => {
    const latest = measures.data.body[quantity]?.[0]
    return (
      <NumberField
        label={t(`measures.${quantity}`)}
        unit={unitOfField(quantity)}
        text={draft.typed[quantity] ?? ''}
        placeholder={latest === undefined ? '' : asTyped(latest.value, unitOfField(quantity))}
        problem={problems[quantity]}
        hint={
          latest === undefined
            ? ' '
            : `${asTyped(latest.value, unitOfField(quantity))} · ${shortDate(latest.date)}`
        }
        onType={(text) => {
          type(quantity, text)
        }}
        sx={{ width: 100 }}
      />
    )
  }
  const chair = measures.data.body['chair_height']?.[0]?.value
  const level = measures.data.level_seat_cm
  const byQuantity = new Map(measures.data.ranges.map((range) => [range.quantity, range]))
  return (
    <Box component="form" onSubmit={submit} noValidate>
      <Row gap={1.5} wrap align="flex-start">
        {bodyField('stature')}
        {bodyField('weight')}
        {bodyField('chair_height')}
        <TextField
          select
          label={t('measures.method')}
          value={draft.method}
          onChange={(event) => {
            setDraft({ ...draft, method: event.target.value as Method })
          }}
          sx={{ width: 176 }}
        >
          {METHODS.map((method) => (
            <MenuItem key={method} value={method}>
              {t(`measures.methods.${method}`)}
            </MenuItem>
          ))}
        </TextField>
        <DateField
          label={t('measures.date')}
          value={draft.date === '' ? (head.data?.today ?? '') : draft.date}
          problem={problems['date']}
          onChange={(date) => {
            setDraft({ ...draft, date })
          }}
          sx={{ width: 166 }}
        />
        <FormControlLabel
          sx={{ mr: 0, whiteSpace: 'nowrap' }}
          label={t('measures.pelvisHeld')}
          control={
            <Checkbox
              size="small"
              checked={draft.pelvisHeld}
              onChange={(_, checked) => {
                setDraft({ ...draft, pelvisHeld: checked })
              }}
            />
          }
        />
        <Button
          type="submit"
          variant="contained"
          sx={{ ml: 'auto', minHeight: 40, whiteSpace: 'nowrap' }}
          disabled={store.isPending}
        >
          {t('measures.storeReadings')}
        </Button>
      </Row>
      <DraftNote since={since} onDiscard={clear} />
      <Refused error={store.error} sx={{ mt: 1 }} />
      {problems['(form)'] !== undefined && (
        <Alert severity="info" sx={{ mt: 1 }}>
          {problems['(form)']}
        </Alert>
      )}
      {store.isSuccess && Object.keys(draft.typed).length === 0 && (
        <Typography role="status" sx={{ color: laneColour('left'), fontWeight: 600 }}>
          {t('measures.saved')}
        </Typography>
      )}
      {measures.data.level_seat_cm !== null && (
        <Typography color="text.secondary" sx={{ mt: 0.5 }}>
          {t('measures.levelSeat', { height: length(t, measures.data.level_seat_cm) })}{' '}
          {chair !== undefined && level !== null && chairAdvice(chair - level)}
        </Typography>
      )}
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: { xs: '1fr 1fr', md: '1fr 260px 1fr' },
          mt: 2,
          alignItems: 'end',
          direction: 'ltr',
        }}
      >
        <Box sx={{ textAlign: 'right', borderBottom: `4px solid ${laneColour('left')}`, pb: 0.5, pr: 1 }}>
          <SideHead side="left" />
        </Box>
        <Typography
          color="text.secondary"
          sx={{
            textAlign: 'center',
            fontSize: '0.88rem',
            px: 2,
            gridColumn: { xs: '1 / -1', md: 'auto' },
            order: { xs: -1, md: 0 },
          }}
        >
          {t('measures.rangesMore')}
        </Typography>
        <Box sx={{ borderBottom: `4px solid ${laneColour('right')}`, pb: 0.5, pl: 1 }}>
          <SideHead side="right" />
        </Box>
      </Box>
      {ORDER.map((quantity) => {
        const range = byQuantity.get(quantity)
        return range === undefined ? null : (
          <RangeRow key={quantity} range={range} typed={draft.typed} problems={problems} onType={type} />
        )
      })}
      <SolesTogether
        onUse={(side, reading) => {
          const field = `open_external_rotation.${side}`
          setDraft({
            ...draft,
            typed: { ...draft.typed, [field]: reading.text },
            tape: { ...draft.tape, [field]: reading },
          })
        }}
      />
      <SittingCheck
        measures={measures.data}
        draft={draft}
        problems={problems}
        onType={type}
        onLook={(lowBack) => {
          setDraft({ ...draft, lowBack })
        }}
      />
      <Tests measures={measures.data} draft={draft} problems={problems} onType={type} />
      <SeenShapes measures={measures.data} />
    </Box>
  )
}

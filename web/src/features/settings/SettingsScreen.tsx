import Alert from '@mui/material/Alert'
import Autocomplete from '@mui/material/Autocomplete'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import FormControl from '@mui/material/FormControl'
import FormControlLabel from '@mui/material/FormControlLabel'
import FormHelperText from '@mui/material/FormHelperText'
import FormLabel from '@mui/material/FormLabel'
import Radio from '@mui/material/Radio'
import RadioGroup from '@mui/material/RadioGroup'
import TextField from '@mui/material/TextField'
import Typography from '@mui/material/Typography'
import { useState, type SubmitEvent } from 'react'
import { useTranslation } from 'react-i18next'
import { ApiProblem, type Schemas } from '../../api/client'
import { longDate } from '../../common/dates'
import type { Settings } from '../../common/practice'
import { usePracticeId } from '../../common/route'
import { useMe } from '../../common/session'
import { LanguageChoice } from '../../common/ui/LanguageChoice'
import { LightChoice } from '../../common/ui/LightChoice'
import { Main } from '../../common/ui/Main'
import { ViewTitle } from '../../common/ui/ViewTitle'
import { Row } from '../../common/ui/layout'
import { Licences } from './Licences'
import { useChangeSettings, useTimeZones } from './queries'

type Draft = Schemas['SettingsIn']

/** How the practice writes things, what this device shows, and what all of it is built with. */
export function SettingsScreen() {
  const { t } = useTranslation()
  const practiceId = usePracticeId()
  const me = useMe()
  const practice = me.data?.practices.find((each) => each.id === practiceId)
  return (
    <Main sx={{ maxWidth: 860, mx: 'auto', px: { xs: 1.5, md: 3 }, py: 3, display: 'grid', gap: 4 }}>
      <ViewTitle />
      {practice !== undefined && (
        <PracticeSettings settings={practice.settings} owner={practice.role === 'owner'} />
      )}
      <Box component="section" sx={{ display: 'flex', flexWrap: 'wrap', gap: 3 }}>
        <Box>
          <Typography variant="h2" sx={{ mb: 1 }}>
            {t('settings.light')}
          </Typography>
          <LightChoice place="desk" />
        </Box>
        {(me.data?.languages.length ?? 0) > 1 && (
          <Box>
            <Typography variant="h2" sx={{ mb: 1 }}>
              {t('settings.language')}
            </Typography>
            <LanguageChoice languages={me.data?.languages ?? []} />
          </Box>
        )}
      </Box>
      <Licences />
    </Main>
  )
}

const UNITS: readonly Draft['units'][] = ['metric', 'imperial']
const DATES: readonly [Draft['date_format'], string][] = [
  ['day_month_year', '24/11/2026'],
  ['month_day_year', '11/24/2026'],
  ['year_month_day', '2026-11-24'],
]
const DAYS: readonly [Draft['first_day_of_week'], 'monday' | 'sunday' | 'saturday'][] = [
  [1, 'monday'],
  [0, 'sunday'],
  [6, 'saturday'],
]

function PracticeSettings({ settings, owner }: { settings: Settings; owner: boolean }) {
  const { t } = useTranslation()
  const practice_id = usePracticeId()
  const { today, ...stored } = settings
  const [draft, setDraft] = useState<Draft>(stored)
  const zones = useTimeZones()
  const change = useChangeSettings()
  const problems = change.error instanceof ApiProblem ? change.error.byField : {}
  const submit = (event: SubmitEvent) => {
    event.preventDefault()
    change.mutate({ params: { path: { practice_id } }, body: draft })
  }
  const set = (part: Partial<Draft>) => {
    setDraft({ ...draft, ...part })
  }
  return (
    <Box
      component="form"
      onSubmit={submit}
      aria-labelledby="practice-settings"
      sx={{ display: 'grid', gap: 2.5 }}
    >
      <Typography id="practice-settings" variant="h2">
        {t('settings.practice')}
      </Typography>
      {!owner && <Alert severity="info">{t('settings.ownerOnly')}</Alert>}
      <TextField
        label={t('settings.name')}
        value={draft.name}
        disabled={!owner}
        error={problems['name'] !== undefined}
        helperText={problems['name']}
        onChange={(event) => {
          set({ name: event.target.value })
        }}
        sx={{ maxWidth: 420 }}
      />
      <Choice
        label={t('settings.units')}
        more={t('settings.unitsMore')}
        disabled={!owner}
        value={draft.units}
        options={UNITS.map((each) => [each, t(`settings.${each}`)])}
        onChoose={(units) => {
          set({ units })
        }}
      />
      <Choice
        label={t('settings.dates')}
        disabled={!owner}
        value={draft.date_format}
        options={DATES}
        onChoose={(date_format) => {
          set({ date_format })
        }}
      />
      <Choice
        label={t('settings.week')}
        disabled={!owner}
        value={draft.first_day_of_week}
        options={DAYS.map(([day, name]) => [day, t(`settings.days.${name}`)])}
        onChoose={(first_day_of_week) => {
          set({ first_day_of_week })
        }}
      />
      <Autocomplete
        options={zones.data ?? [draft.time_zone]}
        value={draft.time_zone}
        disableClearable
        openText={t('common.list.open')}
        closeText={t('common.list.close')}
        noOptionsText={t('common.list.nothing')}
        disabled={!owner}
        onChange={(_, time_zone) => {
          set({ time_zone })
        }}
        renderInput={(params) => (
          <TextField
            {...params}
            label={t('settings.zone')}
            error={problems['time_zone'] !== undefined}
            helperText={problems['time_zone'] ?? t('settings.today', { date: longDate(today) })}
          />
        )}
        sx={{ maxWidth: 420 }}
      />
      {change.isError && Object.keys(problems).length === 0 && (
        <Alert severity="error">{change.error.message}</Alert>
      )}
      {owner && (
        <Row gap={2}>
          <Button type="submit" variant="contained" disabled={change.isPending}>
            {t('common.save')}
          </Button>
          <span role="status">{change.isSuccess && t('settings.saved')}</span>
        </Row>
      )}
    </Box>
  )
}

interface ChoiceProps<Value extends string | number> {
  label: string
  more?: string
  disabled: boolean
  value: Value
  options: readonly (readonly [Value, string])[]
  onChoose: (value: Value) => void
}

/** One of a few, all in sight. */
function Choice<Value extends string | number>({
  label,
  more,
  disabled,
  value,
  options,
  onChoose,
}: ChoiceProps<Value>) {
  return (
    <FormControl disabled={disabled}>
      <FormLabel>{label}</FormLabel>
      <RadioGroup
        row
        aria-label={label}
        value={value}
        onChange={(_, chosen) => {
          const found = options.find(([each]) => String(each) === chosen)
          if (found !== undefined) onChoose(found[0])
        }}
      >
        {options.map(([each, words]) => (
          <FormControlLabel key={each} value={each} control={<Radio />} label={words} />
        ))}
      </RadioGroup>
      {more !== undefined && <FormHelperText>{more}</FormHelperText>}
    </FormControl>
  )
}

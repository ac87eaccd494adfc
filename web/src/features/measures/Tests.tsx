import Box from '@mui/material/Box'
import MenuItem from '@mui/material/MenuItem'
import TextField from '@mui/material/TextField'
import { useTranslation } from 'react-i18next'
import type { Schemas } from '../../api/client'
import { shortDate } from '../../common/dates'
import { NumberField } from '../../common/forms/NumberField'
import { Row } from '../../common/ui/layout'
import { MOVES_AS_ONE, type ReadingsDraft, RESULTS } from './model'

interface Props {
  measures: Schemas['MeasuresOut']
  draft: ReadingsDraft
  problems: Record<string, string>
  onType: (field: string, text: string) => void
}

/** What no range shows: how long one leg carries, and whether thigh and shin lift as one. */
export function Tests({ measures, draft, problems, onType }: Props) {
  const { t } = useTranslation()
  const stand = measures.body['one_leg_stand']?.[0]
  return (
    <Box component="section" aria-label={t('measures.tests.title')} sx={{ pt: 2.5 }}>
      <Box sx={{ fontWeight: 600, textAlign: 'center' }}>{t('measures.tests.title')}</Box>
      <Box sx={{ fontSize: '0.8rem', color: 'text.secondary', textAlign: 'center', mb: 1.5 }}>
        {t('measures.tests.how')}
      </Box>
      <Row gap={2} wrap align="stretch" justify="center">
        {(['left', 'right'] as const).map((side) => {
          const field = `${MOVES_AS_ONE}.${side}`
          const latest = measures.seen[MOVES_AS_ONE]?.[side]?.[0]
          const result = RESULTS[latest?.value ?? -1]
          const told =
            latest === undefined || result === undefined
              ? ' '
              : `${t(`measures.tests.${result}`)} · ${shortDate(latest.date)}`
          return (
            <TextField
              key={side}
              select
              label={t('measures.tests.asOne', { side: t(`side.${side}`) })}
              value={draft.typed[field] ?? ''}
              error={problems[field] !== undefined}
              helperText={problems[field] ?? told}
              slotProps={{ inputLabel: { shrink: true } }}
              onChange={(event) => {
                onType(field, event.target.value)
              }}
              sx={{ width: 240 }}
            >
              {RESULTS.map((each, number) => (
                <MenuItem key={each} value={String(number)}>
                  {t(`measures.tests.${each}`)}
                </MenuItem>
              ))}
            </TextField>
          )
        })}
        <NumberField
          label={t('measures.tests.oneLeg')}
          unit="s"
          text={draft.typed['one_leg_stand'] ?? ''}
          problem={problems['one_leg_stand']}
          hint={stand === undefined ? ' ' : `${stand.value.toString()} s · ${shortDate(stand.date)}`}
          onType={(text) => {
            onType('one_leg_stand', text)
          }}
          sx={{ width: 240 }}
        />
      </Row>
    </Box>
  )
}

import Box from '@mui/material/Box'
import MenuItem from '@mui/material/MenuItem'
import TextField from '@mui/material/TextField'
import { useTranslation } from 'react-i18next'
import type { Schemas } from '../../api/client'
import { length } from '../../common/practice'
import { shortDate } from '../../common/dates'
import { NumberField } from '../../common/forms/NumberField'
import { Row } from '../../common/ui/layout'
import type { ReadingsDraft } from './model'

interface Props {
  measures: Schemas['MeasuresOut']
  draft: ReadingsDraft
  problems: Record<string, string>
  onType: (field: string, text: string) => void
  onLook: (lowBack: ReadingsDraft['lowBack']) => void
}

const FIELDS = ['sitting_seat', 'sitting_knee_minus_hip', 'sitting_plumb_offset'] as const
const LOW_BACKS = ['hollow', 'flat', 'rounded'] as const

/** How this client sits: seat, knees against hips, the low back, ear over shoulder over hip. */
export function SittingCheck({ measures, draft, problems, onType, onLook }: Props) {
  const { t } = useTranslation()
  const look = measures.body['sitting_seat']?.[0]
  return (
    <Box component="section" aria-label={t('measures.sitting.title')} sx={{ pt: 2.5 }}>
      <Box sx={{ fontWeight: 600, textAlign: 'center' }}>{t('measures.sitting.title')}</Box>
      <Box sx={{ fontSize: '0.8rem', color: 'text.secondary', textAlign: 'center', mb: 1.5 }}>
        {t('measures.sitting.how')}
      </Box>
      <Row gap={2} wrap align="stretch" justify="center">
        {FIELDS.map((name) => {
          const latest = measures.body[name]?.[0]
          return (
            <NumberField
              key={name}
              label={t(`measures.sitting.${name}`)}
              unit="cm"
              text={draft.typed[name] ?? ''}
              problem={problems[name]}
              hint={latest ? `${length(t, latest.value, 1)} · ${shortDate(latest.date)}` : ' '}
              onType={(text) => {
                onType(name, text)
              }}
              sx={{ width: 220 }}
            />
          )
        })}
        <TextField
          select
          label={t('measures.sitting.lowBack')}
          value={draft.lowBack}
          helperText={
            look !== undefined && look.note !== '' ? t(`measures.sitting.${look.note as 'flat'}`) : ' '
          }
          slotProps={{ inputLabel: { shrink: true } }}
          onChange={(event) => {
            onLook(event.target.value as ReadingsDraft['lowBack'])
          }}
          sx={{ width: 150 }}
        >
          {LOW_BACKS.map((each) => (
            <MenuItem key={each} value={each}>
              {t(`measures.sitting.${each}`)}
            </MenuItem>
          ))}
        </TextField>
      </Row>
    </Box>
  )
}

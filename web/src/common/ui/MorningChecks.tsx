import Alert from '@mui/material/Alert'
import Box from '@mui/material/Box'
import { useTranslation } from 'react-i18next'
import type { Lane } from '../../api/client'
import { shortDate } from '../dates'
import { colours, laneColour } from '../../theme/theme'
import { useClientPath } from '../route'
import { Row } from './layout'
import { MorningAnswers } from './MorningAnswers'
import { said, useMorning } from '../mornings'

/** A hold of an earlier day of whose next morning nobody has told. */
export interface OpenMorning {
  id: string
  side: Lane
  short: string
  date: string
  /** Whether it was asked about already, without an answer so far. */
  asked: boolean
}

/** The next-morning question for everything not yet answered. */
export function MorningChecks({ items }: { items: readonly OpenMorning[] }) {
  const { t } = useTranslation()
  const path = useClientPath()
  const morning = useMorning()
  const answer = (item_id: string, settled?: boolean) => {
    morning.mutate({ params: { path: { ...path, item_id } }, body: said(settled) })
  }
  return (
    <Box
      component="section"
      aria-label={t('mat.morningTitle')}
      sx={{
        bgcolor: colours.panel,
        px: 2.5,
        py: 1,
        display: 'flex',
        flexWrap: 'wrap',
        gap: 2,
        alignItems: 'center',
      }}
    >
      <strong>{t('mat.morningTitle')}</strong>
      {morning.isError && (
        <Alert severity="error">
          {t('mat.morningFailed')} {morning.error.message}
        </Alert>
      )}
      {items.map((item) => (
        <Row key={item.id} gap={0.75}>
          <span style={{ color: laneColour(item.side) }}>
            {t(`side.${item.side}`)}, {item.short}, {shortDate(item.date)}
          </span>
          <MorningAnswers
            asked={item.asked}
            busy={morning.isPending}
            onAnswer={(settled) => {
              answer(item.id, settled)
            }}
          />
        </Row>
      ))}
    </Box>
  )
}

import Alert from '@mui/material/Alert'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import { useTranslation } from 'react-i18next'
import type { Schemas } from '../../api/client'
import { shortDate } from '../../common/dates'
import { colours, laneColour } from '../../theme/theme'
import { useClientPath } from '../../common/route'
import { Row } from '../../common/ui/layout'
import { useMorning } from './queries'

/** The next-morning question for everything not yet answered, asked at arrival. */
export function MorningChecks({ items }: { items: Schemas['ItemOut'][] }) {
  const { t } = useTranslation()
  const path = useClientPath()
  const morning = useMorning()
  const answer = (item_id: string, settled: boolean) => {
    morning.mutate({ params: { path: { ...path, item_id } }, body: { settled } })
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
          <Button
            variant="outlined"
            color="inherit"
            disabled={morning.isPending}
            onClick={() => {
              answer(item.id, true)
            }}
          >
            {t('mat.settled')}
          </Button>
          <Button
            variant="outlined"
            color="inherit"
            disabled={morning.isPending}
            onClick={() => {
              answer(item.id, false)
            }}
          >
            {t('mat.notSettled')}
          </Button>
        </Row>
      ))}
    </Box>
  )
}

import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import { useTranslation } from 'react-i18next'
import type { Schemas } from '../../api/client'
import { shortDate } from '../../common/dates'
import { seenReading } from '../../common/readings'
import { Failure } from '../../common/ui/States'
import { useClientPath } from '../../common/route'
import { laneColour } from '../../theme/theme'
import { Rest } from '../../common/ui/layout'
import { seenShapes } from './model'
import { useStoreReadings } from './queries'

/** What was seen on the mat beyond the model's bounds, each to be taken back. */
export function SeenShapes({ measures }: { measures: Schemas['MeasuresOut'] }) {
  const { t } = useTranslation()
  const path = useClientPath()
  const store = useStoreReadings()
  const shapes = seenShapes(measures.seen)
  if (shapes.length === 0) return null
  return (
    <Box
      component="section"
      aria-label={t('measures.seen.title')}
      sx={{ pt: 2.5, maxWidth: 640, mx: 'auto' }}
    >
      <Box sx={{ fontWeight: 600, textAlign: 'center' }}>{t('measures.seen.title')}</Box>
      <Box sx={{ fontSize: '0.8rem', color: 'text.secondary', textAlign: 'center', mb: 1 }}>
        {t('measures.seen.how')}
      </Box>
      {shapes.map(({ bound, sides, date }) => {
        const side = sides.length === 1 ? sides[0] : undefined
        return (
          <Box
            key={`${bound}.${sides.join()}`}
            sx={{ display: 'flex', alignItems: 'center', gap: 1.5, minHeight: 36 }}
          >
            <Rest>
              <Box component="strong" sx={{ color: side && laneColour(side), mr: 1 }}>
                {side === undefined
                  ? shortDate(date)
                  : t('measures.seen.on', { side: t(`side.${side}`), date: shortDate(date) })}
              </Box>
              {t(`measures.seen.bounds.${bound}`)}
            </Rest>
            <Button
              size="small"
              disabled={store.isPending}
              onClick={() => {
                store.mutate({
                  params: { path },
                  body: { readings: sides.map((each) => seenReading(bound, each, 0)) },
                })
              }}
            >
              {t('measures.seen.takeBack')}
            </Button>
          </Box>
        )
      })}
      {store.error !== null && <Failure error={store.error} />}
    </Box>
  )
}

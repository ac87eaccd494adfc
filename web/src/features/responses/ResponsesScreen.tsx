import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Typography from '@mui/material/Typography'
import { lazy, Suspense, useState } from 'react'
import { useTranslation } from 'react-i18next'
import type { Schemas } from '../../api/client'
import { FirstMet } from '../../common/ui/FirstMet'
import { Empty, Failure, Working } from '../../common/ui/States'
import { colours } from '../../theme/theme'
import { Lanes, Row } from '../../common/ui/layout'
import { practiceManner } from '../../common/practice'
import { MorningChecks } from '../../common/ui/MorningChecks'
import { openMornings, spanOf } from './model'
import { useFileAddresses, useResponses } from './queries'
import { VisitNotes } from './VisitNotes'
import { ResponseLane } from './ResponseLane'

/** The heavy part of the view: charts and decisions are there before. */
const ResponseTable = lazy(async () => ({ default: (await import('./ResponseTable')).ResponseTable }))

/** Holds of each side shown at first, and added at each asking; the server gives no more than MOST. */
const PAGE = 60
const MOST = 1000

const FIRST_WORDS = ['calm', 'watch', 'flare', 'pending'] as const

/** What happened over time: per ladder, left and right facing, with the decision it led to. */
export function ResponsesScreen() {
  const { t } = useTranslation()
  const [most, setMost] = useState(PAGE)
  const responses = useResponses(most)
  const files = useFileAddresses()
  if (responses.isPending) return <Working />
  if (responses.isError) return <Failure error={responses.error} again={() => void responses.refetch()} />
  if (responses.data.length === 0)
    return <Empty title={t('responses.empty')} more={t('responses.emptyMore')} />
  const mornings = openMornings(responses.data, practiceManner().today)
  return (
    <>
      <FirstMet words={FIRST_WORDS} />
      {mornings.length > 0 && (
        <Box sx={{ mb: 2 }}>
          <MorningChecks items={mornings} />
        </Box>
      )}
      <VisitNotes />
      {responses.data.map((family, index) => (
        <Box component="section" key={family.family} sx={{ mb: 3 }}>
          <Box sx={{ display: 'flex', alignItems: 'center', mb: 1 }}>
            <Typography variant="h2" sx={{ flex: 1 }}>
              {family.name}
            </Typography>
            {index === 0 && (
              <Row align="stretch">
                <Button component="a" href={files.csv} variant="outlined" size="small">
                  {t('responses.csv')}
                </Button>
                <Button component="a" href={files.clientFile} variant="outlined" size="small">
                  {t('responses.file')}
                </Button>
              </Row>
            )}
          </Box>
          <Facing family={family} />
          <Suspense fallback={<Working />}>
            <ResponseTable family={family} />
          </Suspense>
          {most < MOST && (family.left.earlier || family.right.earlier) && (
            <Button
              variant="outlined"
              sx={{ mt: 1 }}
              disabled={responses.isPlaceholderData}
              onClick={() => {
                setMost(Math.min(MOST, most + 4 * PAGE))
              }}
            >
              {t('responses.earlier')}
            </Button>
          )}
        </Box>
      ))}
    </>
  )
}

function Facing({ family }: { family: Schemas['ResponseFamily'] }) {
  const span = spanOf([family.left, family.right])
  return (
    <Lanes one={family.shared} style={{ borderBottom: `1px solid ${colours.line}`, paddingBottom: 12 }}>
      <ResponseLane
        family={family}
        lane={family.left}
        name={family.shared ? 'both' : 'left'}
        rungs={family.rungs}
        allowed={family.allowed}
        span={span}
      />
      {!family.shared && (
        <ResponseLane
          family={family}
          lane={family.right}
          name="right"
          rungs={family.rungs}
          allowed={family.allowed}
          span={span}
        />
      )}
    </Lanes>
  )
}

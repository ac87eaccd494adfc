import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Typography from '@mui/material/Typography'
import { memo, type ReactNode } from 'react'
import { useTranslation } from 'react-i18next'
import type { Lane, Schemas } from '../../api/client'
import { Failure } from '../../common/ui/States'
import { VerdictMark } from '../../common/ui/VerdictMark'
import { useSeenOnTheMat } from './queries'
import { SMALL, TakeOn } from './TakeOn'
import { laneColour } from '../../theme/theme'
import { useClientPath } from '../../common/route'
import { seenReading } from '../../common/readings'

const MARK = { stop: 'leave_out', ask: 'check_first', caution: 'with_eye' } as const

interface Props {
  side: Lane
  family: string
  detail: Schemas['DetailOut']
}

/** What binds at this set-up. A caution may be taken on with a reason; stops and questions may not. */
export const Findings = memo(function Findings({ side, family, detail }: Props) {
  const { t } = useTranslation()
  const path = useClientPath()
  const lift = useSeenOnTheMat()
  if (detail.unmet.length + detail.findings.length === 0) return null
  return (
    <Box component="ul" sx={{ listStyle: 'none', p: 0, m: 0, mt: 0.75, color: laneColour(side) }}>
      {detail.unmet.map(({ words, bound, sides }) => (
        <Item key={words} mark="leave_out" text={words}>
          {bound !== null && (
            <>
              <Button
                size="small"
                sx={SMALL}
                disabled={lift.isPending}
                onClick={() => {
                  lift.mutate({
                    params: { path },
                    body: { readings: sides.map((each) => seenReading(bound, each, 1)) },
                  })
                }}
              >
                {t('setUp.seenOnTheMat')}
              </Button>
              <Typography variant="small">{t('setUp.seenOnTheMatHint')}</Typography>
            </>
          )}
        </Item>
      ))}
      {lift.error !== null && <Failure error={lift.error} />}
      {detail.findings.map((finding) => (
        <Item key={finding.sentence} mark={MARK[finding.severity]} text={finding.sentence}>
          {finding.severity === 'caution' && <TakeOn family={family} finding={finding} />}
        </Item>
      ))}
    </Box>
  )
})

function Item({ mark, text, children }: { mark: Schemas['Verdict']; text: string; children?: ReactNode }) {
  return (
    <Box component="li" sx={{ display: 'flex', gap: 0.9, fontSize: '0.9rem', lineHeight: 1.36, mb: 0.4 }}>
      <Box sx={{ pt: 0.25 }}>
        <VerdictMark verdict={mark} size={14} />
      </Box>
      <Box sx={{ flex: 1, color: 'text.primary' }}>
        {text} {children}
      </Box>
    </Box>
  )
}

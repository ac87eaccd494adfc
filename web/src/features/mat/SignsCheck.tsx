import { styled } from '@mui/material/styles'
import Typography from '@mui/material/Typography'
import { useTranslation } from 'react-i18next'
import { Link } from 'react-router'
import type { Lane, Schemas } from '../../api/client'
import { useClientPath } from '../../common/route'
import { addressOf, screenById } from '../../common/screens'
import { useAnswerSigns } from '../../common/signs'
import { Row } from '../../common/ui/layout'
import { Refused } from '../../common/ui/States'
import { Touch } from '../../common/ui/Touch'
import { laneColour } from '../../theme/theme'
import { isTold, NONE, saidOn, touched } from './signs'

const One = styled('section')(({ theme }) => ({
  borderLeft: '3px solid var(--lane)',
  paddingLeft: theme.spacing(1.25),
  marginTop: theme.spacing(1),
  '& h3': { margin: 0, marginBottom: theme.spacing(0.5), fontSize: '1rem', color: 'var(--lane)' },
}))

interface Props {
  checks: readonly Schemas['CheckOut'][]
  today: string
}

/** What belongs to a doctor first, gone through record by record before the first pose; a yes leads to what to do. */
export function SignsCheck({ checks, today }: Props) {
  const { t } = useTranslation()
  const path = useClientPath()
  const answer = useAnswerSigns()
  const touch = (check: Schemas['CheckOut'], sign: string) => {
    if (answer.isPending) return
    const signs = touched(saidOn(today, check), sign)
    answer.mutate({ params: { path: { ...path, entry_id: check.entry_id } }, body: { signs } })
  }
  const told = isTold(checks, today)
  return (
    <section>
      <h2>{t('mat.arrival.signs')}</h2>
      {checks.map((check) => {
        const lane: Lane = check.side ?? 'both'
        const now = saidOn(today, check)
        return (
          <One
            key={check.entry_id}
            aria-labelledby={`signs-${check.entry_id}`}
            style={{ '--lane': laneColour(lane) } as object}
          >
            <h3 id={`signs-${check.entry_id}`}>{check.label}</h3>
            <Row wrap gap={0.75}>
              <Touch
                side={lane}
                on={now.includes(NONE)}
                label={t('mat.arrival.noneOf', { what: check.label })}
                onTouch={() => {
                  touch(check, NONE)
                }}
              >
                {t('mat.arrival.none')}
              </Touch>
              {Object.entries(check.signs).map(([sign, words]) => (
                <Touch
                  key={sign}
                  side={lane}
                  on={now.includes(sign)}
                  onTouch={() => {
                    touch(check, sign)
                  }}
                >
                  {words}
                </Touch>
              ))}
            </Row>
          </One>
        )
      })}
      <Refused error={answer.error} />
      {told && (
        <Typography role="status" sx={{ mt: 1, fontWeight: 600 }}>
          {t('mat.arrival.told')}{' '}
          <Link to={addressOf(screenById('doctor'), path.practice_id, path.client_id)}>
            {t('doctor.open')}
          </Link>
        </Typography>
      )}
    </section>
  )
}

import { styled } from '@mui/material/styles'
import { useTranslation } from 'react-i18next'
import type { Schemas } from '../../api/client'
import { longDate, shortDate } from '../../common/dates'
import { usePracticeId } from '../../common/route'
import { said } from '../../common/mornings'
import { Row } from '../../common/ui/layout'
import { MorningAnswers } from '../../common/ui/MorningAnswers'
import { Failure, Refused, Working } from '../../common/ui/States'
import { colours, laneColour } from '../../theme/theme'
import { useMorning, useOutlook } from './queries'

const Parts = styled('div')(({ theme }) => ({
  display: 'grid',
  gap: theme.spacing(1, 3),
  fontSize: '0.95rem',
  lineHeight: 1.45,
  [theme.breakpoints.up('md')]: { gridTemplateColumns: 'repeat(2, minmax(0, 1fr))' },
  '& h2': { margin: 0, fontSize: '0.95rem', fontWeight: 600, color: colours.muted },
  '& .mornings': { gridColumn: '1 / -1', backgroundColor: colours.note, padding: theme.spacing(1, 1.5) },
}))

/** What changed since the last visit and what the next weeks change, and mornings to ask about. */
export function Outlook({ session, mayWrite }: { session: Schemas['SessionOut']; mayWrite: boolean }) {
  const { t } = useTranslation()
  const outlook = useOutlook(session.client_id, session.date)
  if (outlook.isPending) return <Working />
  if (outlook.isError) return <Failure error={outlook.error} again={() => void outlook.refetch()} />
  const { since, changed, ahead, mornings, needs_stature } = outlook.data
  return (
    <Parts>
      <div>
        <h2>{since === null ? t('today.never') : t('today.since', { date: shortDate(since) })}</h2>
        {since !== null && changed.length === 0 && !needs_stature && <div>{t('today.unchanged')}</div>}
        {changed.map((line) => (
          <div key={line}>{line}</div>
        ))}
      </div>
      <div>
        <h2>{t('today.ahead')}</h2>
        {needs_stature && <div>{t('today.needsStature')}</div>}
        {ahead.length === 0 && !needs_stature && <div>{t('today.nothingAhead')}</div>}
        {ahead.map((change) => (
          <div key={change.date}>
            <strong>{longDate(change.date)}</strong> {change.lines.join(' ')}
          </div>
        ))}
      </div>
      {mornings.length > 0 && (
        <div className="mornings">
          <h2>{t('today.mornings')}</h2>
          {mornings.map((morning) => (
            <Morning
              key={morning.item_id}
              morning={morning}
              clientId={session.client_id}
              mayWrite={mayWrite}
            />
          ))}
        </div>
      )}
    </Parts>
  )
}

interface MorningProps {
  morning: Schemas['OpenMorning']
  clientId: string
  mayWrite: boolean
}

function Morning({ morning, clientId, mayWrite }: MorningProps) {
  const { t } = useTranslation()
  const practice_id = usePracticeId()
  const tell = useMorning(clientId)
  const answer = (settled?: boolean) => {
    tell.mutate({
      params: { path: { practice_id, client_id: clientId, item_id: morning.item_id } },
      body: said(settled),
    })
  }
  return (
    <>
      <Row wrap style={{ marginTop: 4 }}>
        <strong style={{ color: laneColour(morning.side ?? 'both') }}>
          {t(`side.${morning.side ?? 'both'}`)}
        </strong>
        {t('today.morning', {
          name: morning.name,
          during: morning.during,
          date: shortDate(morning.date),
        })}
        {mayWrite && (
          <MorningAnswers asked={morning.asked} busy={tell.isPending} size="small" onAnswer={answer} />
        )}
      </Row>
      <Refused error={tell.error} />
    </>
  )
}

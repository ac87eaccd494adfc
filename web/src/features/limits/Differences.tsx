import Button from '@mui/material/Button'
import { styled } from '@mui/material/styles'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import type { Schemas } from '../../api/client'
import { shortDate } from '../../common/dates'
import { VerdictMark } from '../../common/ui/VerdictMark'
import { Failure } from '../../common/ui/States'
import { colours, laneColour } from '../../theme/theme'
import { useDifferences } from './queries'

const Panel = styled('section')(({ theme }) => ({
  marginTop: theme.spacing(1.25),
  padding: theme.spacing(1, 1.25),
  backgroundColor: colours.note,
  lineHeight: 1.4,
  '& ul': { listStyle: 'none', margin: 0, padding: 0 },
  '& li': { padding: theme.spacing(0.5, 0), borderTop: `1px dotted ${colours.line}` },
  '& .verdicts': { display: 'flex', alignItems: 'center', flexWrap: 'wrap', gap: theme.spacing(0.75) },
}))

/** A corrected record looks back: what on the mat would have been judged otherwise. Worked out when asked for. */
export function Differences({ entry }: { entry: Schemas['EntryOut'] }) {
  const { t } = useTranslation()
  const [asked, setAsked] = useState(false)
  const found = useDifferences(entry.id, asked)
  if (!asked) {
    return (
      <Button
        size="small"
        onClick={() => {
          setAsked(true)
        }}
      >
        {t('limits.differences.ask')}
      </Button>
    )
  }
  if (found.isError) return <Failure error={found.error} again={() => void found.refetch()} />
  if (found.isPending) return <Panel role="status">{t('limits.differences.working')}</Panel>
  const { since, looked_at, left, differences } = found.data
  return (
    <Panel role="status">
      <strong>
        {differences.length === 0
          ? t(looked_at === 0 ? 'limits.differences.nothingSince' : 'limits.differences.none', {
              date: shortDate(since),
              count: looked_at,
            })
          : t('limits.differences.some', { date: shortDate(since), count: differences.length })}
      </strong>
      <ul>
        {differences.map((each) => (
          <li key={each.item_id}>
            <div>
              {shortDate(each.date)} · {each.name}{' '}
              {each.side !== null && (
                <strong style={{ color: laneColour(each.side) }}>{t(`side.${each.side}`)}</strong>
              )}
            </div>
            <div className="verdicts">
              <VerdictMark verdict={each.was} size={18} /> {t(`verdict.${each.was}`)} →{' '}
              <VerdictMark verdict={each.would_be} size={18} />{' '}
              <strong>{t(`verdict.${each.would_be}`)}</strong>
            </div>
            {each.why[0] !== undefined && <div>{each.why[0]}</div>}
          </li>
        ))}
      </ul>
      {left > 0 && t('limits.differences.left', { count: left })}
    </Panel>
  )
}

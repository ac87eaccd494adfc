import { styled } from '@mui/material/styles'
import { useTranslation } from 'react-i18next'
import type { Lane, Schemas } from '../../api/client'
import { laneColour } from '../../theme/theme'
import { useDaily } from '../daily'
import { useClientPath } from '../route'
import { Scores } from './Scores'
import { Refused } from './States'
import { Touch } from './Touch'

const Small = styled('div')(({ theme }) => ({
  margin: theme.spacing(0.75, 0),
  '& .what': { fontWeight: 700, fontSize: '0.92rem', lineHeight: 1.3, marginBottom: 3 },
  '& [role="group"]': { gap: 4 },
  '& button': { minHeight: 30, minWidth: 29, padding: 0, fontSize: '0.92rem' },
}))

/** How a sore joint is today, beside what to mind. */
export function AskedToday({ asked }: { asked: Schemas['AskedOut'] }) {
  const { t } = useTranslation()
  const words = t('mind.painToday', { what: asked.label })
  return (
    <Small>
      <div className="what" style={{ color: laneColour(asked.side ?? 'both') }} aria-hidden>
        {words}
      </div>
      <HowItIs asked={asked} of={{ words }} />
    </Small>
  )
}

const Stirred = styled('div')(({ theme }) => ({
  display: 'flex',
  flexWrap: 'wrap',
  alignItems: 'center',
  gap: 4,
  marginTop: theme.spacing(0.75),
  '& span': { fontSize: '0.92rem', lineHeight: 1.25, marginRight: 4 },
  '& button': { paddingInline: 8 },
}))

/** Answered in one touch where it decides something; once the pain is known, whether it lasts, where that is asked too. */
export function HowItIs({
  asked,
  of,
}: {
  asked: Schemas['AskedOut']
  of: { id: string } | { words: string }
}) {
  const { t } = useTranslation()
  const path = useClientPath()
  const daily = useDaily()
  const { entry_id, label, side, pain_today, irritable } = asked
  const lane: Lane = side ?? 'both'
  const sent = daily.isPending ? daily.variables.body : undefined
  const lasts = sent === undefined || sent.irritable === 'unknown' ? irritable : sent.irritable
  const say = (answer: Schemas['DailyIn']) => {
    if (!daily.isPending) daily.mutate({ params: { path: { ...path, entry_id } }, body: answer })
  }
  return (
    <>
      <Scores
        side={lane}
        of={of}
        value={(sent === undefined ? pain_today : sent.pain_today) ?? null}
        named={(score) => t('mat.arrival.painIs', { score, what: label })}
        onScore={(score) => {
          // What was told of whether it lasts stands until it is too old: a new score does not renew it.
          say({ pain_today: score, irritable: 'unknown' })
        }}
      />
      {irritable !== null && pain_today !== null && (
        <Stirred role="group" aria-label={t('mind.stirredUpOf', { what: label })}>
          <span aria-hidden>{t('limits.facts.irritable')}</span>
          {(['yes', 'no'] as const).map((answer) => (
            <Touch
              key={answer}
              side={lane}
              on={lasts === answer}
              onTouch={() => {
                say({ pain_today, irritable: answer })
              }}
            >
              {t(`limits.values.${answer}`)}
            </Touch>
          ))}
        </Stirred>
      )}
      <Refused error={daily.error} />
    </>
  )
}

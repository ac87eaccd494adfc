import Typography from '@mui/material/Typography'
import type { TFunction } from 'i18next'
import { useTranslation } from 'react-i18next'
import { Link } from 'react-router'
import type { Schemas, Side } from '../../api/client'
import { useClientHead } from '../../common/head'
import { useClientPath } from '../../common/route'
import { addressOf, type ScreenId, screenById } from '../../common/screens'
import { AskedToday } from '../../common/ui/AskedToday'
import { Refused } from '../../common/ui/States'
import { useWhyNot } from './queries'

type Opener = Schemas['OpenerOut']

/** Where what opens a rung is recorded. */
const WHERE: Partial<Record<Opener['by'], ScreenId>> = {
  clearance: 'limits',
  answer: 'limits',
  reading: 'measures',
}

/** What would open a rung that is closed or asked about; a question of the day is answered here. */
export function WhyNot({ rung, side }: { rung: string; side: Side }) {
  const { t } = useTranslation()
  const path = useClientPath()
  const why = useWhyNot(rung, side)
  const asked = useClientHead().data?.asked ?? []
  if (why.isError) return <Refused error={why.error} />
  if (why.data === undefined)
    return <Typography color="text.secondary">{t('choose.whyNot.looking')}</Typography>
  const { openers } = why.data
  const here = asked.filter((each) => openers.some((opener) => opener.entry_id === each.entry_id))
  return (
    <>
      <Typography component="h3" sx={{ fontWeight: 700, mt: 0.75 }}>
        {t(openers.length === 0 ? 'choose.whyNot.nothing' : 'choose.whyNot.title')}
      </Typography>
      <ul style={{ margin: 0, paddingLeft: 18, maxWidth: 620 }}>
        {openers.map((opener) => {
          const where = WHERE[opener.by]
          return (
            <li key={opener.words}>
              {opener.words} <span style={{ opacity: 0.75 }}>{withIt(opener, t)}</span>{' '}
              {where !== undefined && (
                <Link
                  style={{ display: 'inline-block', paddingBlock: 2 }}
                  to={addressOf(screenById(where), path.practice_id, path.client_id)}
                >
                  {t(`choose.whyNot.to.${where === 'measures' ? 'measures' : 'limits'}`)}
                </Link>
              )}
            </li>
          )
        })}
      </ul>
      {here.map((each) => (
        <AskedToday key={each.entry_id} asked={each} />
      ))}
    </>
  )
}

function withIt({ verdict }: Opener, t: TFunction): string {
  return `(${t(`verdict.${verdict}`)})`
}

import Button from '@mui/material/Button'
import { styled } from '@mui/material/styles'
import Typography from '@mui/material/Typography'
import type { ReactNode } from 'react'
import { useTranslation } from 'react-i18next'
import type { Schemas } from '../../api/client'
import { colours } from '../../theme/theme'

const Part = styled('section')(({ theme }) => ({
  marginBottom: theme.spacing(2.5),
  fontSize: '0.92rem',
  '& h2': {
    fontSize: '1.05rem',
    borderBottom: `1px solid ${colours.ink}`,
    paddingBottom: 4,
    marginBottom: 6,
  },
  '& ul': { listStyle: 'none', margin: 0, padding: 0 },
  '& li': { padding: theme.spacing(0.5, 0), lineHeight: 1.4 },
  '& .about': { fontWeight: 700 },
  '& .places': { display: 'inline-block', minWidth: 38, color: colours.muted, fontWeight: 700 },
}))

function Listed({ title, children }: { title: string; children: ReactNode }) {
  return (
    <Part>
      <Typography variant="h2">{title}</Typography>
      <ul>{children}</ul>
    </Part>
  )
}

/** Places of the plan as they are written: '3–5'. */
function placesOf(poses: readonly number[]): string {
  const [first, last] = [poses[0], poses.at(-1)]
  if (first === undefined || last === undefined) return ''
  const unbroken = last - first === poses.length - 1
  if (poses.length === 1) return (first + 1).toString()
  return unbroken
    ? `${(first + 1).toString()}–${(last + 1).toString()}`
    : poses.map((at) => at + 1).join(', ')
}

interface Props {
  plan: Schemas['PlanOut']
  mayWrite: boolean
  busy: boolean
  since: string
  onAdd: (family: string, after?: string) => void
}

/** Beside the plan: what to settle, what the order is good for, what was left out. */
export function Aside({ plan, mayWrite, busy, since, onAdd }: Props) {
  const { t } = useTranslation()
  const nameOf = (places: readonly number[]) => plan.poses[places[0] ?? -1]?.name ?? ''
  return (
    <aside aria-label={t('plan.beside')}>
      {plan.concerns.length > 0 && (
        <Listed title={t('plan.toSettle')}>
          {plan.concerns.map((each) => {
            const family = plan.poses[each.poses[0] ?? -1]?.family
            const counter =
              each.code === 'counter' ? plan.counters.find(({ after }) => after === family) : undefined
            return (
              <li key={`${each.code} ${each.poses.join()} ${each.words}`}>
                {each.poses.length === 1 && <span className="about">{nameOf(each.poses)}: </span>}
                {each.poses.length > 1 && <span className="places">{placesOf(each.poses)}</span>}
                {each.words}
                {each.code === 'counter' && counter === undefined && ` ${t('plan.noCounterOpen')}`}
                {counter !== undefined && mayWrite && (
                  <div>
                    <Button
                      size="small"
                      variant="outlined"
                      disabled={busy}
                      onClick={() => {
                        onAdd(counter.family, counter.after)
                      }}
                    >
                      {t('plan.addCounter', { name: counter.name })}
                    </Button>
                  </div>
                )}
              </li>
            )
          })}
        </Listed>
      )}
      {plan.left_out.length > 0 && (
        <Listed title={t('plan.leftOutFrom', { date: since })}>
          {plan.left_out.map(({ family, name, reason, open }) => (
            <li key={family}>
              <span className="about">{name}: </span>
              {reason}
              {open && mayWrite && (
                <div>
                  <Button
                    size="small"
                    variant="outlined"
                    disabled={busy}
                    onClick={() => {
                      onAdd(family)
                    }}
                  >
                    {t('plan.putBack', { name })}
                  </Button>
                </div>
              )}
            </li>
          ))}
        </Listed>
      )}
      {plan.reasons.length > 0 && (
        <Listed title={t('plan.whyOrder')}>
          {plan.reasons.map(({ code, poses, words }) => (
            <li key={`${code} ${poses.join()}`}>
              <span className="places">{placesOf(poses)}</span> {words}
            </li>
          ))}
        </Listed>
      )}
    </aside>
  )
}

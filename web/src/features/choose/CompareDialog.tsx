import Button from '@mui/material/Button'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'
import { styled } from '@mui/material/styles'
import type { ReactNode } from 'react'
import { useTranslation } from 'react-i18next'
import type { Schemas } from '../../api/client'
import { Failure, Working } from '../../common/ui/States'
import { VerdictMark } from '../../common/ui/VerdictMark'
import { Row } from '../../common/ui/layout'
import { Figure } from '../../figure/Figure'
import { colours, laneColour, serif } from '../../theme/theme'
import type { Beside } from './model'
import { useSetups } from './queries'

const Table = styled('table')({
  width: '100%',
  tableLayout: 'fixed',
  borderCollapse: 'collapse',
  '& th, & td': { verticalAlign: 'top', textAlign: 'left', padding: '7px 10px', fontWeight: 400 },
  '& tbody th': { color: colours.muted, fontSize: '0.88rem' },
  '& thead th': { borderTop: '4px solid currentColor' },
  '& thead strong': { fontFamily: serif, fontSize: '1.08rem', lineHeight: 1.2 },
  '& tbody tr': { borderTop: `1px solid ${colours.line}` },
  '& ul': { margin: 0, paddingLeft: 16 },
  '& thead th:first-of-type': { borderTopColor: 'transparent' },
  '& col:first-of-type': { width: 128 },
})

/** Two or three rungs side by side: figure, what it keeps of its purpose, the tightest margin, what to fetch, the way in
 * and out, what to mind. */
export function CompareDialog({
  rungs,
  onRemove,
  onClose,
}: {
  rungs: readonly Beside[]
  onRemove: (rung: Beside) => void
  onClose: () => void
}) {
  const { t } = useTranslation()
  const setups = useSetups(rungs)
  const failed = setups.find((each) => each.isError)
  const columns = setups.flatMap(({ data }, place) => {
    const beside = rungs[place]
    return data === undefined || beside === undefined ? [] : [{ beside, setup: data }]
  })
  const line = (name: string, cell: (setup: Schemas['SetupOut']) => ReactNode) => (
    <tr>
      <th scope="row">{name}</th>
      {columns.map(({ beside, setup }) => (
        <td key={beside.side + beside.rung}>{cell(setup)}</td>
      ))}
    </tr>
  )
  const best = (setup: Schemas['SetupOut']) => setup.options[0]?.detail
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="lg" aria-labelledby="compare-title">
      <DialogTitle id="compare-title">{t('choose.compare.title')}</DialogTitle>
      <DialogContent>
        {failed !== undefined ? (
          <Failure error={failed.error} again={() => void failed.refetch()} />
        ) : columns.length < rungs.length ? (
          <Working />
        ) : (
          <Table>
            <colgroup>
              <col />
            </colgroup>
            <thead>
              <tr>
                <th aria-label={t('choose.compare.what')} />
                {columns.map(({ beside, setup }) => (
                  <th
                    key={beside.side + beside.rung}
                    scope="col"
                    style={{ color: laneColour(setup.shared ? 'both' : beside.side) }}
                  >
                    {t(`side.${setup.shared ? 'both' : beside.side}`)}
                    <br />
                    <strong>{setup.name}</strong>
                    <Figure svg={best(setup)?.figure ?? ''} height={150} decorative />
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {line(t('choose.compare.verdict'), (setup) => (
                <Row>
                  <VerdictMark verdict={setup.verdict} />
                  {t(`verdict.${setup.verdict}`)}
                </Row>
              ))}
              {line(t('choose.compare.setup'), (setup) => setup.no_stack ?? setup.options[0]?.words ?? '')}
              {line(t('choose.compare.fetch'), (setup) => best(setup)?.fetch.join(', ') ?? '')}
              {line(t('choose.compare.purpose'), (setup) => {
                const kept = best(setup)?.purpose_percent
                return kept === undefined || kept === null ? '–' : `${String(Math.round(kept))} %`
              })}
              {line(t('choose.compare.margin'), (setup) => (
                <Tightest setup={setup} />
              ))}
              {line(t('choose.compare.way'), (setup) => best(setup)?.technique_words ?? '')}
              {line(t('choose.compare.mind'), (setup) => {
                const detail = best(setup)
                const minded = [
                  ...(detail?.findings ?? []).map(({ sentence }) => sentence),
                  ...(detail?.unmet ?? []).map(({ words }) => words),
                ]
                return minded.length === 0 ? (
                  t('choose.compare.nothing')
                ) : (
                  <ul>
                    {minded.map((words) => (
                      <li key={words}>{words}</li>
                    ))}
                  </ul>
                )
              })}
              {rungs.length > 2 &&
                line('', (setup) => {
                  const beside = columns.find((each) => each.setup === setup)?.beside
                  return (
                    beside !== undefined && (
                      <Button
                        size="small"
                        onClick={() => {
                          onRemove(beside)
                        }}
                      >
                        {t('choose.compare.away')}
                      </Button>
                    )
                  )
                })}
            </tbody>
          </Table>
        )}
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>{t('common.close')}</Button>
      </DialogActions>
    </Dialog>
  )
}

/** The demand that comes nearest to its limit or range, in its own unit. */
function Tightest({ setup }: { setup: Schemas['SetupOut'] }) {
  const { t } = useTranslation()
  const rulers = setup.options[0]?.detail.rulers
  const every = (['left', 'right'] as const).flatMap((side) =>
    (rulers?.[side] ?? []).flatMap((ruler) =>
      ruler.margin === null ? [] : [{ side, ruler, errors: ruler.margin / Math.max(ruler.error, 1) }],
    ),
  )
  const worst = every.reduce<(typeof every)[number] | undefined>(
    (found, each) => (found === undefined || each.errors < found.errors ? each : found),
    undefined,
  )
  if (worst === undefined) return <>{t('choose.compare.noMargin')}</>
  const { ruler, side } = worst
  const margin = Math.round(ruler.margin ?? 0)
  const unit = ruler.unit === 'percent' ? 'percent' : 'deg'
  return (
    <>
      {t(margin < 0 ? 'choose.compare.past' : 'choose.compare.left', {
        name: ruler.name,
        side: t(`side.${side}`),
        by: t(`common.amount.${unit}`, { value: Math.abs(margin).toFixed(0) }),
      })}
    </>
  )
}

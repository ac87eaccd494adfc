import Button from '@mui/material/Button'
import { styled } from '@mui/material/styles'
import Typography from '@mui/material/Typography'
import { useTranslation } from 'react-i18next'
import type { Schemas, Side } from '../../api/client'
import { LANE_HEAD } from '../../common/lanes'
import { Row } from '../../common/ui/layout'
import { Figure } from '../../figure/Figure'
import { colours, laneColour, serif } from '../../theme/theme'
import { scoresOf } from './LoggedHolds'

const Slim = styled('section')(({ theme }) => ({
  borderTop: '5px solid var(--lane)',
  padding: theme.spacing(1.25, 1.5),
  display: 'flex',
  flexDirection: 'column',
  gap: theme.spacing(1),
  minHeight: 0,
  overflowY: 'auto',
  '& h2': { fontFamily: serif, fontSize: '1.4rem', fontWeight: 600, margin: 0, color: 'var(--lane)' },
  '& .setup': { lineHeight: 1.35 },
  '& ol': { listStyle: 'none', margin: 0, padding: 0, lineHeight: 1.35, fontSize: '0.95rem' },
  '& .mind': {
    borderLeft: `3px solid ${colours.accent}`,
    paddingLeft: 10,
    lineHeight: 1.35,
    color: colours.mind,
  },
}))

interface Props {
  side: Side
  mat: Schemas['MatSide'] | null
  notes: readonly string[]
  onSwap: () => void
}

/** The side that waits: what it will need and what to mind there, one touch away. */
export function OtherLane({ side, mat, notes, onSwap }: Props) {
  const { t } = useTranslation()
  const whose = t(`side.${side}`)
  return (
    <Slim className="waits" aria-label={whose} style={{ '--lane': laneColour(side) } as object}>
      <Row justify="space-between" align="baseline">
        <h2>{t(`side.${LANE_HEAD[side]}`)}</h2>
        <Typography variant="note">
          {mat === null
            ? t('mat.notPlanned')
            : mat.logged_today.length >= mat.rounds
              ? t('mat.done')
              : t('mat.waits')}
        </Typography>
      </Row>
      {mat !== null && (
        <>
          <Figure svg={mat.figure} height={168} decorative />
          <div className="setup">
            <strong>{mat.short}</strong>, {mat.dose}
            {mat.setup_words !== '' && ` · ${mat.setup_words}`}
          </div>
          {mat.logged_today.length > 0 && (
            <ol aria-label={t('mat.loggedToday', { side: whose })}>
              {mat.logged_today.map((hold) => (
                <li key={hold.id}>
                  ✓ {scoresOf(hold, t('mat.during'), t('mat.after'))} → {t(`mat.tolerance.${hold.tolerance}`)}
                </li>
              ))}
            </ol>
          )}
          {notes.slice(0, 3).map((note) => (
            <div key={note} className="mind">
              {note}
            </div>
          ))}
          <Button
            variant={mat.logged_today.length >= mat.rounds ? 'outlined' : 'contained'}
            color={side}
            size="large"
            onClick={onSwap}
            style={{ marginTop: 'auto', minHeight: 60, flex: 'none' }}
          >
            {t('mat.toSide', { side: whose })}
          </Button>
        </>
      )}
    </Slim>
  )
}

import Alert from '@mui/material/Alert'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import MenuItem from '@mui/material/MenuItem'
import TextField from '@mui/material/TextField'
import Typography from '@mui/material/Typography'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import type { Schemas, Side } from '../../api/client'
import { colours } from '../../app/theme'
import { Figure } from '../../figure/Figure'
import { Failure, Working } from '../../shared/ui/States'
import { VerdictMark } from '../../shared/ui/VerdictMark'
import { Findings } from './Findings'
import { verdictAt } from './model'
import { Options } from './Options'
import { useTakeToTheMat } from './queries'
import { Stepper } from './Stepper'
import type { LaneState } from './useLaneState'

interface Props {
  side: Side
  state: LaneState
  active: boolean
  onActivate: () => void
  onGo: (rung: string) => void
}

/** One side's set-up: figure to scale, steppers over what the room can build, what binds, what to fetch. */
export function SetupLane({ side, state, active, onActivate, onGo }: Props) {
  const { t } = useTranslation()
  const { setup, axes, indices, detail, wanted, choose } = state
  const take = useTakeToTheMat()
  const [reasons, setReasons] = useState<Record<string, string>>({})
  const [dose, setDose] = useState<number | null>(null)
  if (setup.isPending)
    return (
      <Lane side={side} active={active}>
        <Working />
      </Lane>
    )
  if (setup.isError)
    return (
      <Lane side={side} active={active}>
        <Failure error={setup.error} again={() => void setup.refetch()} />
      </Lane>
    )
  const rung = setup.data
  const verdict = (rung.grid && verdictAt(rung.grid, indices)) ?? rung.verdict
  const seconds = dose ?? rung.hold_from_s
  const holds = Array.from(
    { length: (rung.hold_to_s - rung.hold_from_s) / 10 + 1 },
    (_, k) => rung.hold_from_s + 10 * k,
  )
  const toMat = () => {
    const accepted = Object.entries(reasons)
      .filter(([, reason]) => reason.trim().length >= 3)
      .map(([code, reason]) => ({ codes: [code], reason: reason.trim() }))
    take.mutate({ variation: rung.variation, side, setup: wanted, dose_s: seconds, accepted })
  }
  return (
    <Lane side={side} active={active} onActivate={onActivate}>
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 1, color: `var(--${side})` }}>
        <VerdictMark verdict={verdict} size={18} />
        <Typography variant="h3" component="h2" sx={{ color: 'text.primary' }}>
          <Box component="span" sx={{ color: `var(--${side})` }}>
            {t(side === 'left' ? 'side.Left' : 'side.Right')}
          </Box>
          : {t(`verdictLong.${verdict}`)}
        </Typography>
      </Box>
      <Typography sx={{ fontSize: '0.95rem', mb: 0.5 }}>{rung.name}</Typography>
      {rung.no_stack !== null && (
        <Alert severity="info" variant="outlined">
          {rung.no_stack}
        </Alert>
      )}
      {rung.grid !== null && (
        <Box
          sx={{ display: 'grid', gridTemplateColumns: 'minmax(0,1fr) 214px', gap: 1.5, alignItems: 'start' }}
        >
          {detail === undefined ? <Box sx={{ height: 268 }} /> : <Figure svg={detail.figure} height={268} />}
          <Box>
            {axes.map((axis, k) => (
              <Stepper
                key={axis.name}
                axis={axis}
                axes={axes}
                grid={rung.grid as Schemas['GridOut']}
                indices={indices}
                at={k}
                onStep={(index) => {
                  choose(indices.map((each, i) => (i === k ? index : each)))
                }}
              />
            ))}
          </Box>
        </Box>
      )}
      {detail !== undefined && (
        <>
          <Options options={rung.options} chosen={indices} onChoose={choose} />
          <Findings
            findings={detail.findings}
            troubles={detail.troubles}
            reasons={reasons}
            onReason={(code, reason) => {
              setReasons({ ...reasons, [code]: reason })
            }}
          />
          {verdict === 'with_setup' && rung.plain_reasons[0] !== undefined && (
            <Row label={t('setUp.plainClosed')}>{rung.plain_reasons[0]}</Row>
          )}
          <Row label={t('setUp.fetch')}>
            <strong>{detail.fetch.join(', ')}</strong>
          </Row>
          <Row label={t('setUp.getting')}>{detail.technique_words}</Row>
          <Row label={t('setUp.cues')}>{rung.cues.join(' ')}</Row>
        </>
      )}
      <Box sx={{ display: 'flex', gap: 1, mt: 1, alignItems: 'center', flexWrap: 'wrap' }}>
        <Neighbour mark="[" label={t('setUp.stepBack')} neighbour={rung.step_back} onGo={onGo} />
        <Neighbour mark="]" label={t('setUp.stepForward')} neighbour={rung.step_forward} onGo={onGo} />
        <TextField
          select
          label={t('setUp.hold')}
          value={seconds}
          onChange={(event) => {
            setDose(Number(event.target.value))
          }}
          sx={{ width: 88, ml: 'auto' }}
        >
          {holds.map((each) => (
            <MenuItem key={each} value={each}>
              {t('setUp.seconds', { count: each })}
            </MenuItem>
          ))}
        </TextField>
        <Button
          variant="contained"
          onClick={toMat}
          disabled={take.isPending || detail?.allowed !== true}
          sx={{ bgcolor: `var(--${side})`, '&:hover': { bgcolor: `var(--${side})` } }}
        >
          {t('setUp.take')}
        </Button>
      </Box>
      {take.isSuccess && (
        <Typography role="status" sx={{ color: `var(--${side})`, fontWeight: 600, mt: 0.5 }}>
          ✓ {t('setUp.taken')}
        </Typography>
      )}
      {take.isError && (
        <Alert severity="error" variant="outlined" sx={{ mt: 1 }}>
          {take.error.message}
        </Alert>
      )}
    </Lane>
  )
}

function Lane({
  side,
  active,
  onActivate,
  children,
}: {
  side: Side
  active: boolean
  onActivate?: () => void
  children: React.ReactNode
}) {
  const { t } = useTranslation()
  return (
    <Box
      component="section"
      aria-label={t(`side.${side}`)}
      onFocusCapture={onActivate}
      onClickCapture={onActivate}
      sx={{
        bgcolor: colours.panel,
        borderTop: `5px solid var(--${side})`,
        borderRadius: 1,
        p: 1.5,
        boxShadow: active ? `inset 0 0 0 1px var(--${side})` : 'none',
      }}
    >
      {children}
    </Box>
  )
}

function Row({ label, children }: { label: string; children: React.ReactNode }) {
  return (
    <Box
      sx={{ display: 'grid', gridTemplateColumns: '96px 1fr', mt: 0.6, fontSize: '0.92rem', lineHeight: 1.4 }}
    >
      <Box sx={{ color: 'text.secondary' }}>{label}</Box>
      <div>{children}</div>
    </Box>
  )
}

function Neighbour({
  mark,
  label,
  neighbour,
  onGo,
}: {
  mark: string
  label: string
  neighbour: Schemas['NeighbourOut'] | null
  onGo: (rung: string) => void
}) {
  if (neighbour === null) return null
  return (
    <Button
      size="small"
      variant="outlined"
      title={neighbour.reason === '' ? undefined : neighbour.reason}
      onClick={() => {
        onGo(neighbour.variation)
      }}
      startIcon={<VerdictMark verdict={neighbour.verdict} size={14} />}
    >
      {mark} {label}: {neighbour.short}
    </Button>
  )
}

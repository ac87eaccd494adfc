import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Chip from '@mui/material/Chip'
import Typography from '@mui/material/Typography'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Link, useNavigate } from 'react-router'
import { ApiProblem, type Schemas, type Side } from '../../api/client'
import { colours } from '../../app/theme'
import { useLadders } from '../../common/ladders'
import { clientAddress, useClientPath } from '../../common/route'
import { Empty, Failure, Working } from '../../common/ui/States'
import { VerdictMark } from '../../common/ui/VerdictMark'
import { Ladder } from './Ladder'
import { ReasonPanel } from './ReasonPanel'

export type Chosen = Partial<Record<Side, string>>

const VERDICTS: readonly Schemas['Verdict'][] = ['clear', 'with_setup', 'check_first', 'leave_out']

/** Every family as a two-lane ladder; the reasons of the chosen rungs beneath. */
export function ChooseScreen() {
  const { t } = useTranslation()
  const { practice_id, client_id } = useClientPath()
  const navigate = useNavigate()
  const ladders = useLadders()
  const [purpose, setPurpose] = useState<string | null>(null)
  const [chosen, setChosen] = useState<Chosen>({})
  if (ladders.isPending) return <Working />
  if (ladders.isError) {
    const noStature = ladders.error instanceof ApiProblem && ladders.error.status === 422
    return noStature ? (
      <StatureFirst />
    ) : (
      <Failure error={ladders.error} again={() => void ladders.refetch()} />
    )
  }
  const purposes = [...new Set(ladders.data.flatMap((ladder) => ladder.purposes))]
  const shown = ladders.data.filter((ladder) => purpose === null || ladder.purposes.includes(purpose))
  const openSetup = () => {
    const query = new URLSearchParams(Object.entries(chosen)).toString()
    void navigate(`${clientAddress(practice_id, client_id, 'set-up')}?${query}`)
  }
  return (
    <>
      <Box
        sx={{
          display: 'flex',
          alignItems: 'center',
          flexWrap: 'wrap',
          gap: 1,
          pb: 1.25,
          borderBottom: `1px solid ${colours.line}`,
        }}
      >
        <Typography color="text.secondary" sx={{ whiteSpace: 'nowrap' }}>
          {t('choose.whatFor')}
        </Typography>
        {purposes.map((each) => (
          <Chip
            key={each}
            label={t(`choose.purposes.${each as 'outer_hip'}`)}
            variant={purpose === each ? 'filled' : 'outlined'}
            color={purpose === each ? 'primary' : 'default'}
            onClick={() => {
              setPurpose(purpose === each ? null : each)
            }}
            sx={{ borderRadius: 1, fontSize: '0.95rem' }}
          />
        ))}
        <Box
          sx={{ display: 'flex', gap: 2, color: 'text.secondary', fontSize: '0.88rem', width: '100%' }}
          aria-label={t('choose.legend')}
        >
          {VERDICTS.map((verdict) => (
            <Box key={verdict} sx={{ display: 'flex', gap: 0.75, alignItems: 'center' }}>
              <VerdictMark verdict={verdict} />
              {t(`verdict.${verdict}`)}
            </Box>
          ))}
        </Box>
      </Box>
      {shown.map((ladder) => (
        <Ladder
          key={ladder.family}
          ladder={ladder}
          chosen={chosen}
          onChoose={(side, rung) => {
            // A shape both legs share is chosen for both.
            setChosen(ladder.shared ? { left: rung, right: rung } : { ...chosen, [side]: rung })
          }}
        />
      ))}
      <ReasonPanel ladders={ladders.data} chosen={chosen} onOpen={openSetup} />
    </>
  )
}

function StatureFirst() {
  const { t } = useTranslation()
  const { practice_id, client_id } = useClientPath()
  return (
    <Empty
      title={t('choose.needsStature')}
      more={t('choose.needsStatureMore')}
      action={
        <Button component={Link} to={clientAddress(practice_id, client_id, 'measures')} variant="contained">
          {t('choose.toMeasures')}
        </Button>
      }
    />
  )
}

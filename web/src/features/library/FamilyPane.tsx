import Box from '@mui/material/Box'
import Typography from '@mui/material/Typography'
import { useTranslation } from 'react-i18next'
import { Failure, NothingHere, Working } from '../../common/ui/States'
import { ApiProblem } from '../../api/client'
import { Row } from '../../common/ui/layout'
import { RungStrip } from './RungStrip'
import { type Sitter, useFamilyCards } from './queries'
import { SitterBar } from './SitterBar'
import { VariationDetail } from './VariationDetail'

interface Props {
  familyId: string
  sitter: Sitter
  rung: string | null
  set: (changes: Record<string, string | null>) => void
}

/** One family: its ladder for somebody's body, and the chosen rung in full. */
export function FamilyPane({ familyId, sitter, rung, set }: Props) {
  const { t } = useTranslation()
  const cards = useFamilyCards(familyId, sitter)
  if (cards.error instanceof ApiProblem && cards.error.status === 404) return <NothingHere />
  const family = cards.data
  const chosen = rung ?? family?.rungs[0]?.id
  return (
    <>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', alignItems: 'flex-start', gap: 2, minHeight: 62 }}>
        <Box sx={{ flex: '1 1 260px' }}>
          <Row gap={1.25} wrap align="baseline">
            <Typography variant="h1" component="h2">
              {family?.name ?? t('common.loading')}
            </Typography>
            {family !== undefined && family.sanskrit !== '' && (
              <Typography color="text.secondary" lang="sa-Latn" sx={{ fontStyle: 'italic' }}>
                {family.sanskrit}
              </Typography>
            )}
          </Row>
          {family !== undefined && <Typography color="text.secondary">{family.about}</Typography>}
        </Box>
        <SitterBar
          sitter={sitter}
          shared={family?.shared ?? false}
          statureCm={family?.stature_cm}
          set={set}
        />
      </Box>
      {cards.isPending && <Working />}
      {cards.isError && <Failure error={cards.error} again={() => void cards.refetch()} />}
      {family !== undefined && (
        <RungStrip
          family={family}
          side={sitter.side}
          chosen={chosen}
          onChoose={(id) => {
            set({ rung: id })
          }}
        />
      )}
      {chosen !== undefined && (
        <VariationDetail
          variationId={chosen}
          sitter={sitter}
          onGo={(id) => {
            set({ rung: id })
          }}
        />
      )}
    </>
  )
}

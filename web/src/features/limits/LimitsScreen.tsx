import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Typography from '@mui/material/Typography'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import type { Schemas, Side } from '../../api/client'
import { SideHead } from '../../common/ui/SideHead'
import { Failure, Working } from '../../common/ui/States'
import { BodyMap } from './BodyMap'
import { EntryCard } from './EntryCard'
import { EntryDialog } from './EntryDialog'
import { useEntries } from './queries'

type Editing = { side: Side; entry: Schemas['EntryOut'] | null }

/** The body from behind, records pinned to it, left and right facing. */
export function LimitsScreen() {
  const { t } = useTranslation()
  const entries = useEntries()
  const [editing, setEditing] = useState<Editing | null>(null)
  if (entries.isPending) return <Working />
  if (entries.isError) return <Failure error={entries.error} again={() => void entries.refetch()} />
  const lane = (side: Side) => {
    const mine = entries.data.filter((entry) => entry.entry.side === side)
    return (
      <Box component="section" sx={{ borderTop: 4, borderColor: `var(--${side})`, pt: 1.25 }}>
        <Box sx={{ display: 'flex', alignItems: 'center', justifyContent: 'space-between', mb: 1 }}>
          <SideHead side={side} />
          <Button
            variant="outlined"
            size="small"
            onClick={() => {
              setEditing({ side, entry: null })
            }}
          >
            {t('limits.recordOn', { side: t(`side.${side}`) })}
          </Button>
        </Box>
        {mine.length === 0 && <Typography color="text.secondary">{t('limits.empty')}</Typography>}
        {mine.map((entry) => (
          <EntryCard
            key={entry.id}
            entry={entry}
            onCorrect={() => {
              setEditing({ side, entry })
            }}
          />
        ))}
      </Box>
    )
  }
  return (
    <>
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: 'minmax(0,1fr) 190px minmax(0,1fr)',
          gap: 2.5,
          alignItems: 'start',
        }}
      >
        {lane('left')}
        <Box sx={{ textAlign: 'center' }}>
          <BodyMap entries={entries.data} />
          <Typography variant="body2" color="text.secondary">
            {t('limits.seenFromBehind')}
          </Typography>
        </Box>
        {lane('right')}
      </Box>
      {editing !== null && (
        <EntryDialog
          side={editing.side}
          correcting={editing.entry}
          onClose={() => {
            setEditing(null)
          }}
        />
      )}
    </>
  )
}

import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Typography from '@mui/material/Typography'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import type { Schemas, Side } from '../../api/client'
import { SideHead } from '../../common/ui/SideHead'
import { Failure, Working } from '../../common/ui/States'
import { Undo } from '../../common/ui/Undo'
import { BodyMap } from './BodyMap'
import { Calendar } from './Calendar'
import { EntryCard } from './EntryCard'
import { EntryDialog } from './EntryDialog'
import { useEntries, useForms, useRestoreEntry } from './queries'
import { useClientPath } from '../../common/route'

type TakenBack = { id: string; label: string }
type Editing = { side: Side | null; entry: Schemas['EntryOut'] | null }

/** The body from behind, records pinned to it, left and right facing. */
export function LimitsScreen() {
  const { t } = useTranslation()
  const entries = useEntries()
  const forms = useForms()
  const [editing, setEditing] = useState<Editing | null>(null)
  const [takenBack, setTakenBack] = useState<TakenBack | null>(null)
  if (entries.isPending || forms.isPending) return <Working />
  if (forms.isError) return <Failure error={forms.error} again={() => void forms.refetch()} />
  if (entries.isError) return <Failure error={entries.error} again={() => void entries.refetch()} />
  const whole = entries.data.filter((entry) => (entry.entry.side ?? null) === null)
  const lane = (side: Side) => {
    const mine = entries.data.filter((entry) => entry.entry.side === side)
    return (
      <Box component="section" sx={{ borderTop: 4, borderColor: `${side}.main`, pt: 1.25 }}>
        <Box
          sx={{
            display: 'flex',
            alignItems: 'center',
            justifyContent: 'space-between',
            flexWrap: 'wrap',
            gap: 1,
            mb: 1,
          }}
        >
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
            forms={forms.data}
            entry={entry}
            onCorrect={() => {
              setEditing({ side, entry })
            }}
            onWithdrawn={() => {
              setTakenBack({ id: entry.id, label: entry.label })
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
          gridTemplateColumns: {
            xs: 'minmax(0,1fr)',
            md: 'minmax(0,1fr) minmax(250px, 0.8fr) minmax(0,1fr)',
          },
          gap: { xs: 2, md: 2.5 },
          direction: 'ltr',
          alignItems: 'start',
        }}
      >
        {lane('left')}
        <Box
          component="section"
          sx={{ borderTop: 4, borderColor: 'both.main', pt: 1.25, order: { xs: -1, md: 0 } }}
        >
          <Box sx={{ textAlign: 'center', mb: 1.5 }}>
            <Button
              variant="outlined"
              size="small"
              onClick={() => {
                setEditing({ side: null, entry: null })
              }}
            >
              {t('limits.recordWhole')}
            </Button>
            <Box sx={{ width: 140, mx: 'auto', mt: 1 }}>
              <BodyMap forms={forms.data} entries={entries.data} />
            </Box>
            <Typography variant="body2" color="text.secondary">
              {t('limits.seenFromBehind')}
            </Typography>
          </Box>
        </Box>
        {lane('right')}
      </Box>
      {whole.length > 0 && (
        <Box
          component="section"
          aria-label={t('limits.wholeBody')}
          sx={{
            mt: 2,
            display: 'grid',
            gap: 2.5,
            gridTemplateColumns: 'repeat(auto-fit, minmax(min(100%, 420px), 1fr))',
            alignItems: 'start',
          }}
        >
          {whole.map((entry) => (
            <EntryCard
              key={entry.id}
              forms={forms.data}
              entry={entry}
              onCorrect={() => {
                setEditing({ side: null, entry })
              }}
              onWithdrawn={() => {
                setTakenBack({ id: entry.id, label: entry.label })
              }}
            />
          ))}
        </Box>
      )}
      <Calendar />
      {takenBack !== null && (
        <TakenBackNote
          key={takenBack.id}
          takenBack={takenBack}
          onClose={() => {
            setTakenBack(null)
          }}
        />
      )}
      {editing !== null && (
        <EntryDialog
          forms={forms.data}
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

/** A record was taken back. */
function TakenBackNote({ takenBack, onClose }: { takenBack: TakenBack; onClose: () => void }) {
  const { t } = useTranslation()
  const path = useClientPath()
  const restore = useRestoreEntry()
  return (
    <Undo
      text={t('limits.takenBack', { label: takenBack.label })}
      back={restore}
      onUndo={() => {
        restore.mutate({ params: { path: { ...path, entry_id: takenBack.id } } }, { onSuccess: onClose })
      }}
      onClose={onClose}
    />
  )
}

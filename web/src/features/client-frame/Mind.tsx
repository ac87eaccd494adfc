import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Drawer from '@mui/material/Drawer'
import Typography from '@mui/material/Typography'
import useMediaQuery from '@mui/material/useMediaQuery'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import type { Lane, Schemas } from '../../api/client'
import { longDate } from '../../common/dates'
import { useComing } from '../../common/head'
import { AskedToday } from '../../common/ui/AskedToday'
import { Contacts } from '../../common/ui/Contacts'
import { laneColour } from '../../theme/theme'
import { mostImportant, noteLane } from './model'

type Note = Schemas['NoteOut']

const LANES: readonly Lane[] = ['left', 'both', 'right']

/** What a therapist glances at before touching anyone: a column where there is room for one, else its most important
 * line with the rest in a drawer. */
export function Mind({ head }: { head: Schemas['ClientHead'] }) {
  const roomy = useMediaQuery((theme) => theme.breakpoints.up('mind'))
  return roomy ? <MindColumn head={head} /> : <MindStrip head={head} />
}

function MindColumn({ head }: { head: Schemas['ClientHead'] }) {
  const { t } = useTranslation()
  return (
    <Box
      component="aside"
      aria-label={t('mind.title')}
      sx={{
        bgcolor: 'surface.panel',
        borderRight: 1,
        borderColor: 'divider',
        '@media print': { display: 'none' },
      }}
    >
      <Box
        sx={{
          position: 'sticky',
          top: 0,
          maxHeight: '100vh',
          overflowY: 'auto',
          overflowWrap: 'anywhere',
          p: 2,
        }}
        // What scrolls can be scrolled by keys.
        tabIndex={0}
        role="group"
        aria-labelledby="mind-title"
      >
        <MindContent head={head} />
      </Box>
    </Box>
  )
}

function MindStrip({ head }: { head: Schemas['ClientHead'] }) {
  const { t } = useTranslation()
  const [open, setOpen] = useState(false)
  const first = mostImportant(head.notes)
  const others = head.notes.length - (first === undefined ? 0 : 1)
  return (
    <Box
      component="aside"
      aria-label={t('mind.title')}
      sx={{
        display: 'flex',
        alignItems: 'center',
        gap: 1.5,
        px: { xs: 1.5, md: 2.5 },
        py: 0.5,
        bgcolor: 'surface.note',
        borderBottom: 1,
        borderColor: 'divider',
        position: 'sticky',
        top: 0,
        zIndex: 2,
        '@media print': { display: 'none' },
      }}
    >
      <Box sx={{ flex: 1, minWidth: 0, fontSize: '0.95rem', lineHeight: 1.3 }}>
        {first === undefined ? t('mind.nothing') : <NoteLine note={first} named />}
      </Box>
      <Button
        size="small"
        variant="outlined"
        onClick={() => {
          setOpen(true)
        }}
      >
        {others > 0 ? t('mind.more', { count: others }) : t('mind.title')}
      </Button>
      <Drawer
        open={open}
        onClose={() => {
          setOpen(false)
        }}
        slotProps={{ paper: { sx: { width: 'min(340px, 86vw)', p: 2 }, 'aria-labelledby': 'mind-title' } }}
      >
        <MindContent head={head} />
        <Button
          variant="outlined"
          sx={{ mt: 2 }}
          onClick={() => {
            setOpen(false)
          }}
        >
          {t('common.close')}
        </Button>
      </Drawer>
    </Box>
  )
}

/** Left, middle, right, then the calendar. */
function MindContent({ head }: { head: Schemas['ClientHead'] }) {
  const { t } = useTranslation()
  const coming = useComing(head.next_change)
  const { goals, contacts } = head.client
  return (
    <>
      <Typography id="mind-title" variant="h3" component="h2" sx={{ mb: 1.5 }}>
        {t('mind.title')}
      </Typography>
      {goals !== '' && (
        <Box sx={{ mb: 1.5, fontSize: '0.92rem', lineHeight: 1.42 }} translate="no">
          <strong>{t('clients.goalsShort')}: </strong>
          {goals}
        </Box>
      )}
      {head.notes.length === 0 && (
        <Typography color="text.secondary" sx={{ mb: 1.5 }}>
          {t('mind.nothing')}
        </Typography>
      )}
      {LANES.map((lane) => {
        const notes = head.notes.filter((note) => noteLane(note) === lane)
        const asked = head.asked.filter((each) => (each.side ?? 'both') === lane)
        if (notes.length === 0 && asked.length === 0) return null
        return (
          <Box key={lane} sx={{ borderLeft: 3, borderColor: `${lane}.main`, pl: 1.25, mb: 2 }}>
            <Typography
              variant="overline"
              component="h3"
              sx={{ color: lane === 'both' ? 'text.secondary' : laneColour(lane), display: 'block' }}
            >
              {t(`side.${lane}`)}
            </Typography>
            {notes.map((note) => (
              <Box key={note.text} sx={{ mb: 0.5, fontSize: '0.92rem', lineHeight: 1.42 }}>
                <NoteLine note={note} />
              </Box>
            ))}
            {asked.map((each) => (
              <AskedToday key={each.entry_id} asked={each} />
            ))}
          </Box>
        )
      })}
      <Box sx={{ bgcolor: 'surface.note', borderRadius: 1, p: 1.25, fontSize: '0.92rem', lineHeight: 1.42 }}>
        <strong>{t('mind.nextChange')}</strong>
        {head.next_change === null ? (
          <div>{t('mind.noChange')}</div>
        ) : (
          <>
            <div>{longDate(head.next_change.date)}</div>
            {[...head.next_change.lines, ...(coming.data?.lines ?? [])].map((line) => (
              <Box key={line} sx={{ mt: 0.5 }}>
                {line}
              </Box>
            ))}
          </>
        )}
      </Box>
      {contacts.length > 0 && (
        <Box component="details" sx={{ mt: 2, fontSize: '0.92rem' }}>
          <Box component="summary" sx={{ cursor: 'pointer', fontWeight: 600, mb: 0.5 }}>
            {t('clients.contacts.short')}
          </Box>
          <Contacts contacts={contacts} />
        </Box>
      )}
      <Typography color="text.secondary" sx={{ fontSize: '0.82rem', mt: 2, lineHeight: 1.4 }}>
        {head.disclaimer}
      </Typography>
    </>
  )
}

/** One thing to mind; `named` where no heading says its side. */
function NoteLine({ note, named = false }: { note: Note; named?: boolean }) {
  const { t } = useTranslation()
  return (
    <Box
      component="span"
      sx={{
        fontWeight: note.weight === 'ask' ? 700 : 400,
        fontStyle: note.weight === 'promise' ? 'italic' : 'normal',
      }}
    >
      {named && note.side !== null && (
        <strong style={{ color: laneColour(note.side) }}>{t(`side.${note.side}`)}: </strong>
      )}
      {note.weight === 'ask' ? '? ' : ''}
      {note.text}
    </Box>
  )
}

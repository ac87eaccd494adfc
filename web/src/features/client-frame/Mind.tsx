import Box from '@mui/material/Box'
import Typography from '@mui/material/Typography'
import { useTranslation } from 'react-i18next'
import type { Schemas } from '../../api/client'
import { colours } from '../../app/theme'
import { longDate } from '../../common/dates'
import { useComing } from '../../common/head'

const LANES = [
  { side: 'left', word: 'side.left', colour: colours.left },
  { side: null, word: 'side.both', colour: colours.both },
  { side: 'right', word: 'side.right', colour: colours.right },
] as const

/** What a therapist glances at before touching anyone: left, middle, right, then the calendar. */
export function MindColumn({ head }: { head: Schemas['ClientHead'] }) {
  const { t } = useTranslation()
  const coming = useComing(head.next_change)
  return (
    <Box
      component="aside"
      aria-label={t('mind.title')}
      sx={{ bgcolor: colours.panel, borderRight: `1px solid ${colours.line}` }}
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
      >
        <Typography variant="h3" component="h2" sx={{ mb: 1.5 }}>
          {t('mind.title')}
        </Typography>
        {head.notes.length === 0 && (
          <Typography color="text.secondary" sx={{ mb: 1.5 }}>
            {t('mind.nothing')}
          </Typography>
        )}
        {LANES.map(({ side, word, colour }) => {
          const notes = head.notes.filter((note) => note.side === side)
          if (notes.length === 0) return null
          return (
            <Box key={word} sx={{ borderLeft: `3px solid ${colour}`, pl: 1.25, mb: 2 }}>
              <Typography
                variant="overline"
                component="h3"
                sx={{ color: side === null ? 'text.secondary' : colour, display: 'block' }}
              >
                {t(word)}
              </Typography>
              {notes.map((note) => (
                <Typography
                  key={note.text}
                  sx={{
                    fontSize: '0.92rem',
                    lineHeight: 1.42,
                    mb: 0.5,
                    fontWeight: note.weight === 'ask' ? 700 : 400,
                    fontStyle: note.weight === 'promise' ? 'italic' : 'normal',
                  }}
                >
                  {note.weight === 'ask' ? '? ' : ''}
                  {note.text}
                </Typography>
              ))}
            </Box>
          )
        })}
        <Box sx={{ bgcolor: colours.note, borderRadius: 1, p: 1.25, fontSize: '0.92rem', lineHeight: 1.42 }}>
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
        <Typography color="text.secondary" sx={{ fontSize: '0.82rem', mt: 2, lineHeight: 1.4 }}>
          {head.disclaimer}
        </Typography>
      </Box>
    </Box>
  )
}

import Box from '@mui/material/Box'
import TextField from '@mui/material/TextField'
import Typography from '@mui/material/Typography'
import { type ReactNode, useDeferredValue, useMemo, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { NavLink, useLocation } from 'react-router'
import type { Schemas } from '../../api/client'
import { familyOf } from '../../common/ladders'
import { usePracticeId } from '../../common/route'
import { useMayWrite } from '../../common/session'
import { ImportVariation } from './ImportVariation'
import { hasWords } from '../../common/search'
import { byPurpose, type Purpose, search } from './model'
import { colours } from '../../theme/theme'

/** What there is: by purpose, or what a search finds; beneath, what was put away or cannot be read. */
export function FamilyList({ shelf, purposes }: { shelf: Schemas['ShelfOut']; purposes: Purpose[] }) {
  const { t } = useTranslation()
  const mayWrite = useMayWrite(usePracticeId())
  const [text, setText] = useState('')
  const wanted = useDeferredValue(text.trim())
  const shelves = useMemo(() => byPurpose(shelf.families, purposes), [shelf, purposes])
  const hits = useMemo(() => (wanted === '' ? null : search(shelf.families, wanted)), [shelf, wanted])
  const putAway = shelf.retired.filter((line) => hasWords(line.name, wanted))
  return (
    <>
      <TextField
        fullWidth
        type="search"
        label={t('library.search')}
        value={text}
        onChange={(event) => {
          setText(event.target.value)
        }}
      />
      {mayWrite && (
        <Box sx={{ mt: 1.25, mb: 1 }}>
          <ImportVariation />
        </Box>
      )}
      {hits === null &&
        shelves.map((each) => (
          <Group key={each.purpose.code} title={each.purpose.words}>
            {each.families.map((family) => (
              <Entry
                key={family.family}
                family={family.family}
                label={family.name}
                own={family.rungs.some((rung) => rung.own)}
              />
            ))}
          </Group>
        ))}
      {hits?.length === 0 && putAway.length === 0 && (
        <Typography color="text.secondary" sx={{ mt: 2 }}>
          {t('library.noneFound', { text: wanted })}
        </Typography>
      )}
      {hits?.map((hit) => (
        <Group key={hit.family.family} title={hit.family.name}>
          {hit.rungs.map((rung) => (
            <Entry key={rung.id} family={hit.family.family} rung={rung.id} label={rung.name} own={rung.own} />
          ))}
        </Group>
      ))}
      {putAway.length > 0 && (
        <Group title={t('library.retired')}>
          {putAway.map((line) => (
            <Entry
              key={line.variation}
              family={familyOf(line.variation)}
              rung={line.variation}
              label={line.name}
            />
          ))}
        </Group>
      )}
      {shelf.troubles.map((trouble) => (
        <Box key={trouble.variation} sx={{ mt: 2, borderLeft: `3px solid ${colours.accent}`, pl: 1 }}>
          <strong>{trouble.name}</strong>
          <Typography sx={{ fontSize: '0.88rem' }}>
            {t('library.unreadable')} {trouble.message}
          </Typography>
        </Box>
      ))}
    </>
  )
}

function Group({ title, children }: { title: string; children: ReactNode }) {
  return (
    <Box component="section" sx={{ mt: 1.5 }}>
      <Typography component="h2" sx={{ fontSize: '0.85rem', fontWeight: 700, color: 'text.secondary' }}>
        {title}
      </Typography>
      <Box component="ul" sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {children}
      </Box>
    </Box>
  )
}

interface EntryProps {
  family: string
  rung?: string
  label: string
  own?: boolean
}

/** A way to a family or one of its rungs; who the figures are drawn for stays as it is. */
function Entry({ family, rung, label, own = false }: EntryProps) {
  const { t } = useTranslation()
  const practiceId = usePracticeId()
  const { search: before } = useLocation()
  const query = new URLSearchParams(before)
  const here = query.get('rung')
  if (rung === undefined) query.delete('rung')
  else query.set('rung', rung)
  const text = query.toString()
  return (
    <Box component="li">
      <Box
        component={NavLink}
        to={`/practices/${practiceId}/library/${family}${text === '' ? '' : `?${text}`}`}
        aria-current={rung === undefined ? undefined : here === rung ? 'page' : 'false'}
        sx={{
          display: 'flex',
          justifyContent: 'space-between',
          gap: 1,
          color: 'inherit',
          textDecoration: 'none',
          py: 0.4,
          px: 0.75,
          mx: -0.75,
          borderRadius: 1,
          lineHeight: 1.3,
          '&:hover': { bgcolor: colours.note },
          ...(rung === undefined
            ? { '&.active': { bgcolor: colours.ink, color: colours.ground } }
            : here === rung
              ? { bgcolor: colours.ink, color: colours.ground }
              : {}),
        }}
      >
        {label}
        {own && <Box sx={{ fontSize: '0.8rem', opacity: 0.8 }}>{t('library.own')}</Box>}
      </Box>
    </Box>
  )
}

import Box from '@mui/material/Box'
import { useCallback } from 'react'
import { Navigate, useParams, useSearchParams } from 'react-router'
import type { Side } from '../../api/client'
import { colours } from '../../app/theme'
import { usePurposes } from '../../common/ladders'
import { usePracticeId } from '../../common/route'
import { Failure, Working } from '../../common/ui/States'
import { FamilyList } from './FamilyList'
import { FamilyPane } from './FamilyPane'
import { byPurpose } from './model'
import { type Sitter, useShelf } from './queries'

/** Families by purpose on the left; one family's ladder and one of its rungs in full on the right. */
export function LibraryScreen() {
  const practiceId = usePracticeId()
  const { familyId } = useParams()
  const shelf = useShelf()
  const purposes = usePurposes()
  const [query, setQuery] = useSearchParams()
  const set = useCallback(
    (changes: Record<string, string | null>) => {
      setQuery(
        (before) => {
          const next = new URLSearchParams(before)
          for (const [name, value] of Object.entries(changes)) {
            if (value === null) next.delete(name)
            else next.set(name, value)
          }
          return next
        },
        { replace: true },
      )
    },
    [setQuery],
  )
  if (shelf.isPending || purposes.isPending) return <Working />
  if (shelf.isError) return <Failure error={shelf.error} again={() => void shelf.refetch()} />
  if (purposes.isError) return <Failure error={purposes.error} again={() => void purposes.refetch()} />
  const first = byPurpose(shelf.data.families, purposes.data)[0]?.families[0]
  if (familyId === undefined && first !== undefined)
    return <Navigate to={`/practices/${practiceId}/library/${first.family}`} replace />
  const side: Side = query.get('side') === 'right' ? 'right' : 'left'
  const sitter: Sitter = { client: query.get('client'), side }
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: '292px minmax(0, 1fr)' }}>
      <Box
        component="nav"
        sx={{
          position: 'sticky',
          top: 0,
          height: 'calc(100vh - 46px)',
          overflowY: 'auto',
          bgcolor: colours.panel,
          borderRight: `1px solid ${colours.line}`,
          px: 2,
          py: 2,
        }}
      >
        <FamilyList shelf={shelf.data} purposes={purposes.data} />
      </Box>
      <Box component="main" sx={{ px: 3, py: 2, minWidth: 0 }}>
        {familyId !== undefined && (
          <FamilyPane key={familyId} familyId={familyId} sitter={sitter} rung={query.get('rung')} set={set} />
        )}
      </Box>
    </Box>
  )
}

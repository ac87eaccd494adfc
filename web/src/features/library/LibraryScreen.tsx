import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Drawer from '@mui/material/Drawer'
import useMediaQuery from '@mui/material/useMediaQuery'
import { useCallback, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Navigate, useParams, useSearchParams } from 'react-router'
import type { Side } from '../../api/client'
import { usePurposes } from '../../common/ladders'
import { usePracticeId } from '../../common/route'
import { Main } from '../../common/ui/Main'
import { Failure, Working } from '../../common/ui/States'
import { ViewTitle } from '../../common/ui/ViewTitle'
import { FamilyList } from './FamilyList'
import { FamilyPane } from './FamilyPane'
import { byPurpose } from './model'
import { type Sitter, useShelf } from './queries'

/** Families by purpose on the left; one family's ladder and one of its rungs in full on the right. */
export function LibraryScreen() {
  const { t } = useTranslation()
  const practiceId = usePracticeId()
  const { familyId } = useParams()
  const shelf = useShelf()
  const purposes = usePurposes()
  const [search, setSearch] = useSearchParams()
  const roomy = useMediaQuery((theme) => theme.breakpoints.up('md'))
  const [listed, setListed] = useState<string>()
  const set = useCallback(
    (changes: Record<string, string | null>) => {
      setSearch(
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
    [setSearch],
  )
  if (shelf.isPending || purposes.isPending) return <Working />
  if (shelf.isError) return <Failure error={shelf.error} again={() => void shelf.refetch()} />
  if (purposes.isError) return <Failure error={purposes.error} again={() => void purposes.refetch()} />
  const first = byPurpose(shelf.data.families, purposes.data)[0]?.families[0]
  if (familyId === undefined && first !== undefined)
    return <Navigate to={`/practices/${practiceId}/library/${first.family}`} replace />
  const side: Side = search.get('side') === 'right' ? 'right' : 'left'
  const sitter: Sitter = { client: search.get('client'), side }
  const list = <FamilyList shelf={shelf.data} purposes={purposes.data} />
  const here = shelf.data.families.find((family) => family.family === familyId)?.name
  return (
    <Box sx={{ display: { md: 'grid' }, gridTemplateColumns: '292px minmax(0, 1fr)' }}>
      {roomy ? (
        <Box
          component="nav"
          aria-label={t('library.families')}
          sx={{
            position: 'sticky',
            top: 0,
            height: 'calc(100vh - 46px)',
            overflowY: 'auto',
            bgcolor: 'surface.panel',
            borderRight: 1,
            borderColor: 'divider',
            p: 2,
          }}
        >
          {list}
        </Box>
      ) : (
        <>
          <Button
            variant="outlined"
            onClick={() => {
              setListed(familyId)
            }}
            sx={{ m: 1.5, mb: 0 }}
          >
            {t('library.families')}
          </Button>
          {/* Open until another family was chosen. */}
          <Drawer
            open={listed !== undefined && listed === familyId}
            onClose={() => {
              setListed(undefined)
            }}
            slotProps={{
              paper: { sx: { width: 'min(320px, 88vw)', p: 2 }, 'aria-label': t('library.families') },
            }}
          >
            {list}
          </Drawer>
        </>
      )}
      <Main sx={{ px: { xs: 1.5, md: 3 }, py: 2, minWidth: 0 }}>
        <ViewTitle about={here} />
        {familyId !== undefined && (
          <FamilyPane
            key={familyId}
            familyId={familyId}
            sitter={sitter}
            rung={search.get('rung')}
            set={set}
          />
        )}
      </Main>
    </Box>
  )
}

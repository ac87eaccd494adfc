import Box from '@mui/material/Box'
import { lazy, Suspense, useMemo, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Outlet } from 'react-router'
import '../../common/i18n/views'
import { useCommands, useKeys } from '../../common/commands'
import { writeIn } from '../../common/practice'
import { usePracticeId } from '../../common/route'
import { useScreen } from '../../common/screens'
import { useMe } from '../../common/session'
import { MAIN } from '../../common/ui/Main'
import { Failure, NothingHere, Working } from '../../common/ui/States'
import { useLightOf } from '../../theme/light'
import { colours } from '../../theme/theme'
import { KeysDialog } from './KeysDialog'
import { PersonDrawer } from './PersonDrawer'
import { PracticeBar } from './PracticeBar'
import { SessionEnded } from './SessionEnded'
import { SignInPage } from './SignInScreen'

/** Loaded when it is first asked for. */
const Palette = lazy(async () => ({ default: (await import('./Palette')).Palette }))

type Over = 'keys' | 'palette' | 'person'

/** The bar above everything of a practice. The mat has the whole screen to itself, and its own light. */
export function PracticeFrame() {
  const me = useMe()
  const practiceId = usePracticeId()
  const screen = useScreen()
  const [over, setOver] = useState<Over | null>(null)
  useLightOf(screen?.whole === true ? 'mat' : 'desk')
  useKeys()
  useCommands(
    useMemo(
      () => [
        {
          name: 'keys' as const,
          keys: ['?'],
          run: () => {
            setOver((open) => (open === 'keys' ? null : 'keys'))
          },
        },
        {
          name: 'find' as const,
          keys: ['/'],
          run: () => {
            setOver('palette')
          },
        },
      ],
      [],
    ),
  )
  if (me.isPending) return <Working />
  if (me.isError) return <Failure error={me.error} again={() => void me.refetch()} />
  // The address stays: whoever signs in here sees what was asked for.
  if (!me.data.signed_in) return <SignInPage />
  const practice = me.data.practices.find((candidate) => candidate.id === practiceId)
  if (practice === undefined) return <NothingHere />
  writeIn(practice.settings)
  const close = () => {
    setOver(null)
  }
  return (
    <Box sx={{ minHeight: '100vh' }}>
      <SkipLink />
      {screen?.whole !== true && (
        <PracticeBar
          practice={practice}
          name={me.data.full_name}
          onFind={() => {
            setOver('palette')
          }}
          onPerson={() => {
            setOver('person')
          }}
        />
      )}
      {/* What is shown is written anew when the practice writes otherwise. */}
      <Outlet key={JSON.stringify(practice.settings)} />
      <SessionEnded />
      <PersonDrawer
        me={me.data}
        practiceId={practiceId}
        open={over === 'person'}
        onClose={close}
        onKeys={() => {
          setOver('keys')
        }}
      />
      {over === 'palette' && (
        <Suspense>
          <Palette onClose={close} />
        </Suspense>
      )}
      {over === 'keys' && <KeysDialog onClose={close} />}
    </Box>
  )
}

/** Past the bar and the band to what one came for; seen when it has the focus. */
function SkipLink() {
  const { t } = useTranslation()
  return (
    <Box
      component="a"
      href={`#${MAIN}`}
      sx={{
        position: 'fixed',
        top: 6,
        left: 6,
        zIndex: 1400,
        px: 2,
        py: 1,
        bgcolor: 'background.default',
        color: 'text.primary',
        border: `2px solid ${colours.ink}`,
        borderRadius: 1,
        transform: 'translateY(-200%)',
        '&:focus': { transform: 'none' },
      }}
    >
      {t('nav.skip')}
    </Box>
  )
}

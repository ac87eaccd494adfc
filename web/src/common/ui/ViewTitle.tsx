import Typography from '@mui/material/Typography'
import { useEffect, useRef } from 'react'
import { useTranslation } from 'react-i18next'
import { useScreen } from '../screens'
import { HIDDEN } from './Hidden'

/** Whether a first view was shown: the browser itself tells that one. */
let arrived = false

/**
 * The heading of a view for those who listen, and the page's title. A view one came to takes the focus with its
 * heading, which is how it is told; nothing is taken from a field that already asked for it.
 */
export function ViewTitle({ about }: { about?: string | undefined }) {
  const { t } = useTranslation()
  const screen = useScreen()
  const heading = useRef<HTMLHeadingElement>(null)
  const title = [screen === undefined ? undefined : t(screen.title), about].filter(Boolean).join(' · ')
  useEffect(() => {
    document.title = [title, t('app.name')].filter(Boolean).join(' · ')
  }, [title, t])
  useEffect(() => {
    const field = document.activeElement?.matches('input, textarea') ?? false
    if (arrived && !field) heading.current?.focus({ preventScroll: true })
    arrived = true
  }, [screen?.id])
  return (
    <Typography ref={heading} component="h1" tabIndex={-1} sx={HIDDEN}>
      {screen !== undefined && t(screen.title)}
      {about !== undefined && (
        <>
          {' · '}
          <span translate="no">{about}</span>
        </>
      )}
    </Typography>
  )
}

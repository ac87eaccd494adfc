import Alert from '@mui/material/Alert'
import Button from '@mui/material/Button'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { timeOfDay } from '../dates'

interface Props {
  /** When the draft was last changed; nothing is said without one. */
  since: number | undefined
  onDiscard: () => void
}

/** Says of a form that it holds what was typed before and is not stored yet; to discard it is asked twice. */
export function DraftNote({ since, onDiscard }: Props) {
  const { t } = useTranslation()
  // Only what was there when the form was opened is worth saying.
  const [found, setFound] = useState(since)
  const [asked, setAsked] = useState(false)
  if (found === undefined || since === undefined) return null
  return (
    <Alert
      severity="info"
      action={
        <Button
          color={asked ? 'error' : 'inherit'}
          size="small"
          onClick={() => {
            if (!asked) setAsked(true)
            else {
              onDiscard()
              setFound(undefined)
            }
          }}
        >
          {t(asked ? 'common.draft.really' : 'common.draft.discard')}
        </Button>
      }
    >
      {t('common.draft.kept', { time: timeOfDay(found) })}
    </Alert>
  )
}

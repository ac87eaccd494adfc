import Button from '@mui/material/Button'
import { styled } from '@mui/material/styles'
import TextField from '@mui/material/TextField'
import { type SubmitEvent, useState } from 'react'
import { useTranslation } from 'react-i18next'
import type { Schemas } from '../../api/client'
import { shortDate } from '../../common/dates'
import { useKeptDraft } from '../../common/drafts'
import { useClientPath } from '../../common/route'
import { Row } from '../../common/ui/layout'
import { Refused } from '../../common/ui/States'
import { colours } from '../../theme/theme'
import { useTakeOn } from './queries'

const LEAST_REASON = 3
/** A button in a line of text. */
export const SMALL = { py: 0, minHeight: 24 } as const

const Said = styled('span')({ display: 'block', color: colours.muted, '& q': { color: colours.ink } })

interface Props {
  family: string
  finding: Schemas['FindingOut']
}

/** A caution is taken on with a reason, which is shown next time with who and when; or no longer. */
export function TakeOn({ family, finding }: Props) {
  const { t } = useTranslation()
  const path = useClientPath()
  const takeOn = useTakeOn()
  const [writing, setWriting] = useState(false)
  const { codes, side, accepted } = finding
  const draft = useKeptDraft(`caution:${path.client_id}:${family}:${side ?? ''}:${codes.join()}`, '')
  const about = { family, codes, ...(side === null ? {} : { side }) }
  const submit = (event: SubmitEvent) => {
    event.preventDefault()
    takeOn.mutate(
      { params: { path }, body: { ...about, accepted: true, reason: draft.value.trim() } },
      {
        onSuccess: () => {
          draft.clear()
          setWriting(false)
        },
      },
    )
  }
  if (accepted !== null && accepted !== undefined) {
    return (
      <Said>
        {t('setUp.accepted', { date: shortDate(accepted.at.slice(0, 10)), by: accepted.by })}{' '}
        <q translate="no">{accepted.reason}</q>{' '}
        <Button
          size="small"
          sx={SMALL}
          disabled={takeOn.isPending}
          onClick={() => {
            takeOn.mutate({ params: { path }, body: { ...about, accepted: false, reason: '' } })
          }}
        >
          {t('setUp.noLongerAccepted')}
        </Button>
        <Refused error={takeOn.error} />
      </Said>
    )
  }
  if (!writing) {
    return (
      <Button
        size="small"
        sx={SMALL}
        onClick={() => {
          setWriting(true)
        }}
      >
        {t('setUp.accept')}
      </Button>
    )
  }
  return (
    <form onSubmit={submit}>
      <Row>
        <TextField
          autoFocus
          fullWidth
          variant="standard"
          placeholder={t('setUp.acceptReason')}
          value={draft.value}
          slotProps={{ htmlInput: { 'aria-label': t('setUp.acceptReason'), maxLength: 300 } }}
          onChange={(event) => {
            draft.set(event.target.value)
          }}
          onKeyDown={(event) => {
            if (event.key === 'Escape') setWriting(false)
          }}
        />
        <Button
          type="submit"
          size="small"
          variant="outlined"
          disabled={takeOn.isPending || draft.value.trim().length < LEAST_REASON}
        >
          {t('setUp.acceptNow')}
        </Button>
      </Row>
      <Refused error={takeOn.error} />
    </form>
  )
}

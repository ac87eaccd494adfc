import Button from '@mui/material/Button'
import { styled } from '@mui/material/styles'
import { useTranslation } from 'react-i18next'
import type { Schemas } from '../../api/client'
import { longDate } from '../../common/dates'
import { useClientPath } from '../../common/route'
import { Refused } from '../../common/ui/States'
import { colours } from '../../theme/theme'
import { useWithdrawInstruction } from './queries'

const Said = styled('blockquote')(({ theme }) => ({
  margin: theme.spacing(1, 0, 0),
  paddingLeft: theme.spacing(1.25),
  borderLeft: `3px solid ${colours.accent}`,
  lineHeight: 1.45,
  '& footer': { color: colours.muted, fontSize: '0.92rem' },
  '&[data-over]': { color: colours.muted },
}))

interface Props {
  entry: Schemas['EntryOut']
  mayWrite: boolean
}

/** What treating professionals said of a record, the latest last. */
export function Instructions({ entry, mayWrite }: Props) {
  const { t } = useTranslation()
  const path = useClientPath()
  const withdraw = useWithdrawInstruction()
  return (
    <>
      {entry.instructions.map((said) => (
        <Said key={said.id} data-over={said.counts ? undefined : ''}>
          {said.text !== '' && <div translate="no">{said.text}</div>}
          {said.figures.map(({ words, holds }) => (
            <div key={words}>
              <strong>{words}</strong>
              {said.counts && !holds && ` (${t('limits.word.idle')})`}
            </div>
          ))}
          <footer>
            {t(`said.professionals.${said.who}`)}, {longDate(said.date)}
            {said.until !== null && ` – ${longDate(said.until)}`}
            {!said.counts && ` (${t('limits.word.over')})`}
            {mayWrite && (
              <Button
                size="small"
                disabled={withdraw.isPending}
                onClick={() => {
                  withdraw.mutate({
                    params: { path: { ...path, entry_id: entry.id, instruction_id: said.id } },
                  })
                }}
              >
                {t('limits.word.withdraw')}
              </Button>
            )}
          </footer>
        </Said>
      ))}
      <Refused error={withdraw.error} />
    </>
  )
}

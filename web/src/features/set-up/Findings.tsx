import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import TextField from '@mui/material/TextField'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import type { Schemas } from '../../api/client'
import { VerdictMark } from '../../shared/ui/VerdictMark'

const MARK = { stop: 'leave_out', ask: 'check_first', caution: 'with_setup' } as const

interface Props {
  findings: Schemas['FindingOut'][]
  troubles: string[]
  reasons: Record<string, string>
  onReason: (code: string, reason: string) => void
}

/** What binds at this set-up. A caution may be accepted with a reason; stops and questions may not. */
export function Findings({ findings, troubles, reasons, onReason }: Props) {
  const { t } = useTranslation()
  const [open, setOpen] = useState<string | null>(null)
  return (
    <Box component="ul" sx={{ listStyle: 'none', p: 0, m: 0, mt: 0.75 }}>
      {troubles.map((trouble) => (
        <Item key={trouble} mark="leave_out" text={trouble} />
      ))}
      {findings.map((finding) => {
        const code = finding.codes[0] ?? ''
        return (
          <Item key={finding.sentence} mark={MARK[finding.severity]} text={finding.sentence}>
            {finding.severity === 'caution' && open !== code && (
              <Button
                size="small"
                sx={{ py: 0, minHeight: 24 }}
                onClick={() => {
                  setOpen(code)
                }}
              >
                {reasons[code] ? t('setUp.accepted', { reason: reasons[code] }) : t('setUp.accept')}
              </Button>
            )}
            {open === code && (
              <TextField
                autoFocus
                fullWidth
                variant="standard"
                placeholder={t('setUp.acceptReason')}
                value={reasons[code] ?? ''}
                onChange={(event) => {
                  onReason(code, event.target.value)
                }}
                onBlur={() => {
                  setOpen(null)
                }}
                onKeyDown={(event) => {
                  if (event.key === 'Enter') setOpen(null)
                }}
              />
            )}
          </Item>
        )
      })}
    </Box>
  )
}

function Item({
  mark,
  text,
  children,
}: {
  mark: Schemas['Verdict']
  text: string
  children?: React.ReactNode
}) {
  return (
    <Box
      component="li"
      sx={{
        display: 'flex',
        gap: 0.9,
        fontSize: '0.92rem',
        lineHeight: 1.38,
        mb: 0.5,
        alignItems: 'flex-start',
      }}
    >
      <Box sx={{ pt: 0.25 }}>
        <VerdictMark verdict={mark} size={14} />
      </Box>
      <Box sx={{ flex: 1 }}>
        {text} {children}
      </Box>
    </Box>
  )
}

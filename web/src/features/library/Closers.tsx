import Box from '@mui/material/Box'
import Typography from '@mui/material/Typography'
import { useTranslation } from 'react-i18next'
import type { Schemas } from '../../api/client'
import { VerdictMark } from '../../common/ui/VerdictMark'
import { useClosers } from './queries'

type Closer = Schemas['CloserOut']

/** Records often met, tried on this variation for a typical body in a well-stocked room. */
export function Closers({ variationId }: { variationId: string }) {
  const { t } = useTranslation()
  const closers = useClosers(variationId)
  if (closers.isPending) return <Typography color="text.secondary">{t('library.tryingRecords')}</Typography>
  if (closers.isError) return <Typography color="text.secondary">{closers.error.message}</Typography>
  const open = closers.data.filter((closer) => closer.verdict === 'clear')
  const held = closers.data.filter((closer) => closer.verdict === 'with_setup' && closer.reason === '')
  const minded = closers.data.filter((closer) => !open.includes(closer) && !held.includes(closer))
  const named = (closer: Closer) =>
    closer.leg === '' ? closer.name : `${closer.name}, ${t(`library.leg.${closer.leg}`)}`
  return (
    <>
      {minded.map((closer) => (
        <Box
          key={named(closer)}
          sx={{ display: 'grid', gridTemplateColumns: '18px 1fr', gap: 0.75, mt: 0.5, lineHeight: 1.4 }}
        >
          <Box sx={{ pt: 0.3 }}>
            <VerdictMark verdict={closer.verdict} size={14} />
          </Box>
          <div>
            <strong>{named(closer)}</strong>: {t(`verdictLong.${closer.verdict}`)}.{' '}
            <Box component="span" sx={{ color: 'text.secondary' }}>
              {closer.reason}
            </Box>
          </div>
        </Box>
      ))}
      {held.length > 0 && (
        <Typography sx={{ mt: 0.75, lineHeight: 1.4 }}>
          {t('library.openWithSetup')} {held.map(named).join('; ')}.
        </Typography>
      )}
      {open.length > 0 && (
        <Typography sx={{ mt: 0.75, lineHeight: 1.4 }}>
          {t('library.openFor')} {open.map(named).join('; ')}.
        </Typography>
      )}
      <Typography color="text.secondary" sx={{ fontSize: '0.85rem', mt: 0.75 }}>
        {t('library.closersMore')}
      </Typography>
    </>
  )
}

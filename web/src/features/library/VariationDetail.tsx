import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Typography from '@mui/material/Typography'
import { type ReactNode, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Link, useLocation } from 'react-router'
import { Labelled } from '../../common/ui/Labelled'
import type { Schemas } from '../../api/client'
import { shortDate } from '../../common/dates'
import { usePracticeId } from '../../common/route'
import { useMayWrite } from '../../common/session'
import { Failure, Working } from '../../common/ui/States'
import { VerdictMark } from '../../common/ui/VerdictMark'
import { Rest, Row } from '../../common/ui/layout'
import { AdjustDialog } from './AdjustDialog'
import { Closers } from './Closers'
import { Drawings } from './Drawings'
import { type Sitter, useFileAddress, useVariation } from './queries'
import { RetireDialog } from './RetireDialog'
import { VersionsDialog } from './VersionsDialog'

interface Props {
  variationId: string
  sitter: Sitter
  onGo: (rung: string) => void
}

type Open = 'copy' | 'change' | 'versions' | 'retire' | null

/** One rung in full: figures, recipe, words, what usually closes it, and what can be done with it. */
export function VariationDetail({ variationId, sitter, onGo }: Props) {
  const { t } = useTranslation()
  const rung = useVariation(variationId, sitter)
  const [open, setOpen] = useState<Open>(null)
  if (rung.isPending) return <Working />
  if (rung.isError) return <Failure error={rung.error} again={() => void rung.refetch()} />
  const data = rung.data
  const close = () => {
    setOpen(null)
  }
  return (
    <Box component="article" aria-busy={rung.isPlaceholderData} sx={{ pt: 1.5 }}>
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 2, mb: 1 }}>
        <Rest>
          <Typography variant="h2">{data.name}</Typography>
          {data.own !== null && (
            <Typography variant="note">
              {t('library.ownVersion', {
                number: data.own.number,
                date: shortDate(data.own.saved_on),
                who: data.own.saved_by,
              })}
              {data.own.retired && ` ${t('library.isRetired')}`}
            </Typography>
          )}
        </Rest>
        <Actions data={data} onOpen={setOpen} />
      </Box>
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: { xs: 'minmax(0, 1fr)', md: 'minmax(300px, 42%) minmax(0, 1fr)' },
          gap: { xs: 2, md: 3.5 },
        }}
      >
        <Box>
          <Drawings key={data.id} data={data} />
          <Verdict data={data} />
          {data.fetch.length > 0 && <Labelled label={t('library.fetch')}>{data.fetch.join(', ')}</Labelled>}
          <Labelled label={t('library.dose')}>{data.hold}</Labelled>
          {data.counter.length > 0 && (
            <Labelled label={t('library.after')}>{data.counter.join(', ')}</Labelled>
          )}
          <Box sx={{ display: 'flex', gap: 1, mt: 1.5, flexWrap: 'wrap' }}>
            <Step label={t('setUp.stepBack')} step={data.step_back} onGo={onGo} />
            <Step label={t('setUp.stepForward')} step={data.step_forward} onGo={onGo} />
          </Box>
        </Box>
        <Box>
          <Head>{t('library.recipe')}</Head>
          {data.recipe.map((line) => (
            <Labelled key={line.about} label={line.about}>
              {line.words}
            </Labelled>
          ))}
          {data.slots.length > 0 && <Head>{t('library.mayBeSet')}</Head>}
          {data.slots.map((slot) => (
            <Labelled key={slot.name} label={slot.label}>
              {slot.words}
              {slot.less_support !== '' && (
                <Box component="span" sx={{ color: 'text.secondary' }}>
                  {' '}
                  — {slot.less_support}
                </Box>
              )}
            </Labelled>
          ))}
          {data.tests.length > 0 && (
            <>
              <Head>{t('library.testsFirst')}</Head>
              <Sentences lines={data.tests} />
            </>
          )}
          <Head>{t('library.say')}</Head>
          <Sentences lines={data.cues} />
          <Head>{t('library.watchFor')}</Head>
          <Sentences lines={data.watch} />
          <Head>{t('library.closers')}</Head>
          <Closers variationId={data.id} />
        </Box>
      </Box>
      {open === 'copy' && <AdjustDialog data={data} onClose={close} onSaved={onGo} />}
      {open === 'change' && data.own !== null && (
        <AdjustDialog data={data} version={data.own.number} onClose={close} onSaved={onGo} />
      )}
      {open === 'versions' && data.own !== null && (
        <VersionsDialog variationId={data.id} number={data.own.number} onClose={close} />
      )}
      {open === 'retire' && data.own !== null && (
        <RetireDialog variationId={data.id} name={data.name} number={data.own.number} onClose={close} />
      )}
    </Box>
  )
}

/** What can be done: copy, print, save as a file; change and put away what is the practice's own. */
function Actions({ data, onOpen }: { data: Schemas['VariationOut']; onOpen: (open: Open) => void }) {
  const { t } = useTranslation()
  const practiceId = usePracticeId()
  const { search } = useLocation()
  const file = useFileAddress(data.id)
  const mayWrite = useMayWrite(practiceId)
  const own = mayWrite ? data.own : null
  const button = (open: Open, label: string) => (
    <Button
      size="small"
      variant="outlined"
      onClick={() => {
        onOpen(open)
      }}
    >
      {label}
    </Button>
  )
  return (
    <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap', justifyContent: 'flex-end' }}>
      {own !== null && button('change', t('library.change'))}
      {mayWrite && button('copy', t('library.copy'))}
      <Button
        size="small"
        variant="outlined"
        component={Link}
        to={`/practices/${practiceId}/library/card/${data.id}${search}`}
      >
        {t('library.card')}
      </Button>
      <Button size="small" variant="outlined" component="a" href={file}>
        {t('library.toFile')}
      </Button>
      {own !== null && button('versions', t('library.versions'))}
      {own?.retired === false && button('retire', t('library.retire'))}
    </Box>
  )
}

/** What today makes of it for a client; for a typical body only the set-up that is drawn. */
function Verdict({ data }: { data: Schemas['VariationOut'] }) {
  const { t } = useTranslation()
  return (
    <Box sx={{ mt: 1 }}>
      {data.no_stack !== null && <Typography>{data.no_stack}</Typography>}
      {data.line !== '' && <Labelled label={t('library.drawnWith')}>{data.line}</Labelled>}
      {data.verdict !== null && (
        <Labelled label={t('library.today')}>
          <Row gap={0.75}>
            <VerdictMark verdict={data.verdict} size={14} />
            <strong>{t(`verdictLong.${data.verdict}`)}</strong>
          </Row>
          {data.verdict !== 'clear' && <Sentences lines={data.reasons} />}
        </Labelled>
      )}
    </Box>
  )
}

function Step({
  label,
  step,
  onGo,
}: {
  label: string
  step: Schemas['StepName'] | null
  onGo: (id: string) => void
}) {
  if (step === null) return null
  return (
    <Button
      size="small"
      onClick={() => {
        onGo(step.id)
      }}
    >
      {label}: {step.short}
    </Button>
  )
}

function Head({ children }: { children: ReactNode }) {
  return (
    <Typography variant="h3" sx={{ mt: 1.75, mb: 0.25, '&:first-of-type': { mt: 0 } }}>
      {children}
    </Typography>
  )
}

function Sentences({ lines }: { lines: readonly string[] }) {
  return (
    <Box component="ul" sx={{ m: 0, pl: 2.25, lineHeight: 1.45 }}>
      {lines.map((line) => (
        <li key={line}>{line}</li>
      ))}
    </Box>
  )
}

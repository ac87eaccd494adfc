import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Typography from '@mui/material/Typography'
import { useTranslation } from 'react-i18next'
import { Link, useParams, useSearchParams } from 'react-router'
import { familyOf } from '../../common/ladders'
import { usePracticeId } from '../../common/route'
import { Main } from '../../common/ui/Main'
import { Failure, Working } from '../../common/ui/States'
import { ViewTitle } from '../../common/ui/ViewTitle'
import { figureColours } from '../../figure/colours'
import { Figure } from '../../figure/Figure'
import { useVariation } from './queries'
import { serif, SHEET } from '../../theme/theme'

/** One variation on one sheet of paper: how it looks, what to fetch, what to say, what to mind. */
export function CardScreen() {
  const { t } = useTranslation()
  const practiceId = usePracticeId()
  const { variationId = '' } = useParams()
  const [query] = useSearchParams()
  const side = query.get('side') === 'right' ? 'right' : 'left'
  const rung = useVariation(variationId, { client: query.get('client'), side })
  if (rung.isPending) return <Working />
  if (rung.isError) return <Failure error={rung.error} again={() => void rung.refetch()} />
  const data = rung.data
  const back = new URLSearchParams(query)
  back.set('rung', variationId)
  const usual = data.drawings.find((each) => each.view === data.seen_from) ?? data.drawings[0]
  const other = data.drawings.find(
    (each) => each.view === (usual?.view === 'above' ? `side_${side}` : 'above'),
  )
  return (
    <Main>
      <ViewTitle about={data.name} />
      <Box sx={{ display: 'flex', gap: 1.5, px: 3, py: 1.5, '@media print': { display: 'none' } }}>
        <Button
          component={Link}
          variant="outlined"
          to={`/practices/${practiceId}/library/${familyOf(variationId)}?${back.toString()}`}
        >
          {t('library.backToLibrary')}
        </Button>
        <Button
          variant="contained"
          onClick={() => {
            window.print()
          }}
        >
          {t('library.print')}
        </Button>
      </Box>
      <Box
        sx={{
          ...figureColours('print'),
          bgcolor: SHEET.ground,
          color: SHEET.ink,
          maxWidth: 760,
          mx: 'auto',
          mb: 4,
          px: 5,
          py: 4,
          border: `1px solid ${SHEET.line}`,
          '@media print': { border: 0, m: 0, p: 0, maxWidth: 'none' },
        }}
      >
        <Typography sx={{ fontFamily: serif, fontWeight: 600, fontSize: '1.7rem', lineHeight: 1.2 }}>
          {data.name}
        </Typography>
        <Typography>
          {[data.family_name, data.sanskrit, data.shared ? '' : t(`library.cardSide.${side}`)]
            .filter(Boolean)
            .join(' · ')}
        </Typography>
        <Typography sx={{ mb: 2 }}>
          {data.line !== '' && `${t('library.cardSetUp')}: ${data.line}`}
        </Typography>
        <Box sx={{ display: 'grid', gridTemplateColumns: other === undefined ? '1fr' : '3fr 2fr', gap: 3 }}>
          {[usual, other].map(
            (drawing) =>
              drawing !== undefined && (
                <Box key={drawing.view}>
                  <Figure svg={drawing.figure} height={330} />
                  <Typography sx={{ fontSize: '0.85rem', textAlign: 'center' }}>
                    {t(`library.seen.${drawing.view}`)}
                  </Typography>
                </Box>
              ),
          )}
        </Box>
        <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', columnGap: 4, mt: 2 }}>
          <CardPart
            title={t('library.cardFetch')}
            lines={data.fetch.length > 0 ? data.fetch : [t('setUp.nothingToFetch')]}
          />
          {data.home.length > 0 && <CardPart title={t('library.cardHome')} lines={data.home} />}
          <CardPart title={t('library.cardLong')} lines={[data.hold]} />
          <CardPart title={t('library.cardHow')} lines={data.cues} />
          <CardPart title={t('library.cardMind')} lines={data.watch} />
        </Box>
        <Typography sx={{ mt: 3, pt: 1.5, borderTop: `1px solid ${SHEET.line}`, fontSize: '0.92rem' }}>
          {t('library.cardFoot')}
        </Typography>
      </Box>
    </Main>
  )
}

function CardPart({ title, lines }: { title: string; lines: readonly string[] }) {
  return (
    <Box component="section" sx={{ mt: 1.5, breakInside: 'avoid' }}>
      <Typography sx={{ fontFamily: serif, fontWeight: 600, fontSize: '1.1rem' }}>{title}</Typography>
      <Box component="ul" sx={{ m: 0, pl: 2.25, lineHeight: 1.5 }}>
        {lines.map((line) => (
          <li key={line}>{line}</li>
        ))}
      </Box>
    </Box>
  )
}

import Box from '@mui/material/Box'
import { useTranslation } from 'react-i18next'
import { colours } from '../../theme/theme'

/** A blanket as it lies open, in the drawing's own units, and what is left of it after each halving. */
const OPEN = { width: 40, height: 54 }
const FOLDS = [
  { key: 'open', width: OPEN.width, height: OPEN.height },
  { key: 'half', width: OPEN.width, height: OPEN.height / 2 },
  { key: 'wide', width: OPEN.width / 2, height: OPEN.height / 2 },
  { key: 'folded', width: OPEN.width / 2, height: OPEN.height / 4 },
] as const

/** How a blanket is folded: halved twice for a wide fold, once more for the usual one. */
export function FoldHelp() {
  const { t } = useTranslation()
  return (
    <Box
      component="details"
      sx={{
        fontSize: '0.85rem',
        color: 'text.secondary',
        '&:not([open])': { display: 'inline-block', ml: 1.5 },
      }}
    >
      <summary>{t('setUp.fold.how')}</summary>
      <Box sx={{ display: 'flex', gap: 2, alignItems: 'end', mt: 0.5 }}>
        {FOLDS.map(({ key, width, height }) => (
          <Box component="figure" key={key} sx={{ m: 0, textAlign: 'center' }}>
            <svg width={width + 2} height={height + 2} aria-hidden>
              <rect x="1" y="1" width={width} height={height} fill={colours.note} stroke={colours.muted} />
              {key !== 'folded' && (
                <path
                  d={
                    key === 'half'
                      ? `M${(width / 2 + 1).toString()} 1V${(height + 1).toString()}`
                      : `M1 ${(height / 2 + 1).toString()}H${(width + 1).toString()}`
                  }
                  stroke={colours.muted}
                  strokeDasharray="3 2"
                />
              )}
            </svg>
            <figcaption>{t(`setUp.fold.${key}`)}</figcaption>
          </Box>
        ))}
      </Box>
    </Box>
  )
}

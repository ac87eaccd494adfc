import Box from '@mui/material/Box'
import Typography from '@mui/material/Typography'
import { useTranslation } from 'react-i18next'
import type { Schemas, Side } from '../../api/client'
import { shortDate } from '../../common/dates'
import { NumberField } from '../../common/forms/NumberField'
import { colours, laneColour } from '../../theme/theme'

interface Props {
  range: Schemas['RangeOut']
  typed: Record<string, string>
  problems: Record<string, string>
  onType: (field: string, text: string) => void
}

/** One range on both sides: the field to type in, a scale with this client beside the population. */
export function RangeRow({ range, typed, problems, onType }: Props) {
  const { t } = useTranslation()
  const name = t(`measures.quantities.${range.quantity}`)
  const cell = (side: Side) => {
    const field = `${range.quantity}.${side}`
    const known = range[side]
    const latest = known.readings[0]
    const said = latest
      ? t('measures.latest', { value: latest.value, error: known.error, date: shortDate(latest.date) })
      : t('measures.typical', { value: range.typical, error: range.typical_error })
    const left = side === 'left'
    return (
      <Box
        sx={{
          display: 'flex',
          flexDirection: left ? 'row' : 'row-reverse',
          gap: 2,
          alignItems: 'flex-start',
        }}
      >
        <Box sx={{ flex: 1, pt: 0.75 }}>
          <Scale range={range} side={side} />
          <Typography
            sx={{ fontSize: '0.83rem', textAlign: left ? 'right' : 'left', color: 'text.secondary' }}
          >
            {said}
          </Typography>
        </Box>
        <NumberField
          name={`${name}, ${t(`side.${side}`)}`}
          unit="deg"
          text={typed[field] ?? ''}
          problem={problems[field]}
          onType={(text) => {
            onType(field, text)
          }}
          sx={{ width: problems[field] === undefined ? 92 : 168 }}
        />
      </Box>
    )
  }
  return (
    <Box
      sx={{
        display: 'grid',
        gridTemplateColumns: { xs: '1fr 1fr', md: '1fr 260px 1fr' },
        columnGap: { xs: 2, md: 0 },
        direction: 'ltr',
        py: 0.9,
        borderBottom: `1px dotted ${colours.line}`,
        alignItems: 'start',
      }}
    >
      {cell('left')}
      <Box
        sx={{
          textAlign: 'center',
          px: 2,
          gridColumn: { xs: '1 / -1', md: 'auto' },
          order: { xs: -1, md: 0 },
        }}
      >
        <Box sx={{ fontWeight: 600 }}>{name}</Box>
        <Typography variant="small">{t(`measures.how.${range.quantity}`)}</Typography>
      </Box>
      {cell('right')}
    </Box>
  )
}

const WIDTH = 100

/** The population's band, this client's reading with its error, on one scale growing outward. */
function Scale({ range, side }: { range: Schemas['RangeOut']; side: Side }) {
  const [low, high] = [Math.min(0, range.plausible_from), range.plausible_to]
  const at = (value: number) => ((value - low) / (high - low)) * WIDTH
  const known = range[side]
  const colour = side === 'left' ? laneColour('left') : laneColour('right')
  return (
    <Box
      component="svg"
      viewBox={`0 0 ${WIDTH.toString()} 12`}
      preserveAspectRatio="none"
      aria-hidden
      sx={{ width: '100%', height: 14, transform: side === 'left' ? 'scaleX(-1)' : 'none' }}
    >
      <rect x="0" y="5.5" width={WIDTH} height="1" fill={colours.line} />
      <rect
        x={at(range.typical - range.typical_error)}
        y="3"
        width={at(range.typical + range.typical_error) - at(range.typical - range.typical_error)}
        height="6"
        fill={colours.span}
      />
      {known.measured && (
        <>
          <rect
            x={at(known.value - known.error)}
            y="3.5"
            width={at(known.value + known.error) - at(known.value - known.error)}
            height="5"
            fill={colour}
            opacity="0.35"
          />
          <rect x={at(known.value) - 0.5} y="1" width="1" height="10" fill={colour} />
        </>
      )}
    </Box>
  )
}

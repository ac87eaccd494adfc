import ButtonBase from '@mui/material/ButtonBase'
import { styled } from '@mui/material/styles'
import Typography from '@mui/material/Typography'
import { useTranslation } from 'react-i18next'
import type { Lane } from '../../api/client'
import body from '../../figure/body-map.json'
import { colours, laneColour } from '../../theme/theme'
import { Touch } from '../../common/ui/Touch'
import type { Place } from './model'

/** The part of the figure where one works, in its own units; drawn so large that every spot can be touched. */
const SEEN = { x: 15, y: 50, width: 70, height: 124 }
const SCALE = 2

/** Where a sensation is touched, for the client's left; the right is mirrored. */
const SPOTS: readonly { place: Place; x: number; y: number }[] = [
  { place: 'back', x: 50, y: 66 },
  { place: 'hip', x: 33, y: 96 },
  { place: 'groin', x: 46, y: 117 },
  { place: 'knee', x: 38, y: 154 },
]

const Around = styled('div')(({ theme }) => ({
  display: 'grid',
  gap: theme.spacing(0.5),
  direction: 'ltr',
  '& .figure': { position: 'relative', width: SEEN.width * SCALE, height: SEEN.height * SCALE },
  '& svg': { position: 'absolute', inset: 0 },
  '& .figure button': {
    position: 'absolute',
    width: 44,
    height: 44,
    margin: -22,
    borderRadius: '50%',
    '&::after': {
      content: '""',
      width: 22,
      height: 22,
      borderRadius: '50%',
      border: '2.5px solid var(--lane)',
      backgroundColor: colours.ground,
    },
    '&[aria-pressed="true"]::after': { backgroundColor: 'var(--lane)' },
  },
}))

interface Props {
  side: Lane
  place: Place | null
  onPlace: (place: Place) => void
}

/** A figure to touch: where it was felt. What is well, or lies elsewhere, stands beneath. */
export function BodyPlaces({ side, place, onPlace }: Props) {
  const { t } = useTranslation()
  return (
    <Around role="group" aria-label={t('mat.place')} style={{ '--lane': laneColour(side) } as object}>
      <div className="figure">
        <svg
          viewBox={`${SEEN.x.toString()} ${SEEN.y.toString()} ${SEEN.width.toString()} ${SEEN.height.toString()}`}
          aria-hidden
          focusable="false"
        >
          <path d={body.path} fill={colours.span} />
        </svg>
        {SPOTS.map((spot) => {
          const x = side === 'right' ? body.width - spot.x : spot.x
          return (
            <ButtonBase
              key={spot.place}
              aria-pressed={place === spot.place}
              aria-label={t(`mat.places.${spot.place}`)}
              style={{ left: (x - SEEN.x) * SCALE, top: (spot.y - SEEN.y) * SCALE }}
              onClick={() => {
                onPlace(spot.place)
              }}
            />
          )
        })}
      </div>
      <Typography variant="note" aria-hidden style={{ minHeight: 22, textAlign: 'center' }}>
        {place !== null && t(`mat.places.${place}`)}
      </Typography>
      {(['wanted', 'other'] as const).map((each) => (
        <Touch
          key={each}
          side={side}
          on={place === each}
          onTouch={() => {
            onPlace(each)
          }}
        >
          {t(`mat.places.${each}`)}
        </Touch>
      ))}
    </Around>
  )
}

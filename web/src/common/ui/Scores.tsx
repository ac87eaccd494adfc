import { styled } from '@mui/material/styles'
import type { Lane } from '../../api/client'
import { Touch } from './Touch'

/** Discomfort and pain as they are counted, 0–10. */
export const SCORES = Array.from({ length: 11 }, (_, score) => score)

const Digits = styled('div')(({ theme }) => ({
  gap: theme.spacing(0.75),
  display: 'flex',
  flexWrap: 'wrap',
  '&.large': { display: 'grid', gridTemplateColumns: 'repeat(6, minmax(44px, 1fr))' },
  '&.large button': { minHeight: 'clamp(44px, 6.4vh, 62px)', fontSize: '1.35rem', fontWeight: 700 },
}))

interface Props {
  side: Lane
  /** What the scores are of: an element's id, or words. */
  of: { id: string } | { words: string }
  value: number | null
  /** What one score is called. */
  named: (score: number) => string
  large?: boolean
  onScore: (score: number) => void
}

/** A score of 0–10 by one touch. */
export function Scores({ side, of, value, named, large = false, onScore }: Props) {
  return (
    <Digits
      className={large ? 'large' : ''}
      role="group"
      {...('id' in of ? { 'aria-labelledby': of.id } : { 'aria-label': of.words })}
    >
      {SCORES.map((score) => (
        <Touch
          key={score}
          side={side}
          on={value === score}
          label={named(score)}
          onTouch={() => {
            onScore(score)
          }}
        >
          {score}
        </Touch>
      ))}
    </Digits>
  )
}

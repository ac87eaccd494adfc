import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import type { Lane } from '../../api/client'
import { dim } from '../../app/theme'

interface Props<T extends string> {
  label: string
  side: Lane
  options: readonly T[]
  word: (option: T) => string
  chosen: readonly T[]
  onToggle: (option: T) => void
}

/** One touch each. */
export function Chips<T extends string>({ label, side, options, word, chosen, onToggle }: Props<T>) {
  return (
    <Box
      role="group"
      aria-label={label}
      sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.5, alignItems: 'center' }}
    >
      <Box component="span" sx={{ fontSize: '0.92rem', color: dim.muted, width: 40 }}>
        {label}
      </Box>
      {options.map((option) => {
        const on = chosen.includes(option)
        return (
          <Button
            key={option}
            aria-pressed={on}
            onClick={() => {
              onToggle(option)
            }}
            sx={{
              minHeight: 44,
              minWidth: 0,
              px: 0.9,
              fontSize: '0.92rem',
              border: `1px solid ${dim.line}`,
              bgcolor: on ? `var(--${side})` : 'transparent',
              color: on ? dim.ground : dim.ink,
            }}
          >
            {word(option)}
          </Button>
        )
      })}
    </Box>
  )
}

import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import { type ReactNode, useId } from 'react'
import type { Lane } from '../../api/client'
import { Row } from '../../common/ui/layout'

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
  const heading = useId()
  return (
    <Row role="group" aria-labelledby={heading} gap={0.5} wrap>
      <Box component="span" id={heading} sx={{ fontSize: '0.92rem', color: 'text.secondary', width: 40 }}>
        {label}
      </Box>
      {options.map((option) => (
        <Touch
          key={option}
          side={side}
          on={chosen.includes(option)}
          onTouch={() => {
            onToggle(option)
          }}
        >
          {word(option)}
        </Touch>
      ))}
    </Row>
  )
}

interface TouchProps {
  side: Lane
  on: boolean
  /** What it is called where its own words do not say enough. */
  label?: string
  onTouch: () => void
  children: ReactNode
}

/** Something that is said by one touch, in its lane's colour once it was. */
export function Touch({ side, on, label, onTouch, children }: TouchProps) {
  return (
    <Button
      variant={on ? 'contained' : 'outlined'}
      color={on ? side : 'primary'}
      aria-pressed={on}
      aria-label={label}
      onClick={onTouch}
      sx={{ minHeight: 44, minWidth: 44, px: 0.9, py: 0, fontSize: '0.95rem' }}
    >
      {children}
    </Button>
  )
}

import Box from '@mui/material/Box'
import { useId } from 'react'
import type { Lane } from '../../api/client'
import { Row } from '../../common/ui/layout'
import { Touch } from '../../common/ui/Touch'

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

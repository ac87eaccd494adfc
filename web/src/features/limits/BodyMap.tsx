import { useTranslation } from 'react-i18next'
import type { Schemas } from '../../api/client'
import { colours } from '../../app/theme'
import type { Forms } from './forms'
import { formOfEntry } from './model'

/** A map of the body from behind, so that the client's left is on the left. */
export function BodyMap({ forms, entries }: { forms: Forms; entries: Schemas['EntryOut'][] }) {
  const { t } = useTranslation()
  const label = entries
    .map((entry) => {
      const side = entry.entry.side ?? null
      return side === null ? entry.label : `${t(`side.${side}`)}: ${entry.label}`
    })
    .join('; ')
  return (
    <svg viewBox="0 0 100 212" width="100%" role="img" aria-label={label || t('limits.seenFromBehind')}>
      <g fill="#D8D0BE">
        <ellipse cx="50" cy="14" rx="9" ry="11.5" />
        <rect x="46" y="23" width="8" height="9" rx="3" />
        <path d="M32 34q18-7 36 0q3 16-1 32q-2 10 2 24q1 12-2 18h-34q-3-6-2-18q4-14 2-24q-4-16-1-32z" />
        <path d="M31 35q-7 3-8 14l-3 26q-1 3 0 9l-1 18q0 6 3 6t3-6l3-20l5-27q2-10 0-20z" />
        <path d="M69 35q7 3 8 14l3 26q1 3 0 9l1 18q0 6-3 6t-3-6l-3-20l-5-27q-2-10 0-20z" />
        <path d="M33.5 108h15.5l-1 42q0 5-1 12l-1.5 34q0 7-4.5 7t-4-7l-1-34q-.5-6-.5-10z" />
        <path d="M66.5 108h-15.5l1 42q0 5 1 12l1.5 34q0 7 4.5 7t4-7l1-34q.5-6 .5-10z" />
      </g>
      <path d="M50 36v68" stroke="#BDB29B" strokeWidth="1" strokeDasharray="1.5 3" />
      {entries.map((entry) => {
        const form = formOfEntry(forms, entry.entry)
        if (form === undefined) return null
        const { x: left, y } = form.place
        const side = entry.entry.side ?? null
        const x = side === 'right' ? 100 - left : left
        const colour = side === null ? colours.ink : side === 'left' ? colours.left : colours.right
        return (
          <g key={entry.id} stroke={colour}>
            {side !== null && (
              <path
                d={`M${side === 'left' ? '0' : '100'} ${y.toString()}H${x.toString()}`}
                strokeWidth="0.8"
              />
            )}
            <circle cx={x} cy={y} r="5" fill="none" strokeWidth="1.8" />
            <circle cx={x} cy={y} r="1.8" fill={colour} stroke="none" />
          </g>
        )
      })}
    </svg>
  )
}

import { useTranslation } from 'react-i18next'
import type { Schemas } from '../../api/client'
import { colours } from '../../app/theme'
import body from '../../figure/body-map.json'
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
    <svg
      viewBox={`0 0 ${body.width.toString()} ${body.height.toString()}`}
      width="100%"
      role="img"
      aria-label={label || t('limits.seenFromBehind')}
    >
      <path d={body.path} fill="#D8D0BE" />
      <path d="M50 40v62" stroke="#BDB29B" strokeWidth="1" strokeDasharray="1.5 3" />
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

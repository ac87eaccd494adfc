import { useTranslation } from 'react-i18next'
import type { Schemas } from '../../api/client'
import body from '../../figure/body-map.json'
import type { Forms } from './forms'
import { cardId, formOfEntry } from './model'
import { colours, laneColour } from '../../theme/theme'

/** A map of the body from behind, so that the client's left is on the left; every pin leads to its record. */
export function BodyMap({ forms, entries }: { forms: Forms; entries: Schemas['EntryOut'][] }) {
  const { t } = useTranslation()
  return (
    <svg
      viewBox={`0 0 ${body.width.toString()} ${body.height.toString()}`}
      width="100%"
      role="group"
      aria-label={t('limits.map')}
    >
      <path d={body.path} fill={colours.span} />
      <path d="M50 40v62" stroke={colours.field} strokeWidth="1" strokeDasharray="1.5 3" />
      {entries.map((entry) => {
        const form = formOfEntry(forms, entry.entry)
        if (form === undefined) return null
        const { x: left, y } = form.place
        const side = entry.entry.side ?? null
        const x = side === 'right' ? 100 - left : left
        const colour = side === null ? colours.ink : laneColour(side)
        const name = side === null ? entry.label : `${t(`side.${side}`)}: ${entry.label}`
        return (
          <a
            key={entry.id}
            href={`#${cardId(entry.id)}`}
            aria-label={name}
            onClick={(event) => {
              event.preventDefault()
              document.getElementById(cardId(entry.id))?.focus()
            }}
          >
            <g stroke={colour}>
              {side !== null && (
                <path
                  d={`M${side === 'left' ? '0' : '100'} ${y.toString()}H${x.toString()}`}
                  strokeWidth="0.8"
                />
              )}
              <circle cx={x} cy={y} r="5" fill="none" strokeWidth="1.8" />
              <circle cx={x} cy={y} r="1.8" fill={colour} stroke="none" />
              {/* Large enough to be touched. */}
              <circle cx={x} cy={y} r="9" fill="transparent" stroke="none" />
            </g>
          </a>
        )
      })}
    </svg>
  )
}

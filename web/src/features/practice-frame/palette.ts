import { beginsWith, hasWords } from '../../common/search'

/** Something the palette leads to or does. */
export interface Entry {
  id: string
  group: 'clients' | 'screens' | 'actions' | 'ladders'
  label: string
  more?: string | undefined
  /** What it is found under besides. */
  found_by?: string
  run: () => void
}

/** Entries with every typed word in them: those whose name begins with what was typed come first in their group. */
export function matching(entries: readonly Entry[], text: string): Entry[] {
  const found = entries.filter(({ label, more, found_by }) =>
    hasWords([label, more, found_by].join(' '), text),
  )
  const begins = (entry: Entry) => beginsWith(entry.label, text)
  const groups = [...new Set(found.map((entry) => entry.group))]
  return groups.flatMap((group) => {
    const own = found.filter((entry) => entry.group === group)
    return [...own.filter(begins), ...own.filter((entry) => !begins(entry))]
  })
}

/** Something the palette leads to or does. */
export interface Entry {
  id: string
  group: 'clients' | 'screens' | 'actions' | 'ladders'
  label: string
  more?: string | undefined
  run: () => void
}

const plainly = (text: string) => text.normalize('NFKD').replace(/\p{M}/gu, '').toLowerCase()

/** Entries with every typed word in them: those whose name begins with what was typed come first in their group. */
export function matching(entries: readonly Entry[], text: string): Entry[] {
  const words = plainly(text).split(/\s+/).filter(Boolean)
  const found = entries.filter((entry) => {
    const said = plainly(`${entry.label} ${entry.more ?? ''}`)
    return words.every((word) => said.includes(word))
  })
  const begins = (entry: Entry) => plainly(entry.label).startsWith(plainly(text.trim()))
  const groups = [...new Set(found.map((entry) => entry.group))]
  return groups.flatMap((group) => {
    const own = found.filter((entry) => entry.group === group)
    return [...own.filter(begins), ...own.filter((entry) => !begins(entry))]
  })
}

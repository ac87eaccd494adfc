const folded = (text: string) =>
  text
    .normalize('NFKD')
    .replace(/\p{Mark}/gu, '')
    .toLowerCase()

/** Whether a line has every word of a text in it, whatever its case and marks. */
export function hasWords(line: string, text: string): boolean {
  const own = folded(line)
  return folded(text)
    .split(/\s+/)
    .every((word) => own.includes(word))
}

/** Whether a line begins with a text. */
export function beginsWith(line: string, text: string): boolean {
  return folded(line).startsWith(folded(text.trim()))
}

/** A ladder as it is looked for: by its name, what it is about and whatever else people call it. */
export interface Sought {
  name: string
  about: string
  found_by: string
}

/** Whether a ladder is meant by what was typed. */
function isMeant({ name, about, found_by }: Sought, text: string): boolean {
  return hasWords(`${name} ${about} ${found_by}`, text)
}

/** Ladders meant by what was typed, those whose own name says it first. */
export function meant<T extends Sought>(ladders: readonly T[], text: string): T[] {
  const found = ladders.filter((each) => isMeant(each, text))
  return [
    ...found.filter(({ name }) => hasWords(name, text)),
    ...found.filter(({ name }) => !hasWords(name, text)),
  ]
}

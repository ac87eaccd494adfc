/**
 * A language nobody speaks, in which nothing said by the catalogue has a plain letter left: what still has one stands
 * outside of it. The server knows the same one.
 */
export const PSEUDO = 'en-XA'

const PLAIN = 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz'
const MARKED = 'ÅƁÇÐÉƑĜĤÎĴĶĻṀÑÖÞǪŔŠŢÛṼŴẊÝŽåƀçðéƒĝĥîĵķļɱñöþǫŕšţûṽŵẋýž'

/** A text with every plain letter marked; placeholders stay. */
export function disguised(text: string): string {
  return text
    .split(/(\{\{[^}]*\}\}|<\/?\w+>)/)
    .map((part, place) =>
      place % 2 === 1 ? part : part.replace(/[A-Za-z]/g, (letter) => MARKED.charAt(PLAIN.indexOf(letter))),
    )
    .join('')
}

/** A catalogue with every text in it disguised. */
export function disguisedAll<T>(words: T): T {
  if (typeof words === 'string') return disguised(words) as T
  return Object.fromEntries(
    Object.entries(words as Record<string, unknown>).map(([key, each]) => [key, disguisedAll(each)]),
  ) as T
}

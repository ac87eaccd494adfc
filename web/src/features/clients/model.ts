import type { Lane, Schemas } from '../../api/client'

type Line = Schemas['ClientLine']

export function recordsOf(client: Line, lane: Lane): string[] {
  return lane === 'both' ? client.middle : client[lane]
}

/** Where one goes on with a client: to the ladders, or to the records while there are none. */
export function firstStop(client: Line): 'limits' | 'choose' {
  return client.left.length + client.middle.length + client.right.length === 0 ? 'limits' : 'choose'
}

/** The day of each client's next change of limits; changes come in the order of their dates. */
export function firstChanges(
  changes: readonly Pick<Schemas['PracticeChange'], 'client_id' | 'date'>[],
): ReadonlyMap<string, string> {
  const first = new Map<string, string>()
  for (const { client_id, date } of changes) if (!first.has(client_id)) first.set(client_id, date)
  return first
}

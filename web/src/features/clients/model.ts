import type { Lane, Schemas } from '../../api/client'

type Line = Schemas['ClientLine']

export function recordsOf(client: Line, lane: Lane): string[] {
  return lane === 'both' ? client.middle : client[lane]
}

/** Where one goes on with a client: to the ladders, or to the records while there are none. */
export function firstStop(client: Line): 'limits' | 'choose' {
  return client.left.length + client.middle.length + client.right.length === 0 ? 'limits' : 'choose'
}

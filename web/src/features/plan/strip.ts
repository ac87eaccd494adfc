import type { Lane, Schemas } from '../../api/client'

type Piece = Schemas['PieceOut']
type Level = Schemas['Level']

interface Block {
  pose: number
  lane: Lane
  x: number
  width: number
  level: number
  /** Whether it is the first of its pose: the one that carries its name. */
  first: boolean
  /** How much room a name has until another pose begins. */
  room: number
}

export interface Strip {
  blocks: Block[]
  /** Where the body is over time, as corners of a line. */
  line: { x: number; level: number }[]
  /** Ways to the floor and up again. */
  trips: { x: number; level: number; down: boolean }[]
  ticks: { x: number; minute: number }[]
  /** Where the time is over. */
  end: number
}

/** A tick every so many minutes, by how long it is. */
function every(minutes: number): number {
  return minutes <= 30 ? 5 : minutes <= 90 ? 10 : 30
}

/** The session drawn from `left` to `right`, px: `levels` from the top down. */
export function stripOf(
  pieces: readonly Piece[],
  levels: readonly Level[],
  minutes: number,
  left: number,
  right: number,
): Strip {
  const total = Math.max(pieces.at(-1)?.end_s ?? 0, minutes * 60)
  const x = (seconds: number) => left + ((right - left) * seconds) / total
  const row = (level: Level) => Math.max(0, levels.indexOf(level))
  const holds = pieces.filter(({ kind }) => kind === 'hold')
  const seen = new Set<number>()
  const blocks = holds.map((piece) => {
    const pose = piece.pose ?? 0
    const first = !seen.has(pose)
    seen.add(pose)
    const next = holds.find((each) => each.start_s >= piece.end_s && each.pose !== piece.pose)
    const until = next === undefined || next.level !== piece.level ? piece.end_s : next.start_s
    const last = holds.filter((each) => each.pose === piece.pose && each.level === piece.level).at(-1)
    return {
      pose,
      lane: piece.side ?? 'both',
      x: x(piece.start_s),
      width: Math.max(2, x(piece.end_s) - x(piece.start_s)),
      level: row(piece.level),
      first,
      room: x(Math.max(until, last?.end_s ?? until)) - x(piece.start_s),
    } satisfies Block
  })
  const start = pieces[0]?.came_from ?? 'standing'
  return {
    blocks,
    line: [
      { x: x(0), level: row(start) },
      ...pieces.map((piece) => ({ x: x(piece.end_s), level: row(piece.level) })),
    ],
    trips: pieces.flatMap((piece) => {
      const before = piece.came_from
      if (before === null) return []
      const [was, is] = [onFloor(before), onFloor(piece.level)]
      return was === is ? [] : [{ x: x(piece.end_s), level: row(piece.level), down: is }]
    }),
    ticks: Array.from({ length: Math.floor(total / 60 / every(minutes)) + 1 }, (_, step) => {
      const minute = step * every(minutes)
      return { x: x(minute * 60), minute }
    }),
    end: x(minutes * 60),
  }
}

function onFloor(level: Level): boolean {
  return level === 'floor' || level === 'lying'
}

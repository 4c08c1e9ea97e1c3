import {
  cross,
  distance,
  leastRadius,
  line,
  meetingsOf,
  nearestOn,
  reversed,
  simplePieces,
  stretch,
  tangentAt,
  type Piece,
  type Vec,
} from '../../../geometry'
import { fail, type Problem } from '../../../result'
import { besideBy, locator, piecesOf, type Size, type Sketch } from '../../../sketch'
import { formatLength, type UnitSettings } from '../../../units'
import { VERTEX_TOLERANCE } from '../../../tolerances'

/** How far beside pieces a parallel can lie before it runs backwards, in mm. @param side 1 to the left, else −1 */
export function roomBeside(pieces: readonly Piece[], side: number): number {
  return pieces.flatMap(simplePieces).reduce((room, piece) => {
    const turns = side * cross(tangentAt(piece, 0), tangentAt(piece, 1))
    const counter = piece.kind === 'arc' ? side * (piece.counterClockwise ? 1 : -1) : turns
    return counter > 0 ? Math.min(room, leastRadius(piece)) : room
  }, Infinity)
}

/** The problem of a curve that bends too tightly for what is to lie beside it. @param room in mm */
export function tooTight(room: number, units: UnitSettings): Problem {
  const most = `${formatLength(room, units)} ${units.length}`
  return fail(
    'offset.tight',
    `A curve bends to that side with a radius of ${most}: nothing beside it goes on smoothly there.`,
    `Take less than ${most}, or the other side.`,
  ).problem
}

/** What is wrong with the distance of what follows beside a curve, where a size tells it and it is too great. */
export function refuseDistance(
  sketch: Sketch,
  size: Size,
  value: number,
  units: UnitSettings,
): Problem | undefined {
  if (size.kind !== 'gap') return undefined
  const parallel = sketch.entities.find(
    (e) => e.kind === 'parallel' && (e.id === size.item || e.id === size.to),
  )
  if (parallel?.kind !== 'parallel') return undefined
  const locate = locator(sketch)
  const side = Math.sign(besideBy(parallel, locate))
  const room = roomBeside(piecesOf(parallel.along, locate), side)
  return value >= room ? tooTight(room, units) : undefined
}

/** Where two runs meet, at the place nearest to one; undefined where they do not. */
export function meetingNear(
  one: readonly Piece[],
  two: readonly Piece[],
  place: Vec,
): Vec | undefined {
  const found = one.flatMap((a) =>
    two.flatMap((b) => meetingsOf(a, b, VERTEX_TOLERANCE).map((m) => m.at)),
  )
  const [nearest] = found.sort((a, b) => distance(a, place) - distance(b, place))
  return nearest
}

/** A run from one place to another: cut off where it passes them, led on straight where it does not come so far. */
export function runBetween(run: readonly Piece[], from: Vec, to: Vec): readonly Piece[] {
  return flipped(startedAt(flipped(startedAt(run, from)), to))
}

function startedAt(run: readonly Piece[], from: Vec): readonly Piece[] {
  const [first] = run
  if (!first || distance(first.from, from) <= VERTEX_TOLERANCE) return run
  const on = run.findIndex((p) => nearestOn(p, from).distance <= VERTEX_TOLERANCE)
  const cut = run[on]
  if (!cut) return [line(from, first.from), ...run]
  const rest = run.slice(on + 1)
  return distance(from, cut.to) <= VERTEX_TOLERANCE ? rest : [stretch(cut, from, cut.to), ...rest]
}

/** The same run the other way. */
export const flipped = (run: readonly Piece[]): readonly Piece[] => [...run].reverse().map(reversed)

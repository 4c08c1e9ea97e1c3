import { meetingsOf, pointAt, stretch, type Piece, type Vec } from '../../geometry'
import { VERTEX_TOLERANCE } from '../../tolerances'

/** A piece in its parts between the places where it meets others. */
export function partsAt(piece: Piece, others: readonly Piece[]): Piece[] {
  const places = others
    .flatMap((other) => meetingsOf(piece, other, VERTEX_TOLERANCE))
    .filter((m) => m.t > 1e-9 && m.t < 1 - 1e-9)
    .sort((a, b) => a.t - b.t)
    .map((m) => m.at)
  const stops = [piece.from, ...places, piece.to]
  return stops.slice(1).map((to, i) => stretch(piece, stops[i] ?? piece.from, to))
}

/** Those of its parts whose middle lies where it is wanted. */
export const partsWhere = (
  piece: Piece,
  others: readonly Piece[],
  isKept: (at: Vec) => boolean,
): Piece[] => partsAt(piece, others).filter((p) => isKept(pointAt(p, 0.5)))

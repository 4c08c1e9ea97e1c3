import { DIRECTION_TOLERANCE } from '../tolerances'
import { radiusOf } from '../geometry'
import { liesOnAxis, type Corner, type Pole, type SectionEdge } from '../section'
import { formatAngle, formatLength, type UnitSettings } from '../units'

/** A face of the part in workshop words, with its key size. */
export function faceWords(edge: SectionEdge, units: UnitSettings): string {
  const { piece } = edge
  if (liesOnAxis(edge)) return 'axis'
  if (piece.kind === 'arc') return `round R${formatLength(radiusOf(piece), units)}`
  if (piece.kind === 'cubic') {
    const [a, b] = [piece.from.y, piece.to.y].sort((p, q) => p - q)
    return `curve ⌀${formatLength(2 * (a ?? 0), units)}–${formatLength(2 * (b ?? 0), units)}`
  }
  const dx = piece.to.x - piece.from.x
  const dy = piece.to.y - piece.from.y
  const flat = DIRECTION_TOLERANCE * Math.hypot(dx, dy)
  if (Math.abs(dy) <= flat) {
    // Material lies left of an edge: above one that runs to the right.
    return `${dx > 0 ? 'bore' : 'cylinder'} ⌀${formatLength(2 * piece.from.y, units)}`
  }
  if (Math.abs(dx) <= flat) return `face at ${formatLength(piece.from.x, units)}`
  const slope = Math.atan2(Math.abs(dy), Math.abs(dx))
  return `cone ${formatAngle(2 * slope, units)}`
}

/** A circular edge of the part in words: its diameter and its place along the axis. */
export function cornerWords({ at, turn }: Corner, units: UnitSettings): string {
  const kind = turn > 0 ? 'edge' : 'inside edge'
  return `${kind} ⌀${formatLength(2 * at.y, units)} at ${formatLength(at.x, units)}`
}

/** A point of the part on its axis in words: its place. */
export const poleWords = ({ at }: Pole, units: UnitSettings): string =>
  `point on the axis at ${formatLength(at.x, units)}`

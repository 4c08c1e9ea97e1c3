import { DIRECTION_TOLERANCE } from '../../tolerances'
import { edgesOf, extentOf, liesOnAxis, type Section } from '../../section'

/** The radius of the face that closes an end of a body square to the axis, in mm; 0 where there is none. */
export function endRadius(section: Section, end: 'left' | 'right'): number {
  const [from, to] = extentOf(section)
  const at = end === 'left' ? from : to
  const slack = DIRECTION_TOLERANCE * (to - from)
  const square = edgesOf(section).filter(
    (e) =>
      !liesOnAxis(e) &&
      Math.abs(e.piece.from.x - at) <= slack &&
      Math.abs(e.piece.to.x - at) <= slack,
  )
  return Math.max(0, ...square.map(({ piece }) => Math.max(piece.from.y, piece.to.y)))
}

import { addStep, type BroughtSolid } from '../edit'
import { controlOf, mapped, type Frame, type Piece, type Place, type Vec } from '../geometry'
import type { ImportFrame, Part } from '../part'
import { done, withBody } from './changes'
import { planesOf } from './planes'
import type { Dress } from './profile'
import { leastRadius, reachAlong, reachOut } from './reach'
import type { ForeignSolid, Line } from './types'

/** All pieces moved along the axis; what was one place stays one. */
export function movedBy(pieces: readonly Piece[], x: number): Piece[] {
  const places = new Map<Vec, Vec>()
  const moved = (p: Vec): Vec => {
    const known = places.get(p) ?? { x: p.x + x, y: p.y }
    places.set(p, known)
    return known
  }
  return pieces.map((piece) => {
    const ends = { from: moved(piece.from), to: moved(piece.to) }
    return { ...mapped(piece, (p) => ({ x: p.x + x, y: p.y }), false), ...ends }
  })
}

export interface Keeping {
  readonly file: string
  readonly number: number
  readonly frame: Frame
  readonly axis: Line
  readonly start: number
  /** Its half-section, where it is turned. */
  readonly pieces: readonly Piece[] | undefined
}

/** The part with a solid as it came, as a body of its own. */
export function withKept(part: Part, solid: ForeignSolid, keeping: Keeping, dress: Dress): Part {
  const grown = withBody(part, dress.name, dress.colour)
  const body = grown.bodies.at(-1)?.id ?? ''
  return done(grown, addStep({ kind: 'import', body, ...asItCame(solid, keeping) })) ?? grown
}

export function asItCame(
  solid: ForeignSolid,
  { file, number, frame, axis, start, pieces }: Keeping,
): BroughtSolid {
  const [low, high] = reachAlong(solid, axis)
  // A nought has no sign in a file.
  const numbers = (p: Place): ImportFrame['at'] => [p.x + 0, p.y + 0, p.z + 0]
  return {
    ...{ file, solid: number },
    frame: { at: numbers(frame.at), x: numbers(frame.x), z: numbers(frame.z) },
    ...{ from: low - start, to: high - start },
    ...{ radius: reachOut(solid, axis), inner: leastRadius(solid, axis) },
    outline: (pieces ?? []).map(numbersOf),
    planes: planesOf(solid),
  }
}

const numbersOf = (piece: Piece): readonly number[] => {
  const { from, to } = piece
  const ends = [from.x, from.y, to.x, to.y]
  if (piece.kind === 'line') return ends
  if (piece.kind === 'cubic') {
    const [, leaves, comes] = controlOf(piece)
    return [...ends, leaves.x, leaves.y, comes.x, comes.y]
  }
  return [...ends, piece.centre.x, piece.centre.y, piece.counterClockwise ? 1 : 0]
}

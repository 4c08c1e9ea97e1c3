import { type Piece, type Vec } from '@lathica/core/geometry'
import { locator, type Role, type Sketch, directionAt } from '@lathica/core/sketch'
import type { NewConstraint } from '@lathica/core/constraints'
import type { End, NewPiece } from '@lathica/core/edit'
import type { Snap } from '../../snapping'
import type { Board, PointerAt } from '../tool'

/** What the chain draws next: a line, an arc that goes on smoothly, one through a third place, a free curve. */
export const MODES = ['line', 'smooth', 'through', 'curve'] as const
type Mode = Exclude<(typeof MODES)[number], 'curve'>

/** A chain on its way. */
export interface Chain {
  readonly board: Board
  readonly role: Role
  readonly mode: Mode
  /** where the chain has been, the start first; all but a fresh start name their points */
  readonly ends: readonly End[]
  /** the end of an arc whose bulge is still to be given */
  readonly arcEnd?: End | undefined
  readonly at?: PointerAt | undefined
}

/** What one press, or one typed line, draws. */
export interface Stroke {
  readonly from: End
  readonly to: End
  readonly piece: Piece
  readonly directions: Snap['directions']
  readonly ties: readonly NewConstraint[]
  readonly sizes?: NewPiece['sizes']
}

/** The direction in which a chain goes on smoothly from an end, and the curve it goes on from. */
export function leaving(
  sketch: Sketch,
  from: End,
): { readonly direction: Vec; readonly after?: string } {
  const locate = locator(sketch)
  const before = sketch.entities.findLast(
    (e) => e.kind !== 'circle' && (e.to === from.point || e.from === from.point),
  )
  if (!before || before.kind === 'circle') return { direction: { x: 1, y: 0 } }
  const atEnd = before.to === from.point
  const along = directionAt(before, locate, atEnd ? 'end' : 'start') ?? { x: 1, y: 0 }
  return { direction: atEnd ? along : { x: -along.x, y: -along.y }, after: before.id }
}

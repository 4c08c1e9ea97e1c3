import { mapped, type Piece } from '@lathica/core/geometry'
import { locator, piecesOf, pointsOf, type Sketch } from '@lathica/core/sketch'
import { perform, type Command, type Motion } from '@lathica/core/edit'
import type { Board } from '../tool'

/** The pieces a command would add to the sketch or change in it; none when it would be refused. */
export function piecesAfter(board: Board, command: Command): Piece[] {
  const before = board.sketch()
  const result = perform(board.part(), command)
  const after = result.ok ? result.value.sketches.find((s) => s.id === before.id) : undefined
  if (!after) return []
  const known = new Set(before.entities.map((e) => e.id))
  const locate = locator(after)
  return after.entities.filter((e) => !known.has(e.id)).flatMap((e) => piecesOf(e, locate))
}

/** What is picked as it would look after a motion. */
export function piecesMoved(sketch: Sketch, ids: readonly string[], motion: Motion): Piece[] {
  const locate = locator(sketch)
  return sketch.entities
    .filter((e) => ids.includes(e.id))
    .flatMap((e) => piecesOf(e, locate))
    .map((piece) => {
      const moved = mapped(piece, motion.place, motion.mirrors)
      // Of a whole circle both ends are one place.
      return piece.from === piece.to ? { ...moved, to: moved.from } : moved
    })
}

/** Ids of the curves and loose points among picks. */
export function drawnIn(sketch: Sketch, picks: readonly string[]): string[] {
  const held = new Set(sketch.entities.flatMap(pointsOf))
  return picks.filter(
    (id) =>
      sketch.entities.some((e) => e.id === id) ||
      (!held.has(id) && sketch.points.some((p) => p.id === id)),
  )
}

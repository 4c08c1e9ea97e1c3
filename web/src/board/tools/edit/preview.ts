import { mapped, type Piece } from '@lathica/core/geometry'
import { locator, piecesOf, pointsOf, type Locate, type Sketch } from '@lathica/core/sketch'
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

/** What is picked as it would look after a motion, and what stands on picked points. */
export function piecesMoved(sketch: Sketch, ids: readonly string[], motion: Motion): Piece[] {
  const locate = locator(sketch)
  const moved: Locate = (id) => (ids.includes(id) ? motion.place(locate(id)) : locate(id))
  const onPoints = sketch.entities
    .filter((e) => !ids.includes(e.id) && pointsOf(e).some((p) => ids.includes(p)))
    .flatMap((e) => piecesOf(e, moved))
  const whole = sketch.entities
    .filter((e) => ids.includes(e.id))
    .flatMap((e) => piecesOf(e, locate))
    .map((piece) => {
      const moved = mapped(piece, motion.place, motion.mirrors)
      // Of a whole circle both ends are one place.
      return piece.from === piece.to ? { ...moved, to: moved.from } : moved
    })
  return [...whole, ...onPoints]
}

/** Ids of the curves and loose points among picks; where only points are picked, of all of them. */
export function drawnIn(sketch: Sketch, picks: readonly string[]): string[] {
  const onlyPoints = picks.filter((id) => sketch.points.some((p) => p.id === id))
  if (onlyPoints.length === picks.length) return onlyPoints
  const held = new Set(sketch.entities.flatMap(pointsOf))
  return picks.filter(
    (id) =>
      sketch.entities.some((e) => e.id === id) ||
      (!held.has(id) && sketch.points.some((p) => p.id === id)),
  )
}

import { controlOf, pointsAlong, radiusOf, type Piece, type Vec } from '@lathica/core/geometry'
import { toScreen, type Px, type View } from '../view'

/** Arcs of a greater radius than this, in pixels, lose digits where they are filled; chords do not. */
const FLAT = 2e4

/** How far the chords of such arcs lie off them, in pixels. */
const CHORD_PX = 0.15

/**
 * Adds a piece to a path as the canvas draws it: as a true line, arc or cubic.
 * @param side −1 for the image below the axis
 * @param continues whether the path stands where the piece begins
 */
export function addPiece(
  path: Path2D,
  piece: Piece,
  view: View,
  side: 1 | -1 = 1,
  continues = false,
): void {
  const place = (p: Vec): Px => toScreen(view, side === 1 ? p : { x: p.x, y: -p.y })
  const from = place(piece.from)
  if (!continues) path.moveTo(from.x, from.y)
  switch (piece.kind) {
    case 'line':
      return lineTo(path, place(piece.to))
    case 'cubic': {
      const [, b, c] = controlOf(piece).map(place)
      const to = place(piece.to)
      if (b && c) path.bezierCurveTo(b.x, b.y, c.x, c.y, to.x, to.y)
      return
    }
    case 'arc': {
      const radius = radiusOf(piece) * view.scale
      if (radius > FLAT) {
        for (const p of pointsAlong(piece, CHORD_PX / view.scale).slice(1)) lineTo(path, place(p))
        return
      }
      const [centre, to] = [place(piece.centre), place(piece.to)]
      // A lying part is seen with its radius upwards, against the pane's own second direction.
      const left = piece.counterClockwise === ((view.lie === 'lying') === (side === 1))
      const start = Math.atan2(from.y - centre.y, from.x - centre.x)
      const end = Math.atan2(to.y - centre.y, to.x - centre.x)
      const isWhole = piece.from.x === piece.to.x && piece.from.y === piece.to.y
      path.arc(
        centre.x,
        centre.y,
        radius,
        start,
        isWhole ? start + (left ? -1 : 1) * 2 * Math.PI : end,
        left,
      )
      return
    }
  }
}

const lineTo = (path: Path2D, { x, y }: Px): void => path.lineTo(x, y)

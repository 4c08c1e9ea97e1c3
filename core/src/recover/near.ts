import { controlOf, nearestOn, radiusOf, type Piece, type Vec } from '../geometry'

/** The piece of an outline that a place is nearest to, and how far it lies from it in mm. */
export interface Nearest {
  readonly piece: number
  readonly distance: number
}

/**
 * Tells which piece of an outline places are nearest to. Places that are asked for one after another mostly lie on the
 * same piece: that one is looked at first, and others only where the box round them comes nearer.
 */
export function nearestIn(outline: readonly Piece[]): (p: Vec) => Nearest {
  const boxes = outline.map(boxOf)
  let last = 0
  return (p) => {
    const first = outline[last]
    let best = first
      ? { piece: last, distance: nearestOn(first, p).distance }
      : { piece: 0, distance: Infinity }
    let square = best.distance ** 2
    for (let i = 0; i < boxes.length; i++) {
      const [box, piece] = [boxes[i], outline[i]]
      if (i === last || !box || !piece || squareToBox(box, p) >= square) continue
      const { distance } = nearestOn(piece, p)
      if (distance >= best.distance) continue
      best = { piece: i, distance }
      square = distance ** 2
    }
    last = best.piece
    return best
  }
}

type Box = readonly [left: number, low: number, right: number, high: number]

/** A box that holds a piece, perhaps with room to spare. */
function boxOf(piece: Piece): Box {
  const places =
    piece.kind === 'cubic'
      ? controlOf(piece)
      : piece.kind === 'line'
        ? [piece.from, piece.to]
        : [-1, 1].map((side) => {
            const r = side * radiusOf(piece)
            return { x: piece.centre.x + r, y: piece.centre.y + r }
          })
  const [xs, ys] = [places.map((p) => p.x), places.map((p) => p.y)]
  return [Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)]
}

function squareToBox([left, low, right, high]: Box, { x, y }: Vec): number {
  const across = x < left ? left - x : x > right ? x - right : 0
  const up = y < low ? low - y : y > high ? y - high : 0
  return across * across + up * up
}

import { distance, line, radiusOf, type Piece, type Vec } from '../geometry'

/** A corner that is bevelled by the same length on both sides, or rounded. */
export interface Finish {
  readonly kind: 'chamfer' | 'fillet'
  /** Where the corner is without it. */
  readonly at: Vec
  /** The leg on either side, or the radius, in mm. */
  readonly size: number
}

/** Bevels and roundings are no larger than this share of what the outline goes over. */
const SMALL = 0.1
/** Legs that differ by less than this share are one. */
const SAME = 1e-6
/** Sines of angles below this are those of a straight line. */
const STRAIGHT = 1e-6

/**
 * An outline with the corners that small bevels and roundings were made on, and what they were. Bevels are those of 45°
 * between a line along the axis and one square to it; roundings go smoothly from one line into another.
 */
export function sharpened(pieces: readonly Piece[]): {
  readonly pieces: readonly Piece[]
  readonly finishes: readonly Finish[]
} {
  const places = pieces.flatMap((p) => [p.from, p.to])
  const reach = (read: (p: Vec) => number): number =>
    Math.max(...places.map(read)) - Math.min(...places.map(read))
  const most =
    SMALL *
    Math.max(
      reach((p) => p.x),
      2 * Math.max(...places.map((p) => p.y)),
    )
  let here = [...pieces]
  const finishes: Finish[] = []
  for (const piece of pieces) {
    const found = finishOf(piece, here, most)
    if (!found) continue
    const { before, after, ...finish } = found
    const moved = (own: Piece, end: Vec): Piece =>
      own.from === end ? line(finish.at, own.to) : line(own.from, finish.at)
    here = here.flatMap((p) => {
      if (p === piece) return []
      if (p === before) return [moved(p, piece.from)]
      return p === after ? [moved(p, piece.to)] : [p]
    })
    finishes.push(finish)
  }
  return { pieces: here, finishes }
}

function finishOf(
  piece: Piece,
  all: readonly Piece[],
  most: number,
): (Finish & { readonly before: Piece; readonly after: Piece }) | undefined {
  const [before, after] = [piece.from, piece.to].map((end) => {
    const others = all.filter((p) => p !== piece && (p.from === end || p.to === end))
    return others.length === 1 ? others[0] : undefined
  })
  if (before?.kind !== 'line' || after?.kind !== 'line' || before === after) return undefined
  const at = meetingOf(before, after)
  if (!at || at.y <= 0) return undefined
  const [one, other] = [distance(at, piece.from), distance(at, piece.to)]
  // Either side goes on beyond it, away from the corner.
  const goesOn = (own: Piece, end: Vec): boolean => {
    const far = own.from === end ? own.to : own.from
    return (far.x - end.x) * (end.x - at.x) + (far.y - end.y) * (end.y - at.y) > 0
  }
  if (one > most || other > most || one === 0 || other === 0) return undefined
  if (!goesOn(before, piece.from) || !goesOn(after, piece.to)) return undefined
  if (piece.kind === 'line') {
    const isSquare = isLevel(before) !== isLevel(after) && isSheer(before) !== isSheer(after)
    return isSquare && Math.abs(one - other) <= SAME * one
      ? { kind: 'chamfer', at, size: one, before, after }
      : undefined
  }
  if (piece.kind !== 'arc') return undefined
  const radius = radiusOf(piece)
  const isSmooth = [[before, piece.from] as const, [after, piece.to] as const].every(
    ([own, end]) => {
      const [dx, dy] = [own.to.x - own.from.x, own.to.y - own.from.y]
      const [rx, ry] = [piece.centre.x - end.x, piece.centre.y - end.y]
      return Math.abs(dx * rx + dy * ry) <= 1e-5 * Math.hypot(dx, dy) * radius
    },
  )
  // The centre lies on the corner's own side: it goes the short way round.
  const chord = distance(piece.from, piece.to)
  const middle = { x: (piece.from.x + piece.to.x) / 2, y: (piece.from.y + piece.to.y) / 2 }
  const isNear = distance(at, middle) < distance(at, piece.centre) && chord < 2 * radius
  return isSmooth && isNear && Math.abs(one - other) <= SAME * one
    ? { kind: 'fillet', at, size: radius, before, after }
    : undefined
}

const isLevel = ({ from, to }: Piece): boolean =>
  Math.abs(to.y - from.y) <= STRAIGHT * distance(from, to)
const isSheer = ({ from, to }: Piece): boolean =>
  Math.abs(to.x - from.x) <= STRAIGHT * distance(from, to)

/** Where two lines meet when they are drawn on. */
function meetingOf(a: Piece, b: Piece): Vec | undefined {
  const [ux, uy] = [a.to.x - a.from.x, a.to.y - a.from.y]
  const [vx, vy] = [b.to.x - b.from.x, b.to.y - b.from.y]
  const turn = ux * vy - uy * vx
  if (Math.abs(turn) <= STRAIGHT * Math.hypot(ux, uy) * Math.hypot(vx, vy)) return undefined
  const t = ((b.from.x - a.from.x) * vy - (b.from.y - a.from.y) * vx) / turn
  return { x: a.from.x + t * ux, y: a.from.y + t * uy }
}

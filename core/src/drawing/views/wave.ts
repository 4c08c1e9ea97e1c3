import { arc, boundsOf, distance, vec, type ArcPiece, type Piece, type Vec } from '../../geometry'
import { VERTEX_TOLERANCE } from '../../tolerances'
import type { Item } from '../items'
import { partsWhere } from './parted'

/** A line as drawn by hand, where a view is broken (ISO 128-2:2020, 01.1.18), in mm of paper. */
export interface Wave {
  /** Where along the axis it begins and ends. */
  readonly x: number
  readonly low: number
  readonly high: number
  readonly pieces: readonly ArcPiece[]
}

/** About how long a bow of it is, how far it goes aside, in mm, and what tells one bow from the next. */
const BOW = 4.5
const ASIDE = 0.7
const UNEVEN = [1, 0.75, 1.2, 0.85]

/** A wave from one height to another. */
export function waveAt(x: number, low: number, high: number): Wave {
  const count = Math.max(2, Math.round((high - low) / BOW))
  const long = (high - low) / count
  const pieces = Array.from({ length: count }, (_, i): ArcPiece => {
    const [from, to] = [vec(x, low + i * long), vec(x, low + (i + 1) * long)]
    const side = i % 2 === 0 ? 1 : -1
    const rise = Math.min(ASIDE, long / 5) * (UNEVEN[i % UNEVEN.length] ?? 1)
    const radius = (long * long) / (8 * rise) + rise / 2
    // Upwards, a bow to the right turns counter-clockwise about a centre to its left.
    return arc(from, to, vec(x + side * (rise - radius), (from.y + to.y) / 2), side > 0)
  })
  return { x, low, high, pieces }
}

/** How far a wave goes aside at most, in mm. */
const REACH = ASIDE * 1.5

/** Where a wave is at a height. */
function placeOn({ x, low, high, pieces }: Wave, y: number): number {
  if (y <= low || y >= high) return x
  const i = Math.min(pieces.length - 1, Math.floor(((y - low) / (high - low)) * pieces.length))
  const bow = pieces[i]
  if (!bow) return x
  const { centre, from, counterClockwise } = bow
  const radius = Math.hypot(from.x - centre.x, from.y - centre.y)
  const off = Math.sqrt(Math.max(0, radius * radius - (y - centre.y) ** 2))
  return centre.x + (counterClockwise ? off : -off)
}

/** Whether a place is to the right of a wave. */
export const isRightOf = (wave: Wave, { x, y }: Vec): boolean => x > placeOn(wave, y)

/** What of pieces lies where it is wanted, on either side of waves. */
export const piecesWhere = (
  pieces: readonly Piece[],
  waves: readonly Wave[],
  isKept: (at: Vec) => boolean,
): Piece[] =>
  pieces.flatMap((piece) => {
    const { min, max } = boundsOf(piece)
    const near = waves.filter((w) => min.x <= w.x + REACH && max.x >= w.x - REACH)
    return partsWhere(
      piece,
      near.flatMap((w) => w.pieces),
      isKept,
    ).filter((p) => p.kind !== 'line' || distance(p.from, p.to) > VERTEX_TOLERANCE)
  })

/** What of items lies where it is wanted; filled outlines and words as a whole, by where they begin. */
export function itemsWhere(
  items: readonly Item[],
  waves: readonly Wave[],
  isKept: (at: Vec) => boolean,
): Item[] {
  return items.flatMap((item): Item[] => {
    if (item.kind !== 'stroke') {
      const at = item.kind === 'words' ? item.at : item.loops[0]?.[0]?.from
      return at && isKept(at) ? [item] : []
    }
    const runs = item.runs.flatMap((run) => joined(piecesWhere(run, waves, isKept)))
    return runs.length === 0 ? [] : [{ ...item, runs }]
  })
}

/** Pieces in runs of those that follow each other. */
function joined(pieces: readonly Piece[]): Piece[][] {
  const runs: Piece[][] = []
  for (const piece of pieces) {
    const last = runs.at(-1)
    const end = last?.at(-1)?.to
    const isNext =
      end && Math.hypot(end.x - piece.from.x, end.y - piece.from.y) < 10 * VERTEX_TOLERANCE
    if (last && isNext) last.push(piece)
    else runs.push([piece])
  }
  return runs
}

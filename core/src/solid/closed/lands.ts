import { boundsOf, radiusOf, type ArcPiece, type LinePiece } from '../../geometry'
import { edgesOf, liesOnAxis, type Section } from '../../section'
import { APART, NEAR, SAME } from './taken'

/** One edge of a profile between two places along the axis, as a radius over it. */
export interface Land {
  readonly from: number
  readonly to: number
  readonly radiusAt: (u: number) => number
  /** Its surface for 1 mm along the axis, over its radius: √(1 + r′²). */
  readonly slantAt: (u: number) => number
  /** Where it has a radius. */
  readonly whereIs: (radius: number) => readonly number[]
  readonly least: number
  readonly most: number
}

/** A plane face square to the axis. */
export interface Step {
  readonly at: number
  readonly low: number
  readonly high: number
}

export interface Profile {
  readonly lands: readonly Land[]
  readonly steps: readonly Step[]
}

/**
 * What a tool meets farther out than `floor` between two places along the axis: the outside of a full turn, with nothing
 * but material under it.
 * @returns undefined where it is anything else, or has the floor’s own radius
 */
export function outsideOver(
  base: Section,
  floor: number,
  from: number,
  to: number,
): Profile | undefined {
  const lands: Land[] = []
  const steps: Step[] = []
  for (const edge of edgesOf(base)) {
    const { piece } = edge
    const { min, max } = boundsOf(piece)
    if (max.x < from - APART || min.x > to + APART || liesOnAxis(edge)) continue
    if (max.y < floor - APART) continue
    if (max.y < floor + APART || piece.kind === 'cubic') return undefined
    if (max.x - min.x < SAME) {
      if (min.x < from - SAME || min.x > to + SAME) return undefined
      steps.push({ at: piece.from.x, low: min.y, high: max.y })
      continue
    }
    const ends = [piece.from.x, piece.to.x]
    // Material lies to the left of the way an edge runs: the outside runs to the left.
    const runsBack = piece.from.x > piece.to.x
    const isSteady =
      max.x - min.x > NEAR &&
      Math.abs(Math.min(...ends) - min.x) + Math.abs(Math.max(...ends) - max.x) < SAME
    if (!runsBack || !isSteady) return undefined
    lands.push(landOf(piece))
  }
  lands.sort((a, b) => a.from - b.from)
  const overlap = lands.some((l, i) => l.from < (lands[i - 1]?.to ?? -Infinity) - SAME)
  return overlap ? undefined : { lands, steps }
}

/** An edge that runs steadily along the axis, as a radius over it. */
export function landOf(piece: LinePiece | ArcPiece): Land {
  const { min, max } = boundsOf(piece)
  const range = { from: min.x, to: max.x, least: min.y, most: max.y }
  if (piece.kind === 'line') {
    const slope = (piece.to.y - piece.from.y) / (piece.to.x - piece.from.x)
    const slant = Math.hypot(1, slope)
    return {
      ...range,
      radiusAt: (u) => piece.from.y + slope * (u - piece.from.x),
      slantAt: () => slant,
      whereIs: (radius) => (slope === 0 ? [] : [piece.from.x + (radius - piece.from.y) / slope]),
    }
  }
  const { centre } = piece
  const radius = radiusOf(piece)
  // What runs to the left with its centre to the left of it bows outwards.
  const side = piece.counterClockwise ? 1 : -1
  const rise = (off: number): number => Math.sqrt(Math.max(0, radius * radius - off * off))
  return {
    ...range,
    radiusAt: (u) => centre.y + side * rise(u - centre.x),
    slantAt: (u) => radius / rise(u - centre.x),
    whereIs: (r) => {
      const off = r - centre.y
      if (off * side < 0 || Math.abs(off) > radius) return []
      const along = rise(off)
      return [centre.x - along, centre.x + along]
    },
  }
}

/** Where there is a bore of one radius all along a stretch: that radius; 0 for none, undefined for anything else. */
export function boreUnder(base: Section, from: number, to: number): number | undefined {
  let radius = 0
  for (const edge of edgesOf(base)) {
    const { piece } = edge
    const { min, max } = boundsOf(piece)
    if (max.x < from - APART || min.x > to + APART || liesOnAxis(edge)) continue
    // The outside runs to the left.
    if (piece.from.x > piece.to.x + SAME) continue
    const isWhole = piece.kind === 'line' && min.x < from - APART && max.x > to + APART
    if (!isWhole || max.y - min.y > SAME || radius > 0) return undefined
    radius = min.y
  }
  return radius
}

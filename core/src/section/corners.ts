import {
  add,
  arc,
  beside,
  boundsOf,
  cross,
  distance,
  dot,
  lengthOf,
  line,
  meetingsOf,
  pointAt,
  radiusOf,
  rotate,
  scale,
  stretch,
  subtract,
  sweepOf,
  tangentAt,
  unit,
  type Piece,
  type Vec,
} from '../geometry'
import { VERTEX_TOLERANCE } from '../tolerances'
import { edgeKey, loopsOf, madeFrom, type Loop, type Section, type SectionEdge } from './types'

/** A corner of a section, which is a circular edge of the part. */
export interface Corner {
  /** The keys of the two edges that meet, in order of their text, and a count where they meet often. */
  readonly key: string
  readonly at: Vec
  /** The edge that arrives and the one that leaves, material on their left. */
  readonly arriving: SectionEdge
  readonly leaving: SectionEdge
  /** How far the outline turns there in radians: left, at an outside corner, is positive. */
  readonly turn: number
}

/** Bends of less than this, in radians, are smooth. */
const SMOOTH = 1e-5

const memo = new WeakMap<Section, readonly Corner[]>()

/** All corners of a section that are circular edges: those on the axis are poles, not circles. */
export function cornersOf(section: Section): readonly Corner[] {
  const known = memo.get(section)
  if (known) return known
  const found: Corner[] = []
  for (const loop of loopsOf(section)) {
    loop.forEach((arriving, i) => {
      const leaving = loop[(i + 1) % loop.length]
      const at = arriving.piece.to
      if (!leaving || at.y <= VERTEX_TOLERANCE) return
      const turn = turnBetween(arriving.piece, leaving.piece)
      if (Math.abs(turn) < SMOOTH) return
      const key = [edgeKey(arriving.name), edgeKey(leaving.name)].sort().join('|')
      found.push({ key, at, arriving, leaving, turn })
    })
  }
  const corners = counted(found)
  memo.set(section, corners)
  return corners
}

/** Corners of one pair of edges are told apart by their order along the axis, then outwards. */
function counted(corners: readonly Corner[]): Corner[] {
  const byKey = new Map<string, Corner[]>()
  for (const c of corners) byKey.set(c.key, [...(byKey.get(c.key) ?? []), c])
  return corners.map((c) => {
    const same = byKey.get(c.key) ?? []
    if (same.length < 2) return c
    const before = same.filter((o) => o.at.x < c.at.x || (o.at.x === c.at.x && o.at.y < c.at.y))
    return before.length === 0 ? c : { ...c, key: `${c.key}#${before.length + 1}` }
  })
}

export function turnBetween(a: Piece, b: Piece): number {
  const [u, v] = [tangentAt(a, 1), tangentAt(b, 0)]
  return Math.atan2(cross(u, v), dot(u, v))
}

/** A corner changed: the section, or that it does not fit, with the greatest value that does. */
export type Finished =
  | { readonly ok: true; readonly section: Section }
  | { readonly ok: false; readonly largest: number }

/** How a chamfer is told: two legs in mm, or one and the angle in radians it makes with its edge. */
export type ChamferSize =
  | { readonly kind: 'legs'; readonly along: number; readonly across: number }
  | { readonly kind: 'angle'; readonly along: number; readonly angle: number }

/** What replaces a corner: where the two edges are left, and the piece between. */
interface Cut {
  readonly from: Vec
  readonly to: Vec
  readonly piece: Piece
}

/** Rounds a corner between any two curves, inside or outside, by a radius in mm. */
export function roundCorner(
  section: Section,
  corner: Corner,
  radius: number,
  step: string,
): Finished {
  return finish(section, corner, 'round', step, radius, (r) => roundedBy(corner, r))
}

/**
 * Bevels a corner. The leg along is measured on the edge that runs more along the axis, the leg
 * across on the other; on an arc as a chord from the corner.
 */
export function bevelCorner(
  section: Section,
  corner: Corner,
  size: ChamferSize,
  step: string,
): Finished {
  return finish(section, corner, 'bevel', step, size.along, (along) => {
    const across = size.kind === 'legs' ? (size.across * along) / size.along : 0
    return bevelledBy(
      corner,
      size.kind === 'legs' ? { ...size, along, across } : { ...size, along },
    )
  })
}

function finish(
  section: Section,
  corner: Corner,
  what: string,
  step: string,
  wanted: number,
  cutBy: (value: number) => Cut | undefined,
): Finished {
  const name = madeFrom(step, what, corner.arriving.name, corner.leaving.name)
  const attempt = (value: number): Section | undefined => {
    const cut = cutBy(value)
    return cut && isFree(section, corner, cut) ? replaced(section, corner, cut, name) : undefined
  }
  const done = attempt(wanted)
  if (done) return { ok: true, section: done }
  let [low, high] = [0, wanted]
  for (let i = 0; i < 40; i++) {
    const middle = (low + high) / 2
    if (attempt(middle)) low = middle
    else high = middle
  }
  return { ok: false, largest: low }
}

/** The centre stands at the radius from both edges, where their parallels meet next to the corner. */
function roundedBy({ arriving, leaving, turn }: Corner, radius: number): Cut | undefined {
  const side = Math.sign(turn)
  const [p, q] = [arriving.piece, leaving.piece]
  for (const piece of [p, q]) {
    const hollow = piece.kind === 'arc' && piece.counterClockwise === side > 0
    if (hollow && radius >= radiusOf(piece) - VERTEX_TOLERANCE) return undefined
  }
  const meetings = meetingsOf(beside(p, side * radius), beside(q, side * radius), VERTEX_TOLERANCE)
  const centre = meetings.sort((a, b) => b.t - a.t)[0]
  if (!centre) return undefined
  const from = pointAt(p, centre.t)
  const to = pointAt(q, centre.u)
  if (distance(from, to) <= VERTEX_TOLERANCE) return undefined
  return { from, to, piece: arc(from, to, centre.at, side > 0) }
}

function bevelledBy({ at, arriving, leaving }: Corner, size: ChamferSize): Cut | undefined {
  const isAlong =
    Math.abs(tangentAt(arriving.piece, 1).x) >= Math.abs(tangentAt(leaving.piece, 0).x)
  const [along, across] = isAlong
    ? [arriving.piece, leaving.piece]
    : [leaving.piece, arriving.piece]
  const first = fromEnd(along, at, size.along)
  if (!first) return undefined
  const second =
    size.kind === 'legs'
      ? fromEnd(across, at, size.across)
      : whereAngleMeets(along, across, at, first, size.angle)
  if (!second || distance(first, second) <= VERTEX_TOLERANCE) return undefined
  const [from, to] = isAlong ? [first, second] : [second, first]
  return { from, to, piece: line(from, to) }
}

/** The place on a piece at a distance from the end that is the corner; undefined beyond its other end. */
function fromEnd(piece: Piece, corner: Vec, length: number): Vec | undefined {
  const atEnd = distance(piece.to, corner) < distance(piece.from, corner)
  const t =
    piece.kind === 'line'
      ? length / lengthOf(piece)
      : (2 * Math.asin(Math.min(1, length / 2 / radiusOf(piece)))) / Math.abs(sweepOf(piece))
  if (t > 1 + VERTEX_TOLERANCE || length <= 0) return undefined
  const clipped = Math.min(1, t)
  return pointAt(piece, atEnd ? 1 - clipped : clipped)
}

function whereAngleMeets(
  along: Piece,
  across: Piece,
  corner: Vec,
  from: Vec,
  angle: number,
): Vec | undefined {
  const inward = unit(subtract(corner, from))
  const other =
    distance(across.to, corner) < distance(across.from, corner) ? across.from : across.to
  const side = Math.sign(cross(inward, subtract(other, corner)))
  const reach = 4 * (lengthOf(along) + lengthOf(across))
  const ray = line(from, add(from, scale(rotate(inward, side * angle), reach)))
  return meetingsOf(ray, across, VERTEX_TOLERANCE).sort((a, b) => a.t - b.t)[0]?.at
}

/** Whether the new piece runs clear of every edge but the two it joins. */
function isFree(
  section: Section,
  { arriving, leaving }: Corner,
  { piece, from, to }: Cut,
): boolean {
  const box = boundsOf(piece)
  const near = (p: Vec): boolean =>
    distance(p, from) <= 4 * VERTEX_TOLERANCE || distance(p, to) <= 4 * VERTEX_TOLERANCE
  for (const loop of loopsOf(section)) {
    for (const edge of loop) {
      if (edge === arriving || edge === leaving) continue
      const other = boundsOf(edge.piece)
      if (other.min.x > box.max.x + VERTEX_TOLERANCE) continue
      if (other.max.x < box.min.x - VERTEX_TOLERANCE) continue
      if (other.min.y > box.max.y + VERTEX_TOLERANCE) continue
      if (other.max.y < box.min.y - VERTEX_TOLERANCE) continue
      if (meetingsOf(piece, edge.piece, VERTEX_TOLERANCE).some((m) => !near(m.at))) return false
    }
  }
  return true
}

function replaced(
  section: Section,
  { arriving, leaving }: Corner,
  { from, to, piece }: Cut,
  name: SectionEdge['name'],
): Section {
  const change = (loop: Loop): Loop => {
    const i = loop.indexOf(arriving)
    if (i < 0 || loop[(i + 1) % loop.length] !== leaving) return loop
    return loop.flatMap((edge): SectionEdge[] => {
      let { piece: kept } = edge
      if (edge === leaving) kept = stretch(kept, to, kept.to)
      if (edge === arriving) kept = stretch(kept, kept.from, from)
      const trimmed = kept === edge.piece ? edge : { ...edge, piece: kept }
      const there = distance(kept.from, kept.to) > VERTEX_TOLERANCE ? [trimmed] : []
      return edge === arriving ? [...there, { piece, name }] : there
    })
  }
  return {
    regions: section.regions.map((r) => {
      const outer = change(r.outer)
      const holes = r.holes.map(change)
      const same = outer === r.outer && holes.every((h, i) => h === r.holes[i])
      return same ? r : { outer, holes }
    }),
  }
}

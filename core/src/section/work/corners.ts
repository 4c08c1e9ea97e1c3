import { cornerName, edgesOfCorner, numbered } from '../../names'
import {
  add,
  arc,
  beside,
  boundsOf,
  cross,
  curvatureAt,
  distance,
  dot,
  leftNormal,
  lengthOf,
  line,
  meetingsOf,
  nearestOn,
  parallelsTo,
  parameterAtChord,
  pointAt,
  radiusOf,
  reversed,
  rotate,
  scale,
  speedAt,
  subtract,
  tangentAt,
  unit,
  type Meeting,
  type Piece,
  type Vec,
} from '../../geometry'
import { VERTEX_TOLERANCE } from '../../tolerances'
import { ringsOf, type Cut, type Link } from '../engine/rings'
import { edgeKey, loopsOf, madeFrom, type Section, type SectionEdge } from '../types'
import { once } from '../../once'

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

/** All corners of a section that are circular edges: those on the axis are poles, not circles. */
export const cornersOf = once((section: Section): readonly Corner[] =>
  counted(cornersBetween(section, () => true)),
)

/** The corners of these keys, those that are there, in the order of the keys. */
export function cornersCalled(section: Section, keys: readonly string[]): readonly Corner[] {
  const edges = new Set(keys.flatMap(edgesOfCorner))
  const found = counted(cornersBetween(section, (name) => edges.has(edgeKey(name))))
  return keys.flatMap((key) => found.find((c) => c.key === key) ?? [])
}

function cornersBetween(
  section: Section,
  wanted: (name: SectionEdge['name']) => boolean,
): Corner[] {
  const found: Corner[] = []
  for (const loop of loopsOf(section)) {
    for (const [i, arriving] of loop.entries()) {
      const leaving = loop[(i + 1) % loop.length]
      const at = arriving.piece.to
      if (!leaving || at.y <= VERTEX_TOLERANCE) continue
      if (!wanted(arriving.name) || !wanted(leaving.name)) continue
      const turn = turnBetween(arriving.piece, leaving.piece)
      if (Math.abs(turn) < SMOOTH) continue
      const key = cornerName(edgeKey(arriving.name), edgeKey(leaving.name))
      found.push({ key, at, arriving, leaving, turn })
    }
  }
  return found
}

/** Corners of one pair of edges are told apart by their order along the axis, then outwards. */
function counted(corners: readonly Corner[]): Corner[] {
  const byKey = new Map<string, Corner[]>()
  for (const c of corners) {
    const same = byKey.get(c.key)
    if (same) same.push(c)
    else byKey.set(c.key, [c])
  }
  if (byKey.size === corners.length) return [...corners]
  return corners.map((c) => {
    const same = byKey.get(c.key) ?? []
    if (same.length < 2) return c
    const before = same.filter((o) => o.at.x < c.at.x || (o.at.x === c.at.x && o.at.y < c.at.y))
    return { ...c, key: numbered(c.key, before.length + 1) }
  })
}

export function turnBetween(a: Piece, b: Piece): number {
  const [u, v] = [tangentAt(a, 1), tangentAt(b, 0)]
  return Math.atan2(cross(u, v), dot(u, v))
}

/** Corners changed: the section, or the corner that a value does not fit, with the greatest that does. */
export type Finished =
  | { readonly ok: true; readonly section: Section }
  | { readonly ok: false; readonly corner: Corner; readonly largest: number }

/** How a chamfer is told: two legs in mm, or one and the angle in radians it makes with its edge. */
export type ChamferSize =
  | { readonly kind: 'legs'; readonly along: number; readonly across: number }
  | { readonly kind: 'angle'; readonly along: number; readonly angle: number }

/** What is done to some corners: rounded by a radius in mm, or bevelled. */
export type CornerWork =
  | { readonly kind: 'round'; readonly radius: number }
  | ({ readonly kind: 'bevel' } & { readonly size: ChamferSize })

/**
 * Rounds or bevels corners between any two curves, inside or outside, one after another. Of a bevel
 * the leg along is measured on the edge that runs more along the axis, the leg across on the other;
 * on an arc as a chord from the corner.
 * @param sets corners of this section with what is done to them
 */
export function finishCorners(
  section: Section,
  sets: readonly { readonly corners: readonly Corner[]; readonly work: CornerWork }[],
  step: string,
): Finished {
  const rings = ringsOf(
    section,
    sets.reduce((sum, s) => sum + s.corners.length, 0),
  )
  for (const { corners, work } of sets) {
    for (const corner of corners) {
      const arriving = rings.linkOf(corner.arriving)
      const leaving = arriving?.next
      // An edge that a fillet before used up took the corner with it.
      if (!arriving || !leaving || arriving.gone || leaving.edge.name !== corner.leaving.name)
        continue
      const here = { ...corner, arriving: arriving.edge, leaving: leaving.edge }
      const cutOf = (value: number): Cut | undefined => {
        const cut = cutBy(here, work, value)
        return cut && isFree(rings.near(cut.piece), arriving, leaving, cut) ? cut : undefined
      }
      const wanted = work.kind === 'round' ? work.radius : work.size.along
      const cut = cutOf(wanted)
      if (!cut) return { ok: false, corner, largest: largestBelow(wanted, (v) => !!cutOf(v)) }
      const name = madeFrom(step, work.kind, corner.arriving.name, corner.leaving.name)
      rings.insert(arriving, leaving, cut, name)
    }
  }
  return { ok: true, section: rings.section() }
}

function largestBelow(wanted: number, fits: (value: number) => boolean): number {
  let [low, high] = [0, wanted]
  for (let i = 0; i < 40; i++) {
    const middle = (low + high) / 2
    if (fits(middle)) low = middle
    else high = middle
  }
  return low
}

function cutBy(corner: Corner, work: CornerWork, value: number): Cut | undefined {
  if (work.kind === 'round') return roundedBy(corner, value)
  const { size } = work
  const share = value / size.along
  return bevelledBy(
    corner,
    size.kind === 'legs'
      ? { ...size, along: value, across: size.across * share }
      : { ...size, along: value },
  )
}

/** The centre stands at the radius from both edges, where their parallels meet next to the corner. */
function roundedBy({ arriving, leaving, turn }: Corner, radius: number): Cut | undefined {
  const side = Math.sign(turn)
  const [p, q] = [arriving.piece, leaving.piece]
  for (const piece of [p, q]) {
    const hollow = piece.kind === 'arc' && piece.counterClockwise === side > 0
    if (hollow && radius >= radiusOf(piece) - VERTEX_TOLERANCE) return undefined
  }
  const centre = centreBeside(p, q, side * radius)
  if (!centre) return undefined
  const from = pointAt(p, centre.t)
  const to = pointAt(q, centre.u)
  if (distance(from, to) <= VERTEX_TOLERANCE) return undefined
  const piece = arc(from, to, centre.at, side > 0)
  // A curve may bend across the round further on.
  const crosses = [p, q].some(
    (edge) =>
      edge.kind === 'cubic' &&
      meetingsOf(piece, edge, VERTEX_TOLERANCE).some((m) => m.t > 1e-3 && m.t < 1 - 1e-3),
  )
  return crosses ? undefined : { from, to, piece }
}

/** Where what lies beside two pieces meets, the last along the first, and across from where on both. */
function centreBeside(p: Piece, q: Piece, by: number): Meeting | undefined {
  if (p.kind !== 'cubic' && q.kind !== 'cubic') {
    const meetings = meetingsOf(beside(p, by), beside(q, by), VERTEX_TOLERANCE)
    return meetings.sort((a, b) => b.t - a.t)[0]
  }
  const free = (piece: Piece): Piece[] =>
    parallelsTo(piece, by).flatMap((f) => (f.tight ? [] : [f.piece]))
  const others = free(q)
  const found = free(p).flatMap((one) =>
    others.flatMap((two) => meetingsOf(one, two, VERTEX_TOLERANCE)),
  )
  const feet = found.flatMap(({ at }) => {
    const centre = centreOfTouch(p, q, by, at)
    return centre ? [centre] : []
  })
  return feet.sort((a, b) => b.t - a.t)[0]
}

/** What lies beside a cubic is near its true place; Newton's steps from there end on it. */
function centreOfTouch(p: Piece, q: Piece, by: number, near: Vec): Meeting | undefined {
  let [t, u] = [nearestOn(p, near).t, nearestOn(q, near).t]
  const placeBeside = (piece: Piece, s: number): Vec =>
    add(pointAt(piece, s), scale(leftNormal(piece, s), by))
  for (let i = 0; i < 8; i++) {
    const off = subtract(placeBeside(q, u), placeBeside(p, t))
    const [v, w] = [tangentAt(p, t), tangentAt(q, u)]
    const turn = cross(v, w)
    if (Math.abs(turn) < 1e-9) break
    const rate = (piece: Piece, s: number): number =>
      speedAt(piece, s) * (1 - by * curvatureAt(piece, s))
    const [dt, du] = [cross(off, w) / turn / rate(p, t), cross(off, v) / turn / rate(q, u)]
    if (!Number.isFinite(dt) || !Number.isFinite(du)) break
    t += dt
    u += du
    if (Math.abs(dt) + Math.abs(du) < 1e-15) break
  }
  if (!(t >= 0 && t <= 1 && u >= 0 && u <= 1)) return undefined
  const [a, b] = [placeBeside(p, t), placeBeside(q, u)]
  return distance(a, b) <= VERTEX_TOLERANCE ? { at: a, t, u } : undefined
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
  if (length <= 0) return undefined
  const outward = atEnd ? reversed(piece) : piece
  const t = parameterAtChord(outward, length)
  return t === undefined ? undefined : pointAt(outward, t)
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
  around: Iterable<Link>,
  arriving: Link,
  leaving: Link,
  { piece, from, to }: Cut,
): boolean {
  const box = boundsOf(piece)
  const middle = pointAt(piece, 0.5)
  const near = (p: Vec): boolean =>
    distance(p, from) <= 4 * VERTEX_TOLERANCE || distance(p, to) <= 4 * VERTEX_TOLERANCE
  for (const link of around) {
    if (link === arriving || link === leaving || link.gone) continue
    const other = boundsOf(link.edge.piece)
    if (other.min.x > box.max.x + VERTEX_TOLERANCE) continue
    if (other.max.x < box.min.x - VERTEX_TOLERANCE) continue
    if (other.min.y > box.max.y + VERTEX_TOLERANCE) continue
    if (other.max.y < box.min.y - VERTEX_TOLERANCE) continue
    if (meetingsOf(piece, link.edge.piece, VERTEX_TOLERANCE).some((m) => !near(m.at))) return false
    // What lies upon it leaves nothing between.
    if (nearestOn(link.edge.piece, middle).distance <= VERTEX_TOLERANCE) return false
  }
  return true
}

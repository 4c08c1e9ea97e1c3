import {
  crossPlaces,
  dotPlaces,
  place,
  scalePlace,
  subtractPlaces,
  type Place,
  type Vec,
} from '../../geometry'
import { areaOf } from '../axis'
import { lengthOf, nodeAt } from '../nodes'
import { runOf, sideOf } from '../runs'
import { PARALLEL } from './figures'
import type { Line } from '../types'
import type { Host, RestFace } from './types'

/** Faces about one line that could be a hole: places along the line, and radii about it, in mm. */
export interface Drilled {
  readonly line: Line
  readonly walls: readonly { readonly radius: number; readonly from: number; readonly to: number }[]
  readonly cones: readonly { readonly from: Vec; readonly to: Vec }[]
  readonly rings: readonly { readonly at: number; readonly inner: number; readonly outer: number }[]
  readonly faces: readonly number[]
}

/** A gap between places round a line that is wider than this, in radians, is no full turn. */
const OPEN = 1
/** Triangles of a ring have about this share of its area. */
const FULL = 0.85
/** What was drilled along lines that a test lets pass, from the faces of cylinders that look inwards. */
export function drilledIn(
  rest: readonly RestFace[],
  host: Host,
  isWanted: (line: Line) => Line | undefined,
): Drilled[] {
  const lines: Line[] = []
  for (const face of rest) {
    if (face.kind !== 'cylinder' || !face.axis || sideOf(face, face.axis) > 0) continue
    const line = isWanted(face.axis)
    if (line && !lines.some((l) => isSame(l, line, host.near))) lines.push(line)
  }
  const taken = new Set<number>()
  return lines.flatMap((line) => {
    const found = aboutLine(
      rest.filter((f) => !taken.has(f.number)),
      line,
      host,
    )
    found?.faces.forEach((f) => taken.add(f))
    return found ?? []
  })
}

const isSame = (a: Line, b: Line, near: number): boolean =>
  lengthOf(crossPlaces(a.along, b.along)) < PARALLEL &&
  dotPlaces(a.along, b.along) > 0 &&
  lengthOf(crossPlaces(subtractPlaces(b.at, a.at), a.along)) <= near

function aboutLine(rest: readonly RestFace[], line: Line, host: Host): Drilled | undefined {
  const { near } = host
  const walls: { radius: number; from: number; to: number; faces: RestFace[] }[] = []
  const cones: { from: Vec; to: Vec; faces: RestFace[] }[] = []
  const rings: { at: number; inner: number; outer: number; faces: RestFace[] }[] = []
  const isNear = (a: number, b: number): boolean => Math.abs(a - b) <= near
  // A program may part any of them into halves: faces of one shape are one.
  const put = <T extends { readonly faces: RestFace[] }>(
    all: T[],
    own: T,
    isOne: (known: T) => boolean,
  ): T => {
    const known = all.find(isOne)
    if (!known) all.push(own)
    known?.faces.push(...own.faces)
    return known ?? own
  }
  for (const face of rest) {
    const run = runOf(face, line, host.size)
    if (run?.kind !== 'line') continue
    const [from, to] = run.from.x < run.to.x ? [run.from, run.to] : [run.to, run.from]
    const [low, high] = [Math.min(from.y, to.y), Math.max(from.y, to.y)]
    if (face.kind === 'plane') {
      const ring = { at: from.x, inner: low, outer: high, faces: [face] }
      put(rings, ring, (r) => isNear(r.at, ring.at) && isNear(r.outer, high))
    } else if (high - low <= near) {
      if (sideOf(face, line) > 0) continue
      const radius = (low + high) / 2
      const wall = put(
        walls,
        { radius, from: from.x, to: to.x, faces: [face] },
        (w) => isNear(w.radius, radius) && from.x <= w.to + near && to.x >= w.from - near,
      )
      wall.from = Math.min(wall.from, from.x)
      wall.to = Math.max(wall.to, to.x)
    } else if (from.x !== to.x) {
      const isOne = (c: { from: Vec; to: Vec }): boolean =>
        [c.from, c.to].every((p, i) => {
          const own = i === 0 ? from : to
          return isNear(p.x, own.x) && isNear(p.y, own.y)
        })
      put(cones, { from, to, faces: [face] }, isOne)
    }
  }
  const full = {
    walls: walls.filter((w) => isFull(w.faces, line)),
    cones: cones.filter((c) => isFull(c.faces, line)),
    rings: rings.flatMap((r) => wholeRing(r, line) ?? []),
  }
  if (full.walls.length === 0) return undefined
  const faces = [...full.walls, ...full.cones, ...full.rings].flatMap((f) => f.faces)
  return { line, ...full, faces: faces.map((f) => f.number) }
}

/** A ring, if its faces cover it; that it goes in to the middle may be seen by all of them together alone. */
function wholeRing<
  T extends { readonly inner: number; readonly outer: number; readonly faces: readonly RestFace[] },
>(ring: T, line: Line): T | undefined {
  const area = ring.faces.reduce((sum, f) => sum + areaOf(f), 0)
  const covers = (inner: number): boolean => {
    const share = area / (Math.PI * (ring.outer ** 2 - inner ** 2))
    return share > FULL && share < 1.001
  }
  if (covers(ring.inner) && isFull(ring.faces, line)) return ring
  return covers(0) ? { ...ring, inner: 0 } : undefined
}

/** Whether the places of faces go all round a line. */
function isFull(faces: readonly RestFace[], { at, along }: Line): boolean {
  const side = Math.abs(along.x) < 0.9 ? place(1, 0, 0) : place(0, 1, 0)
  const raw = crossPlaces(along, side)
  const u = scalePlace(raw, 1 / lengthOf(raw))
  const v = crossPlaces(along, u)
  const angles = faces.flatMap(({ nodes }) =>
    Array.from({ length: nodes.length / 3 }, (_, i) => {
      const off: Place = subtractPlaces(nodeAt(nodes, i), at)
      return Math.atan2(dotPlaces(off, v), dotPlaces(off, u))
    }),
  )
  angles.sort((a, b) => a - b)
  const [first = 0] = angles
  return angles.every((a, i) => (angles[i + 1] ?? first + 2 * Math.PI) - a < OPEN)
}

/** What a drill left, read from its mouth in. */
export interface Drill {
  readonly radius: number
  /** Where it begins along its line. */
  readonly mouth: number
  /** The end of its full diameter, from the mouth on. */
  readonly depth: number
  readonly head:
    | { readonly kind: 'counterbore'; readonly diameter: number; readonly depth: number }
    | { readonly kind: 'countersink'; readonly diameter: number; readonly angle: number }
    | undefined
  /** Undefined for one that goes through. */
  readonly floor: 'flat' | { readonly angle: number } | undefined
}

/**
 * Reads a hole in one direction along its line; undefined where it has more than a head, a wall and a floor.
 * @param way 1 where it goes in along its line, −1 against it
 * @param mouthAt where it begins along the line, where that is no end of a face
 */
export function readDrill(
  { walls, cones, rings }: Drilled,
  way: 1 | -1,
  { near }: Host,
  mouthAt?: number,
): Drill | undefined {
  const radii = [...new Set(walls.map((w) => w.radius))].sort((a, b) => a - b)
  const [radius = 0] = radii
  const wide = radii.filter((r) => r > radius + near)
  const own = walls.filter((w) => w.radius <= radius + near)
  const inwards = (from: number, to: number): readonly [number, number] =>
    way === 1 ? [from, to] : [-to, -from]
  const ends = own.map((w) => inwards(w.from, w.to))
  const end = Math.max(...ends.map(([, to]) => to))
  const begin = Math.min(
    ...walls.map((w) => inwards(w.from, w.to)[0]),
    ...cones.map((c) => inwards(c.from.x, c.to.x)[0]),
  )
  const mouth = mouthAt === undefined ? begin : way * mouthAt
  let left = { cones: [...cones], rings: [...rings] }
  let floor: Drill['floor']
  const tip = cones.find((c) => Math.min(c.from.y, c.to.y) <= near)
  const flat = rings.find((r) => r.inner <= near && Math.abs(way * r.at - end) <= near)
  if (tip) {
    const [from] = inwards(tip.from.x, tip.to.x)
    const base = Math.max(tip.from.y, tip.to.y)
    if (Math.abs(from - end) > near || Math.abs(base - radius) > near) return undefined
    floor = { angle: 2 * Math.atan(base / Math.abs(tip.to.x - tip.from.x)) }
    left = { ...left, cones: left.cones.filter((c) => c !== tip) }
  } else if (flat) {
    if (Math.abs(flat.outer - radius) > near) return undefined
    floor = 'flat'
    left = { ...left, rings: left.rings.filter((r) => r !== flat) }
  }
  const found = { radius, mouth: way * mouth, depth: end - mouth, floor }
  const [wider, more] = wide
  if (more !== undefined && more - (wider ?? 0) > near) return undefined
  if (wider !== undefined) {
    const seat = left.rings.find(
      (r) => Math.abs(r.inner - radius) <= near && Math.abs(r.outer - wider) <= near,
    )
    if (!seat || left.rings.length > 1 || left.cones.length > 0) return undefined
    const depth = way * seat.at - mouth
    if (Math.min(...ends.map(([from]) => from)) < way * seat.at - near) return undefined
    const head = { kind: 'counterbore' as const, diameter: 2 * wider, depth }
    return depth > near ? { ...found, head } : undefined
  }
  if (left.rings.length > 0 || left.cones.length > 1) return undefined
  const [sink] = left.cones
  if (!sink) return { ...found, head: undefined }
  const [at, to] = inwards(sink.from.x, sink.to.x)
  const [outer, inner] = way === 1 ? [sink.from.y, sink.to.y] : [sink.to.y, sink.from.y]
  // Where its surface is not level its edge goes up and down: it is told as in the plane of its mouth.
  const off = mouthAt === undefined ? near : (to - at) / 2
  const isAtMouth = Math.abs(at - mouth) <= off && Math.abs(inner - radius) <= near
  if (!isAtMouth || outer <= inner) return undefined
  const slope = (outer - inner) / (to - at)
  const diameter = 2 * (inner + (to - mouth) * slope)
  return { ...found, head: { kind: 'countersink', diameter, angle: 2 * Math.atan(slope) } }
}

import {
  controlOf,
  crossPlaces,
  cubic,
  dotPlaces,
  nearestOn,
  scalePlace,
  subtractPlaces,
  vec,
  type CubicPiece,
  type Place,
  type Vec,
} from '../geometry'
import { curvesThrough } from './fitted'
import { lengthOf, nodeAt } from './nodes'
import { cubicsOf, type SpaceSpline } from './spline'
import type { ForeignFace, Line } from './types'

/** What a turned face is in the half-section: a straight run, part of a circle, or free curves. */
export type Run =
  | { readonly kind: 'line'; readonly from: Vec; readonly to: Vec; readonly side: number }
  | {
      readonly kind: 'arc'
      readonly centre: Vec
      readonly radius: number
      /** The angles it goes over, counter-clockwise, in radians; a whole circle goes over 2π. */
      readonly start: number
      readonly sweep: number
    }
  | { readonly kind: 'curve'; readonly pieces: readonly CubicPiece[] }

/** Points are on a line or circle within this share of the size of the solid. */
const NEAR = 1e-6
/** Curves keep to their places by so much less where they can: what is off adds up to volume. */
const EXACT = 1e-2
/** A gap between points on a circle that is wider than this, in radians, is open. */
const OPEN = 0.9
/** Curved faces are told by at least so many points. */
const FEW = 5

/** The run of a face that is turned about a line; undefined of one that is not. */
export function runOf(face: ForeignFace, line: Line, size: number): Run | undefined {
  const near = NEAR * size
  const parallel = face.axis && lengthOf(crossPlaces(face.axis.along, line.along)) < 1e-7
  if (face.kind === 'plane' && parallel !== true) return undefined
  const off = face.axis && crossPlaces(subtractPlaces(face.axis.at, line.at), line.along)
  const isAbout = parallel === true && off !== undefined && lengthOf(off) <= near
  if (face.kind === 'cylinder' && !isAbout) return undefined
  const points = inHalfPlane(face.nodes, line)
  if (points.length < 3) return undefined
  if (face.kind === 'plane') return planeRun(face, line, points)
  if (face.kind === 'cylinder') {
    const radius = points.reduce((sum, p) => sum + p.y, 0) / points.length
    const [from, to] = rangeOf(points.map((p) => p.x))
    return { kind: 'line', from: vec(from, radius), to: vec(to, radius), side: sideOf(face, line) }
  }
  // Between few places what is bent a little looks straight: what the file tells goes first.
  const told = face.spline && turnedCubics(face.spline, line, near)
  if (told && isBent(told, near) && holdsAll(told, points, near)) {
    return { kind: 'curve', pieces: told }
  }
  return (
    levelRun(face, line, points, near) ??
    straightRun(points, near) ??
    roundRun(points, near) ??
    freeRun(face, line, near)
  )
}

/** Of a face of another kind that is flat or a cylinder all the same. */
function levelRun(
  face: ForeignFace,
  line: Line,
  points: readonly Vec[],
  near: number,
): Run | undefined {
  const [[left, right], [low, high]] = [
    rangeOf(points.map((p) => p.x)),
    rangeOf(points.map((p) => p.y)),
  ]
  if (right - left <= near) return high <= near ? undefined : planeRun(face, line, points)
  if (high - low > near || high <= near) return undefined
  const radius = (low + high) / 2
  return { kind: 'line', from: vec(left, radius), to: vec(right, radius), side: sideOf(face, line) }
}

/** The curves that make a face as they are turned; all its own points have to lie on them. */
function freeRun(face: ForeignFace, line: Line, near: number): Run | undefined {
  const nodes = inHalfPlane(face.nodes, line)
  for (const along of face.along ?? []) {
    const places = inHalfPlane(along, line)
    const pieces = curvesThrough(places, EXACT * near) ?? curvesThrough(places, near)
    if (pieces && holdsAll(pieces, nodes, near)) return { kind: 'curve', pieces }
  }
  return undefined
}

/** Whether places lie on curves. */
const holdsAll = (pieces: readonly CubicPiece[], places: readonly Vec[], near: number): boolean =>
  places.every((p) => pieces.some((c) => nearestOn(c, p).distance <= near))

/** Curves whose handles lie this near to their chord, as a share of what is near, are straight. */
const STRAIGHT = 1e-3

const isBent = (pieces: readonly CubicPiece[], near: number): boolean =>
  pieces.some((piece) => {
    const [a, b, c, d] = controlOf(piece)
    const [dx, dy] = [d.x - a.x, d.y - a.y]
    const length = Math.hypot(dx, dy) || 1
    const off = (p: Vec): number => Math.abs(dx * (p.y - a.y) - dy * (p.x - a.x)) / length
    return Math.max(off(b), off(c)) > STRAIGHT * near
  })

/** The curves of a row of poles in the half-plane through a line that they lie in; undefined where they lie in none. */
function turnedCubics(
  spline: SpaceSpline,
  { at, along }: Line,
  near: number,
): readonly CubicPiece[] | undefined {
  const cubics = cubicsOf(spline)
  const outOf = (p: Place): Place => {
    const from = subtractPlaces(p, at)
    return subtractPlaces(from, scalePlace(along, dotPlaces(from, along)))
  }
  // The farthest of its ends tells the half-plane; handles may lie beyond the line.
  const ends = cubics.flatMap(([a, , , d]) => [outOf(a), outOf(d)])
  const far = ends.reduce((a, b) => (lengthOf(b) > lengthOf(a) ? b : a), ends[0] ?? at)
  const length = lengthOf(far)
  if (cubics.length === 0 || length <= near) return undefined
  const way = scalePlace(far, 1 / length)
  let isLevel = true
  const seen = (p: Place): Vec => {
    const out = outOf(p)
    const height = dotPlaces(out, way)
    isLevel &&= lengthOf(subtractPlaces(out, scalePlace(way, height))) <= near
    return vec(dotPlaces(subtractPlaces(p, at), along), height)
  }
  const pieces = cubics.map(([a, b, c, d]) => cubic(seen(a), seen(b), seen(c), seen(d)))
  return isLevel ? pieces : undefined
}

/** Points by their places along a line and off it. */
export function inHalfPlane(nodes: Float64Array, { at, along }: Line): Vec[] {
  return Array.from({ length: nodes.length / 3 }, (_, i) => {
    const from = subtractPlaces(nodeAt(nodes, i), at)
    return vec(dotPlaces(from, along), lengthOf(crossPlaces(from, along)))
  })
}

const rangeOf = (values: readonly number[]): readonly [number, number] => [
  values.reduce((a, b) => Math.min(a, b)),
  values.reduce((a, b) => Math.max(a, b)),
]

/** A face square to the line: from its inner to its outer edge, or from the line itself. */
function planeRun(face: ForeignFace, line: Line, points: readonly Vec[]): Run {
  const at = points.reduce((sum, p) => sum + p.x, 0) / points.length
  const [inner, outer] = rangeOf(points.map((p) => p.y))
  const from = holdsLine(face, line) ? 0 : inner
  return { kind: 'line', from: vec(at, from), to: vec(at, outer), side: sideOf(face, line) }
}

/** Whether a line goes through one of the triangles of a face that is square to it. */
function holdsLine({ nodes, triangles }: ForeignFace, { at, along }: Line): boolean {
  const off = (i: number) => {
    const from = subtractPlaces(nodeAt(nodes, i), at)
    return subtractPlaces(from, scalePlace(along, dotPlaces(from, along)))
  }
  for (let i = 0; i < triangles.length; i += 3) {
    const [a, b, c] = [0, 1, 2].map((k) => off(triangles[i + k] ?? 0))
    if (!a || !b || !c) continue
    const turns = [crossPlaces(a, b), crossPlaces(b, c), crossPlaces(c, a)].map((t) =>
      dotPlaces(t, along),
    )
    if (turns.every((t) => t >= 0) || turns.every((t) => t <= 0)) return true
  }
  return false
}

/** Which way a face looks: 1 outwards or along the line, −1 the other way. */
export function sideOf({ nodes, triangles }: ForeignFace, { at, along }: Line): number {
  let sum = 0
  for (let i = 0; i < triangles.length; i += 3) {
    const [a, b, c] = [0, 1, 2].map((k) => nodeAt(nodes, triangles[i + k] ?? 0))
    if (!a || !b || !c) continue
    const normal = crossPlaces(subtractPlaces(b, a), subtractPlaces(c, a))
    const from = subtractPlaces(a, at)
    const out = subtractPlaces(from, scalePlace(along, dotPlaces(from, along)))
    sum += dotPlaces(normal, along) * (lengthOf(out) || 1) + dotPlaces(normal, out)
  }
  return Math.sign(sum)
}

function straightRun(points: readonly Vec[], near: number): Run | undefined {
  const [first] = points
  if (!first) return undefined
  const far = (p: Vec, q: Vec): number => Math.hypot(q.x - p.x, q.y - p.y)
  const farthest = (p: Vec): Vec => points.reduce((a, b) => (far(p, b) > far(p, a) ? b : a), p)
  const from = farthest(first)
  const to = farthest(from)
  const length = far(from, to)
  if (length < near) return undefined
  const off = (p: Vec): number =>
    Math.abs((to.x - from.x) * (p.y - from.y) - (to.y - from.y) * (p.x - from.x)) / length
  return points.every((p) => off(p) <= near) ? { kind: 'line', from, to, side: 0 } : undefined
}

/** The circle that points lie on (least squares after Kåsa), and how far round it they go. */
function roundRun(points: readonly Vec[], near: number): Run | undefined {
  if (points.length < FEW) return undefined
  const n = points.length
  const mean = vec(points.reduce((s, p) => s + p.x, 0) / n, points.reduce((s, p) => s + p.y, 0) / n)
  let [uu, uv, vv, uuu, vvv, uvv, vuu] = [0, 0, 0, 0, 0, 0, 0]
  for (const p of points) {
    const [u, v] = [p.x - mean.x, p.y - mean.y]
    uu += u * u
    uv += u * v
    vv += v * v
    uuu += u * u * u
    vvv += v * v * v
    uvv += u * v * v
    vuu += v * u * u
  }
  const det = uu * vv - uv * uv
  if (Math.abs(det) < 1e-18) return undefined
  const [p, q] = [(uuu + uvv) / 2, (vvv + vuu) / 2]
  const [cu, cv] = [(p * vv - q * uv) / det, (q * uu - p * uv) / det]
  const centre = vec(mean.x + cu, mean.y + cv)
  const radius = Math.sqrt(cu * cu + cv * cv + (uu + vv) / n)
  const isOn = (at: Vec): boolean =>
    Math.abs(Math.hypot(at.x - centre.x, at.y - centre.y) - radius) <= near
  if (!points.every(isOn)) return undefined
  const angles = points.map((at) => Math.atan2(at.y - centre.y, at.x - centre.x))
  const sorted = [...angles].sort((a, b) => a - b)
  let gap = { size: 0, start: 0 }
  sorted.forEach((angle, i) => {
    const next = sorted[i + 1] ?? (sorted[0] ?? 0) + 2 * Math.PI
    if (next - angle > gap.size) gap = { size: next - angle, start: next }
  })
  return gap.size < OPEN
    ? { kind: 'arc', centre, radius, start: 0, sweep: 2 * Math.PI }
    : { kind: 'arc', centre, radius, start: gap.start, sweep: 2 * Math.PI - gap.size }
}

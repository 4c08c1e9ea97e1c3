import {
  addPlaces,
  crossPlaces,
  dotPlaces,
  place,
  scalePlace,
  subtractPlaces,
  type Place,
} from '../geometry'
import { lengthOf, nodeAt } from './nodes'
import { runOf } from './runs'
import type { ForeignFace, ForeignSolid, Line } from './types'

/** Directions nearer than this are one, and lines this near, as a share of the size. */
const SAME = 1e-6

/**
 * The line about which most of the surface of a solid is turned.
 * @returns undefined when not even one face is turned about anything
 */
export function axisOf(solid: ForeignSolid): Line | undefined {
  const size = reachOf(solid)
  const candidates = distinct(
    [
      ...largestAxes(solid, size),
      ...solid.faces.flatMap((f) =>
        f.kind === 'plane' && f.axis ? [{ at: solid.centre, along: f.axis.along }] : [],
      ),
      ...solid.faces.flatMap((f) => {
        const along = f.kind === 'other' ? flatNormal(f) : undefined
        return along ? [{ at: solid.centre, along }] : []
      }),
      ...solid.faces.flatMap((f) => (f.along ?? []).flatMap((l) => roundAbout(l) ?? [])),
      ...[place(1, 0, 0), place(0, 1, 0), place(0, 0, 1)].flatMap((along) => [
        { at: place(0, 0, 0), along },
        { at: solid.centre, along },
      ]),
    ],
    size,
  )
  let best: { readonly line: Line; readonly area: number } | undefined
  for (const line of candidates) {
    const area = solid.faces.reduce((sum, f) => sum + (runOf(f, line, size) ? areaOf(f) : 0), 0)
    // Of two that tell the same much, the one that was found on the solid itself goes first.
    if (area > 0 && (!best || area > best.area * (1 + SAME))) best = { line, area }
  }
  return best && upright(best.line)
}

/** So many lines that faces are turned about are looked at; of hundreds of holes none is the axis. */
const MOST_AXES = 16

/** The lines that faces say to be turned about, those of the largest faces first. */
function largestAxes({ faces }: ForeignSolid, size: number): Line[] {
  const found: { readonly line: Line; area: number }[] = []
  for (const f of faces) {
    if (f.kind === 'plane' || !f.axis) continue
    const { axis } = f
    const known = found.find((k) => isOneLine(k.line, axis, size))
    if (known) known.area += areaOf(f)
    else found.push({ line: axis, area: areaOf(f) })
  }
  return found
    .sort((a, b) => b.area - a.area)
    .slice(0, MOST_AXES)
    .map((k) => k.line)
}

/**
 * The size of a solid by which nearness is judged, in mm: half of the longest side of the box round it, wherever it
 * stands; more where its file says that places are off by more than is usual for that size.
 */
export function reachOf({ faces, uncertainty = 0 }: ForeignSolid): number {
  const low = [Infinity, Infinity, Infinity]
  const high = [-Infinity, -Infinity, -Infinity]
  for (const { nodes } of faces) {
    nodes.forEach((x, i) => {
      low[i % 3] = Math.min(low[i % 3] ?? x, x)
      high[i % 3] = Math.max(high[i % 3] ?? x, x)
    })
  }
  const sides = high.map((h, i) => (h - (low[i] ?? h)) / 2).filter(Number.isFinite)
  const size = Math.max(1e-3, ...sides)
  return Math.max(size, Math.min(uncertainty / USUAL_UNCERTAINTY, MOST_LENIENT * size))
}

/** Places are on what they belong to within this share of the size. */
const USUAL_UNCERTAINTY = 1e-6
/** No file is taken to be so uncertain that more than so many times what is usual counts as near. */
const MOST_LENIENT = 30

export const areaOf = (face: ForeignFace): number =>
  normalsOf(face).reduce((sum, { x, y, z }) => sum + Math.hypot(x, y, z) / 2, 0)

/** The normal of each triangle, as long as twice its area. */
function normalsOf({ nodes, triangles }: ForeignFace): Place[] {
  const normals: Place[] = []
  for (let i = 0; i < triangles.length; i += 3) {
    const [a, b, c] = [0, 1, 2].map((k) => nodeAt(nodes, triangles[i + k] ?? 0))
    if (a && b && c) normals.push(crossPlaces(subtractPlaces(b, a), subtractPlaces(c, a)))
  }
  return normals
}

/** The normal of a face that is flat whatever its kind. */
function flatNormal(face: ForeignFace): Place | undefined {
  const normals = normalsOf(face)
  const sum = normals.reduce(addPlaces, place(0, 0, 0))
  const length = Math.hypot(sum.x, sum.y, sum.z)
  if (length === 0) return undefined
  const along = scalePlace(sum, 1 / length)
  const isFlat = normals.every((n) => {
    const { x, y, z } = crossPlaces(n, along)
    return Math.hypot(x, y, z) <= SAME * Math.hypot(n.x, n.y, n.z)
  })
  return isFlat ? along : undefined
}

/** Places stay this near to a circle, as a share of its radius. */
const ROUND = 1e-5

/** The line that goes square through the middle of places on a circle; undefined where they are on none. */
export function roundAbout(places: Float64Array): Line | undefined {
  const count = places.length / 3
  const [a, b, c] = [0, 1, 2].map((k) => nodeAt(places, Math.floor((k * count) / 3)))
  if (!a || !b || !c) return undefined
  const [u, v] = [subtractPlaces(b, a), subtractPlaces(c, a)]
  const normal = crossPlaces(u, v)
  const square = dotPlaces(normal, normal)
  if (square === 0) return undefined
  // The circumcentre of three of them.
  const towards = addPlaces(
    scalePlace(crossPlaces(normal, u), dotPlaces(v, v)),
    scalePlace(crossPlaces(v, normal), dotPlaces(u, u)),
  )
  const at = addPlaces(a, scalePlace(towards, 1 / (2 * square)))
  const along = scalePlace(normal, 1 / Math.sqrt(square))
  const radius = lengthOf(subtractPlaces(a, at))
  for (let i = 0; i < count; i++) {
    const off = subtractPlaces(nodeAt(places, i), at)
    const isOn =
      Math.abs(dotPlaces(off, along)) <= ROUND * radius &&
      Math.abs(lengthOf(off) - radius) <= ROUND * radius
    if (!isOn) return undefined
  }
  return { at, along }
}

/** Whether two lines are one, whichever way they run. */
function isOneLine(a: Line, b: Line, size: number): boolean {
  const turn = crossPlaces(a.along, b.along)
  const off = crossPlaces(subtractPlaces(b.at, a.at), a.along)
  return Math.hypot(turn.x, turn.y, turn.z) < SAME && Math.hypot(off.x, off.y, off.z) < SAME * size
}

/** Each line once, whichever way it runs. */
function distinct(lines: readonly Line[], size: number): Line[] {
  const kept: Line[] = []
  for (const line of lines) {
    const known = kept.some((k) => isOneLine(k, line, size))
    if (!known) kept.push(line)
  }
  return kept
}

/** The way along a line in which its greatest coordinate grows. */
function upright({ at, along }: Line): Line {
  const greatest = [along.x, along.y, along.z].reduce((a, b) => (Math.abs(b) > Math.abs(a) ? b : a))
  const way = greatest < 0 ? scalePlace(along, -1) : along
  // The place nearest to the origin, so that files drawn about it keep their distances.
  const foot = subtractPlaces(at, scalePlace(way, dotPlaces(at, way)))
  return { at: foot, along: way }
}

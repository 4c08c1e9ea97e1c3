import { fewFor } from '../once'
import {
  chordAngle,
  isSamePiece,
  pointsAlong,
  type Cubic,
  type CubicPiece,
  tangentAt,
  type Piece,
  type Vec,
} from '../geometry'
import { VERTEX_TOLERANCE } from '../tolerances'
import { loopsOf, type Loop, type Section } from '../section'

/**
 * Triangles of a section turned about the axis, in mm. The part's axis is Z and the section lies in
 * the XZ half-plane x ≥ 0. Vertices are split where normals change, at equal positions, so the
 * surface is watertight once equal positions are one.
 */
export interface LatheMesh {
  /** x, y, z per vertex */
  readonly positions: Float32Array
  /** unit normals, out of the material */
  readonly normals: Float32Array
  /** three vertices per triangle, counter-clockwise seen from outside */
  readonly indices: Uint32Array
  /** x, y, z pairs: line segments along the circular edges */
  readonly edges: Float32Array
  /** the faces: which triangles came from which edge of the section */
  readonly faces: readonly MeshFace[]
  /** What the buffers were made from, ring by ring; an update rewrites only rings that differ. */
  readonly rings: Rings
  /** The vertices and edge vertices that were written; all of them in a fresh mesh. */
  readonly written: { readonly vertices: Span; readonly edges: Span }
}

/** Rings of the surface and of the circular edges, each with the steps round the axis. */
interface Rings {
  readonly steps: number
  /** axial position, radius, and the normal's two parts, per ring */
  readonly surface: Float64Array
  /** axial position and radius per circular edge */
  readonly corners: Float64Array
}

/** A run of vertices; empty when nothing was written. */
export interface Span {
  readonly first: number
  readonly count: number
}

export interface MeshFace {
  /** Number of the section's edge, in the order of its loops. */
  readonly edge: number
  /** First index and count in `indices`. */
  readonly start: number
  readonly count: number
}

/** The fewest and most steps round the axis: an outline that reads as round, and a sane limit. */
const FEWEST_STEPS = 24
const MOST_STEPS = 720

/** Corners that bend less than this, in radians, are smooth and make no edge. */
const SMOOTH = 1e-3

/** Rows of points along an edge of a section, with its normals out of the material. */
export interface Strip {
  readonly edge: number
  readonly points: readonly Vec[]
  readonly normals: readonly Vec[]
}

/**
 * Turns a section into a mesh whose chords stay within a tolerance of the true surface.
 * @param chordTolerance in mm
 * @param reuse an earlier mesh of the same body; when only places changed its buffers are updated
 */
export function latheMesh(section: Section, chordTolerance: number, reuse?: LatheMesh): LatheMesh {
  const loops = loopsOf(section)
  const strips = stripsOf(loops, chordTolerance)
  const radius = Math.max(0, ...strips.flatMap((s) => s.points.map((p) => p.y)))
  const steps = steadySteps(stepsRound(radius, chordTolerance), reuse?.rings.steps)
  const rings = ringsOf(strips, sharpCorners(loops), steps)
  const triangles = strips.reduce((sum, s) => sum + trianglesOf(s, rings.steps), 0)
  const known = reuse && sameShape(reuse, rings, triangles) ? reuse : undefined
  const circle = unitCircle(rings.steps)
  const { positions, normals, ...surface } = writeSurface(rings, circle, known)
  const edges = writeEdges(rings, circle, known)
  const topology = known ?? writeTriangles(strips, rings.steps, triangles)
  return {
    positions,
    normals,
    indices: topology.indices,
    edges: edges.positions,
    faces: topology.faces,
    rings,
    written: { vertices: surface.written, edges: edges.written },
  }
}

function ringsOf(strips: readonly Strip[], corners: readonly Vec[], steps: number): Rings {
  const rows = strips.reduce((sum, s) => sum + s.points.length, 0)
  const surface = new Float64Array(4 * rows)
  let o = 0
  for (const { points, normals } of strips) {
    points.forEach((p, row) => {
      const normal = normals[row] ?? { x: 0, y: 1 }
      surface[o++] = p.x
      surface[o++] = p.y
      surface[o++] = normal.x
      surface[o++] = normal.y
    })
  }
  return { steps, surface, corners: Float64Array.from(corners.flatMap((p) => [p.x, p.y])) }
}

/** Whether a mesh has the same rings, joined by the same triangles, if at other places. */
function sameShape(mesh: LatheMesh, rings: Rings, triangles: number): boolean {
  const { surface } = mesh.rings
  if (mesh.rings.steps !== rings.steps || surface.length !== rings.surface.length) return false
  if (mesh.rings.corners.length !== rings.corners.length) return false
  if (mesh.indices.length !== 3 * triangles) return false
  for (let i = 1; i < surface.length; i += 4) {
    if ((surface[i] === 0) !== (rings.surface[i] === 0)) return false
  }
  return true
}

function writeSurface(
  { steps, surface }: Rings,
  circle: Float64Array,
  known: LatheMesh | undefined,
): { positions: Float32Array; normals: Float32Array; written: Span } {
  const size = 3 * (surface.length / 4) * (steps + 1)
  const positions = known?.positions ?? new Float32Array(size)
  const normals = known?.normals ?? new Float32Array(size)
  const written = writeChanged(surface, known?.rings.surface, 4, (ring) => {
    const offset = 3 * ring * (steps + 1)
    const at = 4 * ring
    writeRing(positions, offset, circle, surface[at] ?? 0, surface[at + 1] ?? 0)
    writeRing(normals, offset, circle, surface[at + 2] ?? 0, surface[at + 3] ?? 0)
  })
  return { positions, normals, written: inVertices(written, steps + 1) }
}

function writeEdges(
  { steps, corners }: Rings,
  circle: Float64Array,
  known: LatheMesh | undefined,
): { positions: Float32Array; written: Span } {
  const positions = known?.edges ?? new Float32Array(3 * corners.length * steps)
  const written = writeChanged(corners, known?.rings.corners, 2, (ring) => {
    writeCircle(
      positions,
      6 * ring * steps,
      circle,
      corners[2 * ring] ?? 0,
      corners[2 * ring + 1] ?? 0,
    )
  })
  return { positions, written: inVertices(written, 2 * steps) }
}

/** Writes the rings whose numbers differ from those known, and tells the run they lie in. */
function writeChanged(
  numbers: Float64Array,
  known: Float64Array | undefined,
  perRing: number,
  write: (ring: number) => void,
): Span {
  let first = -1
  let last = -1
  for (let ring = 0; ring < numbers.length / perRing; ring++) {
    let same = known !== undefined
    for (let k = ring * perRing; same && k < (ring + 1) * perRing; k++) {
      same = known?.[k] === numbers[k]
    }
    if (same) continue
    write(ring)
    if (first < 0) first = ring
    last = ring
  }
  return first < 0 ? { first: 0, count: 0 } : { first, count: last - first + 1 }
}

function inVertices({ first, count }: Span, perRing: number): Span {
  return { first: first * perRing, count: count * perRing }
}

function writeTriangles(
  strips: readonly Strip[],
  steps: number,
  triangles: number,
): Pick<LatheMesh, 'indices' | 'faces'> {
  const indices = new Uint32Array(3 * triangles)
  const faces: MeshFace[] = []
  let vertex = 0
  let index = 0
  for (const strip of strips) {
    const start = index
    for (let row = 0; row + 1 < strip.points.length; row++) {
      const here = vertex + row * (steps + 1)
      index = writeBand(indices, index, here, steps, onAxis(strip, row), onAxis(strip, row + 1))
    }
    vertex += strip.points.length * (steps + 1)
    faces.push({ edge: strip.edge, start, count: index - start })
  }
  return { indices, faces }
}

/**
 * Steps for a mesh that is updated again and again: those it has, while they are enough and not
 * wasteful; else some to spare, so that a growing radius does not ask for others at every update.
 */
function steadySteps(needed: number, known: number | undefined): number {
  if (known === undefined) return needed
  if (known >= needed && known <= 2 * needed) return known
  return Math.min(MOST_STEPS, 4 * Math.ceil((1.25 * needed) / 4))
}

/** How many equal steps round the axis keep chords within a tolerance: a multiple of four. */
export function stepsRound(radius: number, chordTolerance: number): number {
  const needed = (2 * Math.PI) / chordAngle(radius, chordTolerance)
  return Math.min(MOST_STEPS, 4 * Math.ceil(Math.max(FEWEST_STEPS, needed) / 4))
}

/** Rows of points along every edge that makes a surface, with their normals in the section plane. */
export function stripsOf(loops: readonly Loop[], chordTolerance: number): Strip[] {
  const strips: Strip[] = []
  let edge = -1
  for (const loop of loops) {
    for (const { piece } of loop) {
      edge++
      if (
        piece.from.y <= VERTEX_TOLERANCE &&
        piece.to.y <= VERTEX_TOLERANCE &&
        piece.kind === 'line'
      ) {
        continue
      }
      const rows =
        piece.kind === 'cubic'
          ? rowsOfCubic(piece.on, { piece, chordTolerance })
          : rowsAlong(piece, chordTolerance)
      strips.push({ edge, ...rows })
    }
  }
  return strips
}

function rowsAlong(piece: Piece, chordTolerance: number): Omit<Strip, 'edge'> {
  const points = pointsAlong(piece, chordTolerance).map(snapToAxis)
  return { points, normals: points.map((_, i) => outward(piece, i / (points.length - 1))) }
}

interface AskedRows {
  readonly piece: CubicPiece
  readonly chordTolerance: number
}

const rowsOfCubic = fewFor(
  (one: AskedRows, other: AskedRows) =>
    one.chordTolerance === other.chordTolerance && isSamePiece(one.piece, other.piece),
  (_: Cubic, { piece, chordTolerance }) => rowsAlong(piece, chordTolerance),
)

/** Material lies left of an edge, so the normal out of it is the tangent turned to the right. */
function outward(piece: Piece, t: number): Vec {
  const tangent = tangentAt(piece, t)
  return { x: tangent.y, y: -tangent.x }
}

function snapToAxis(p: Vec): Vec {
  return p.y <= VERTEX_TOLERANCE ? { x: p.x, y: 0 } : p
}

function onAxis(strip: Strip, row: number): boolean {
  return strip.points[row]?.y === 0
}

function trianglesOf(strip: Strip, steps: number): number {
  let count = 0
  for (let row = 0; row + 1 < strip.points.length; row++) {
    count += steps * (2 - Number(onAxis(strip, row)) - Number(onAxis(strip, row + 1)))
  }
  return count
}

/** Cosine and sine of every step, the last being the first again to the last bit. */
export function unitCircle(steps: number): Float64Array {
  const circle = new Float64Array(2 * (steps + 1))
  for (let i = 0; i <= steps; i++) {
    const angle = (2 * Math.PI * (i % steps)) / steps
    circle[2 * i] = Math.cos(angle)
    circle[2 * i + 1] = Math.sin(angle)
  }
  return circle
}

function writeRing(
  out: Float32Array,
  offset: number,
  circle: Float64Array,
  axial: number,
  radius: number,
): void {
  for (let i = 0, o = offset; i < circle.length; i += 2, o += 3) {
    out[o] = radius * (circle[i] ?? 0)
    out[o + 1] = radius * (circle[i + 1] ?? 0)
    out[o + 2] = axial
  }
}

/** Triangles between two rings; a ring on the axis is one place, and its triangles a fan. */
function writeBand(
  indices: Uint32Array,
  offset: number,
  first: number,
  steps: number,
  startsOnAxis: boolean,
  endsOnAxis: boolean,
): number {
  let o = offset
  for (let i = 0; i < steps; i++) {
    const a = first + i
    const c = a + steps + 1
    if (!startsOnAxis) {
      indices[o++] = a
      indices[o++] = c
      indices[o++] = a + 1
    }
    if (!endsOnAxis) {
      indices[o++] = a + 1
      indices[o++] = c
      indices[o++] = c + 1
    }
  }
  return o
}

/** Ends of edges off the axis where the outline bends. */
function sharpCorners(loops: readonly Loop[]): Vec[] {
  return loops.flatMap((loop) =>
    loop.flatMap((edge, i) => {
      const next = loop[(i + 1) % loop.length] ?? edge
      const p = edge.piece.to
      if (p.y <= VERTEX_TOLERANCE) return []
      const u = tangentAt(edge.piece, 1)
      const v = tangentAt(next.piece, 0)
      const bend = Math.abs(Math.atan2(u.x * v.y - u.y * v.x, u.x * v.x + u.y * v.y))
      return bend > SMOOTH ? [p] : []
    }),
  )
}

function writeCircle(
  out: Float32Array,
  offset: number,
  circle: Float64Array,
  axial: number,
  radius: number,
): void {
  for (let i = 0, o = offset; i + 2 < circle.length; i += 2) {
    for (const j of [i, i + 2]) {
      out[o++] = radius * (circle[j] ?? 0)
      out[o++] = radius * (circle[j + 1] ?? 0)
      out[o++] = axial
    }
  }
}

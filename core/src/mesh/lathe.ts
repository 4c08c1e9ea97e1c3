import { chordAngle, pointsAlong, tangentAt, type Piece, type Vec } from '../geometry'
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

interface Strip {
  readonly edge: number
  readonly points: readonly Vec[]
  readonly normals: readonly Vec[]
}

/**
 * Turns a section into a mesh whose chords stay within a tolerance of the true surface.
 * @param chordTolerance in mm
 * @param reuse an earlier mesh; its buffers are filled again when the new one has the same size
 */
export function latheMesh(section: Section, chordTolerance: number, reuse?: LatheMesh): LatheMesh {
  const loops = loopsOf(section)
  const strips = stripsOf(loops, chordTolerance)
  const radius = Math.max(0, ...strips.flatMap((s) => s.points.map((p) => p.y)))
  const steps = stepsRound(radius, chordTolerance)
  const rows = strips.reduce((sum, s) => sum + s.points.length, 0)
  const triangles = strips.reduce((sum, s) => sum + trianglesOf(s, steps), 0)
  const corners = sharpCorners(loops)
  const fits =
    reuse?.positions.length === 3 * rows * (steps + 1) &&
    reuse.indices.length === 3 * triangles &&
    reuse.edges.length === 6 * corners.length * steps
  const positions = fits ? reuse.positions : new Float32Array(3 * rows * (steps + 1))
  const normals = fits ? reuse.normals : new Float32Array(positions.length)
  const indices = fits ? reuse.indices : new Uint32Array(3 * triangles)
  const edges = fits ? reuse.edges : new Float32Array(6 * corners.length * steps)
  const circle = unitCircle(steps)
  const faces: MeshFace[] = []
  let vertex = 0
  let index = 0
  for (const strip of strips) {
    const start = index
    const first = vertex
    strip.points.forEach((p, row) => {
      const normal = strip.normals[row] ?? { x: 0, y: 1 }
      writeRing(positions, 3 * vertex, circle, p)
      writeRing(normals, 3 * vertex, circle, normal)
      vertex += steps + 1
    })
    for (let row = 0; row + 1 < strip.points.length; row++) {
      const here = first + row * (steps + 1)
      index = writeBand(indices, index, here, steps, onAxis(strip, row), onAxis(strip, row + 1))
    }
    faces.push({ edge: strip.edge, start, count: index - start })
  }
  corners.forEach((p, k) => writeCircle(edges, 6 * k * steps, circle, p))
  return { positions, normals, indices, edges, faces }
}

/** How many equal steps round the axis keep chords within a tolerance: a multiple of four. */
export function stepsRound(radius: number, chordTolerance: number): number {
  const needed = (2 * Math.PI) / chordAngle(radius, chordTolerance)
  return Math.min(MOST_STEPS, 4 * Math.ceil(Math.max(FEWEST_STEPS, needed) / 4))
}

/** Rows of points along every edge that makes a surface, with their normals in the section plane. */
function stripsOf(loops: readonly Loop[], chordTolerance: number): Strip[] {
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
      const points = pointsAlong(piece, chordTolerance).map(snapToAxis)
      const normals = points.map((_, i) => outward(piece, i / (points.length - 1)))
      strips.push({ edge, points, normals })
    }
  }
  return strips
}

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
function unitCircle(steps: number): Float64Array {
  const circle = new Float64Array(2 * (steps + 1))
  for (let i = 0; i <= steps; i++) {
    const angle = (2 * Math.PI * (i % steps)) / steps
    circle[2 * i] = Math.cos(angle)
    circle[2 * i + 1] = Math.sin(angle)
  }
  return circle
}

function writeRing(out: Float32Array, offset: number, circle: Float64Array, p: Vec): void {
  for (let i = 0, o = offset; i < circle.length; i += 2, o += 3) {
    out[o] = p.y * (circle[i] ?? 0)
    out[o + 1] = p.y * (circle[i + 1] ?? 0)
    out[o + 2] = p.x
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

function writeCircle(out: Float32Array, offset: number, circle: Float64Array, p: Vec): void {
  for (let i = 0, o = offset; i + 2 < circle.length; i += 2) {
    for (const j of [i, i + 2]) {
      out[o++] = p.y * (circle[j] ?? 0)
      out[o++] = p.y * (circle[j + 1] ?? 0)
      out[o++] = p.x
    }
  }
}

import earcut, { refine } from 'earcut'
import { boundsOf, pointsAlong, tangentAt, vec, type Piece, type Vec } from '../../geometry'
import { faceName } from '../../names'
import { edgeKey, edgesOf, loopsOf } from '../../section'
import type { BoredOutline, BoredRound } from '../../solid'
import { stepsRound, stripsOf, unitCircle, type Strip } from '../lathe'
import type { FacePiece } from '../pieces'
import { areaOf } from './planes'

/** A ring in a plane face, as the edge of what was bored there. */
export interface Opening {
  readonly at: number
  readonly ring: readonly Vec[]
}

/** Places closer than this along the axis are one, in mm. */
const SAME = 1e-7

/** A face as it is put together. */
class Face {
  private readonly places: number[] = []
  private readonly ways: number[] = []
  private readonly corners: number[] = []
  private readonly lines: number[] = []

  constructor(private readonly name: string) {}

  /** @returns the number of the vertex */
  put(x: number, y: number, z: number, nx: number, ny: number, nz: number): number {
    this.places.push(x, y, z)
    this.ways.push(nx, ny, nz)
    return this.places.length / 3 - 1
  }

  triangle(a: number, b: number, c: number, turned: boolean): void {
    if (turned) this.corners.push(a, c, b)
    else this.corners.push(a, b, c)
  }

  /** A line of its edge between two of its vertices. */
  line(a: number, b: number): void {
    this.lines.push(a, b)
  }

  get piece(): FacePiece {
    return {
      name: this.name,
      positions: Float32Array.from(this.places),
      normals: Float32Array.from(this.ways),
      indices: Uint32Array.from(this.corners),
      lines: Uint32Array.from(this.lines),
    }
  }
}

/** Whether a ring lies in the plane face that a line of the section makes. */
export function isIn(piece: Piece, { at, ring: [first = vec(0, 0)] }: Opening): boolean {
  const { min, max } = boundsOf(piece)
  const far = Math.hypot(first.x, first.y)
  return max.x - min.x < SAME && Math.abs(min.x - at) < SAME && min.y < far && far < max.y
}

/** How the section of something turned lies: about an axis along the part’s, whether from within, and where its places come to. */
interface Lie {
  readonly at: Vec
  readonly way: 1 | -1
  readonly isInside: boolean
  readonly along: (x: number) => number
}

export const ABOUT_AXIS: Lie = { at: vec(0, 0), way: 1, isInside: false, along: (x) => x }

export function turnedFace(
  name: string,
  { points, normals }: Pick<Strip, 'points' | 'normals'>,
  circle: Float64Array,
  { at, way, isInside, along }: Lie,
): FacePiece {
  const face = new Face(name)
  const steps = circle.length / 2 - 1
  const side = isInside ? -1 : 1
  points.forEach((p, row) => {
    const { x: nx, y: ny } = normals[row] ?? vec(0, 1)
    for (let i = 0; i < steps; i++) {
      const [c, s] = [circle[2 * i] ?? 1, circle[2 * i + 1] ?? 0]
      face.put(
        ...[at.x + p.y * c, at.y + p.y * s, along(p.x)],
        ...[side * ny * c, side * ny * s, side * way * nx],
      )
    }
  })
  const turned = isInside !== way < 0
  for (let row = 0; row + 1 < points.length; row++) {
    const [a, b] = [row * steps, (row + 1) * steps]
    for (let i = 0; i < steps; i++) {
      const next = (i + 1) % steps
      if (points[row]?.y !== 0) face.triangle(a + i, b + i, a + next, turned)
      if (points[row + 1]?.y !== 0) face.triangle(a + next, b + i, b + next, turned)
    }
  }
  // What comes back to its beginning has no ends.
  const [first, last] = [points[0] ?? vec(0, 0), points.at(-1) ?? vec(0, 0)]
  if (first.x === last.x && first.y === last.y) return face.piece
  for (const row of [0, points.length - 1]) {
    if (points[row]?.y === 0) continue
    for (let i = 0; i < steps; i++) face.line(row * steps + i, row * steps + ((i + 1) % steps))
  }
  return face.piece
}

export const ringAbout = (at: Vec, radius: number, circle: Float64Array): Vec[] =>
  Array.from({ length: circle.length / 2 - 1 }, (_, i) =>
    vec(at.x + radius * (circle[2 * i] ?? 1), at.y + radius * (circle[2 * i + 1] ?? 0)),
  )

/** A plane face square to the axis. @param rings the one around it first */
export function planeFace(
  name: string,
  z: number,
  facing: number,
  rings: readonly (readonly Vec[])[],
): FacePiece {
  const face = new Face(name)
  const flat: number[] = []
  const starts: number[] = []
  for (const ring of rings) {
    const start = flat.length / 2
    starts.push(start)
    ring.forEach(({ x, y }, i) => {
      flat.push(x, y)
      face.put(x, y, z, 0, 0, Math.sign(facing))
      if (i > 0) face.line(start + i - 1, start + i)
    })
    face.line(start + ring.length - 1, start)
  }
  const corners = earcut(flat, starts.slice(1))
  // Long thin ones would be seen in the shading.
  refine(corners, flat)
  const at = (v: number): Vec => vec(flat[2 * v] ?? 0, flat[2 * v + 1] ?? 0)
  for (let i = 0; i < corners.length; i += 3) {
    const [a = 0, b = 0, c = 0] = corners.slice(i, i + 3)
    face.triangle(a, b, c, areaOf([at(a), at(b), at(c)]) > 0 !== facing > 0)
  }
  return face.piece
}

/** The faces that a hole has left, and where it opens. */
export function roundPieces(one: BoredRound, tolerance: number, openings: Opening[]): FacePiece[] {
  const { section, at, z, way, between, mark } = one
  const edges = edgesOf(section)
  const radius = Math.max(...edges.map((e) => boundsOf(e.piece).max.y))
  const circle = unitCircle(stepsRound(radius, tolerance))
  const along = (x: number): number => snapped(z + way * x, between)
  const lie: Lie = { at, way, isInside: true, along }
  return stripsOf(loopsOf(section), tolerance).flatMap((strip) => {
    const edge = edges[strip.edge]
    const plane = edge && planeOf(edge.piece, along)
    if (!edge || plane === undefined || !between.includes(plane)) {
      const name = edge ? edgeKey(edge.name) : ''
      return [turnedFace(`${name}${mark}`, strip, circle, lie)]
    }
    const { max } = boundsOf(edge.piece)
    openings.push({ at: plane, ring: ringAbout(at, max.y, circle) })
    return []
  })
}

/** Where a line of a section square to its axis comes to along the part’s. */
function planeOf(piece: Piece, along: (x: number) => number): number | undefined {
  const { min, max } = boundsOf(piece)
  return piece.kind === 'line' && max.x - min.x < SAME ? along(min.x) : undefined
}

/** The place itself, or the one of a face that it is in. */
const snapped = (x: number, faces: readonly number[]): number =>
  faces.find((at) => Math.abs(at - x) < SAME) ?? x

/** The faces that an outline has left, and where it opens. */
export function outlinePieces(
  one: BoredOutline,
  tolerance: number,
  openings: Opening[],
): FacePiece[] {
  const { outline, put, between, step, mark } = one
  const ends = one.ends.map((at) => snapped(at, between))
  const [from, to] = between
  const [low, high] = [Math.max(from, Math.min(...ends)), Math.min(to, Math.max(...ends))]
  if (high - low < SAME) return []
  const edges = edgesOf(outline)
  const runs = edges.map(({ piece }) => pointsAlong(piece, tolerance))
  const ring = runs.flatMap((run) => run.slice(0, -1)).map(put)
  const runsLeft = areaOf(ring) > 0
  const origin = put(vec(0, 0))
  const walls = edges.map(({ name, piece }, n) => {
    const face = new Face(`${edgeKey(name)}${mark}`)
    const run = runs[n] ?? []
    run.forEach((p, i) => {
      const { x, y } = put(p)
      const tip = put(tangentAt(piece, i / (run.length - 1)))
      const [tx, ty] = [tip.x - origin.x, tip.y - origin.y]
      const [nx, ny] = runsLeft ? [-ty, tx] : [ty, -tx]
      for (const z of [low, high]) face.put(x, y, z, nx, ny, 0)
    })
    const last = 2 * (run.length - 1)
    for (let v = 0; v < last; v += 2) {
      face.triangle(v, v + 2, v + 3, runsLeft)
      face.triangle(v, v + 3, v + 1, runsLeft)
      face.line(v, v + 2)
      face.line(v + 1, v + 3)
    }
    // What comes round to its beginning has no ends.
    if (edges.length > 1) for (const v of [0, last]) face.line(v, v + 1)
    return face.piece
  })
  // At its own end within the material a floor is left, which looks into it.
  const floors = [
    ...(low > from ? [{ at: low, facing: 1 }] : []),
    ...(high < to ? [{ at: high, facing: -1 }] : []),
  ].map(({ at, facing }) => {
    const name = `${faceName(step, at === ends[0] ? 'first' : 'last')}${mark}`
    return planeFace(name, at, facing, [ring])
  })
  if (low === from) openings.push({ at: from, ring })
  if (high === to) openings.push({ at: to, ring })
  return [...walls, ...floors]
}

import { edgeKey, edgesOf, type Section } from '@lathica/core/section'
import { leftNormal } from '@lathica/core/geometry'
import type { SolidMesh } from '@lathica/core/mesh'
import { BufferAttribute, BufferGeometry, LineBasicMaterial, LineSegments, type Plane } from 'three'

/** Lines round a land, as a thread or a knurl has them. */
export interface LinesRound {
  /** Where they begin and end along the axis, in mm. */
  readonly from: number
  readonly to: number
  readonly radius: number
  /** Angles to the axis in radians, and how many lines of each stand round it; one square to it is a ring. */
  readonly families: readonly { readonly angle: number; readonly many: number }[]
  /** From one ring to the next, in mm. */
  readonly pitch: number
}

/** What is shown of a face because of what is said of it. */
export interface SaidFace {
  readonly on: string
  /** Its own colour and finish; that of its body, toned, where this is left out. */
  readonly colour?: { readonly of: string; readonly finish: 'matt' | 'polished' }
  readonly lines?: LinesRound
}

/** How the lines are drawn: their tone, and the planes of a cut. */
interface LineManner {
  readonly tones: { readonly edge: string }
  readonly planes: readonly Plane[]
}

/** More lines of a family than this are not told apart. */
const MOST_LINES = 220
/** Steps of a line for a whole turn. */
const STEPS = 48
/** Lines stand this share of the radius before the face, to be seen. */
const BEFORE = 0.002

/** Threads and knurls as lines over their lands; the geometry is left as it is. */
export class SaidLines {
  readonly object = new LineSegments(
    new BufferGeometry(),
    new LineBasicMaterial({ transparent: true, opacity: 0.5 }),
  )
  private said: readonly SaidFace[] = []
  private on: Section | SolidMesh | undefined

  constructor() {
    this.object.frustumCulled = false
    this.object.visible = false
    this.object.renderOrder = 1
  }

  /** @param on the section of a full turn, or the triangles of what is none */
  show(said: readonly SaidFace[], on: Section | SolidMesh, { tones, planes }: LineManner): void {
    this.object.material.color.set(tones.edge)
    Object.assign(this.object.material, { clippingPlanes: planes, clipIntersection: true })
    if (this.said.length === 0 && said.length === 0) return
    if (this.said === said && this.on === on) return
    this.said = said
    this.on = on
    const positions = said.flatMap(({ on: face, lines }) => {
      if (!lines) return []
      return 'regions' in on ? linesOn(lines, on, face) : linesOnTriangles(lines, on, face)
    })
    this.object.geometry.dispose()
    this.object.geometry = new BufferGeometry().setAttribute(
      'position',
      new BufferAttribute(new Float32Array(positions), 3),
    )
    this.object.visible = positions.length > 0
  }

  dispose(): void {
    this.object.geometry.dispose()
    this.object.material.dispose()
  }
}

/**
 * The same lines on the triangles of a face that holes and slots have parted: each triangle is unrolled, and shows the
 * stretches of the lines that run over it.
 */
export function linesOnTriangles(
  { from, to, radius, families, pitch }: LinesRound,
  { positions, normals, indices, faces }: SolidMesh,
  on: string,
): number[] {
  const found: number[] = []
  type Corner = { readonly x: number; readonly y: number; readonly z: number; readonly u: number }
  const cornersAt = (i: number): readonly Corner[] => {
    let first: number | undefined
    return [0, 1, 2].map((k) => {
      const v = 3 * (indices[i + k] ?? 0)
      const [x = 0, y = 0, z = 0] = positions.subarray(v, v + 3)
      let angle = Math.atan2(y, x)
      first ??= angle
      // A triangle is narrow: its corners lie less than half a turn apart.
      angle -= 2 * Math.PI * Math.round((angle - first) / (2 * Math.PI))
      const out = Math.sign((normals[v] ?? 0) * x + (normals[v + 1] ?? 0) * y)
      const far = 1 + BEFORE * out
      return { x: x * far, y: y * far, z, u: angle * radius }
    })
  }
  for (const { angle, many } of families) {
    const isRound = angle >= Math.PI / 2 - 1e-9
    // Along a line, n · (u, z) stays the same; from one line to the next it grows by a step.
    const [nu, nz] = isRound ? [0, 1] : [Math.cos(angle), -Math.sin(angle)]
    const shown = Math.min(MOST_LINES, many)
    const step = isRound ? pitch : (2 * Math.PI * radius * Math.cos(angle)) / shown
    const start = nz * (isRound ? from + pitch / 2 : from)
    for (const face of faces) {
      if (face.name !== on) continue
      for (let i = face.start; i < face.start + face.count; i += 3) {
        const corners = cornersAt(i)
        const values = corners.map((c) => (nu * c.u + nz * c.z - start) / step)
        const last = Math.floor(Math.max(...values))
        for (let k = Math.ceil(Math.min(...values)); k <= last; k++) {
          const ends = corners.flatMap((a, j) => {
            const [b, va, vb] = [corners[(j + 1) % 3], values[j] ?? 0, values[(j + 1) % 3] ?? 0]
            if (!b || va === vb || Math.min(va, vb) > k || Math.max(va, vb) <= k) return []
            const t = (k - va) / (vb - va)
            return [[a.x + t * (b.x - a.x), a.y + t * (b.y - a.y), a.z + t * (b.z - a.z)] as const]
          })
          const [p, q] = ends
          if (p && q && Math.min(p[2], q[2]) >= from - 1e-6 && Math.max(p[2], q[2]) <= to + 1e-6) {
            found.push(...p, ...q)
          }
        }
      }
    }
  }
  return found
}

/** x, y and z of both ends of every stretch of line, on the pieces of the land that are there. */
function linesOn(lines: LinesRound, section: Section, on: string): number[] {
  const edges = edgesOf(section).filter((e) => edgeKey(e.name) === on)
  const positions: number[] = []
  const [first] = edges
  if (!first) return positions
  const outwards = -Math.sign(leftNormal(first.piece, 0.5).y)
  const radius = lines.radius * (1 + BEFORE * outwards)
  const put = (x: number, angle: number): void => {
    positions.push(radius * Math.cos(angle), radius * Math.sin(angle), x)
  }
  for (const { piece } of edges) {
    const low = Math.max(lines.from, Math.min(piece.from.x, piece.to.x))
    const high = Math.min(lines.to, Math.max(piece.from.x, piece.to.x))
    if (high <= low) continue
    for (const { angle, many } of lines.families) {
      const isRound = angle >= Math.PI / 2 - 1e-9
      const count = isRound ? Math.floor((high - low) / lines.pitch) : many
      const shown = Math.max(1, Math.min(MOST_LINES, count))
      const turn = isRound ? 2 * Math.PI : (Math.tan(angle) * (high - low)) / lines.radius
      const steps = Math.max(1, Math.ceil((Math.abs(turn) / (2 * Math.PI)) * STEPS))
      const along = isRound ? 0 : high - low
      for (let i = 0; i < shown; i++) {
        const [x, start] = isRound
          ? [low + ((high - low) * (i + 0.5)) / shown, 0]
          : [low, (2 * Math.PI * i) / shown]
        for (let k = 0; k < steps; k++) {
          put(x + (along * k) / steps, start + (turn * k) / steps)
          put(x + (along * (k + 1)) / steps, start + (turn * (k + 1)) / steps)
        }
      }
    }
  }
  return positions
}

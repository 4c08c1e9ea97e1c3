import { pointsAlong, type Place, type Vec } from '../geometry'
import { edgesOf, liesOnAxis, type Section, type SectionEdge } from '../section'
import { lastFor } from '../once'

/** Where a ray goes through the surface of a turned body. */
export interface TurnedHit {
  /** Along the ray, in lengths of its direction. */
  readonly t: number
  readonly edge: SectionEdge
  /** The place in the section plane, and the angle round the axis in radians. */
  readonly at: Vec
  readonly angle: number
}

/** A straight bit of an edge: a cone, a cylinder or a flat ring of the surface. */
interface Bit {
  readonly edge: SectionEdge
  readonly from: Vec
  readonly to: Vec
}

const bitsOf = lastFor((section: Section, chord: number): readonly Bit[] =>
  edgesOf(section).flatMap((edge) => {
    if (liesOnAxis(edge)) return []
    const points = pointsAlong(edge.piece, chord)
    return points.slice(1).map((to, i): Bit => ({ edge, from: points[i] ?? to, to }))
  }),
)

/**
 * Where a ray meets the surface of a turned section, nearest first: each straight bit of the outline
 * turns to a cone, which a ray meets where a quadratic has its roots. No triangle is asked.
 * @param chord how far chords may lie from arcs, in mm: as of the mesh that is seen
 */
export function hitsOnTurned(
  section: Section,
  origin: Place,
  direction: Place,
  chord: number,
): TurnedHit[] {
  const hits: TurnedHit[] = []
  const take = (bit: Bit, t: number): void => {
    const x = origin.x + t * direction.x
    const y = origin.y + t * direction.y
    const z = origin.z + t * direction.z
    const radius = Math.hypot(x, y)
    const [low, high] = bit.from.x < bit.to.x ? [bit.from.x, bit.to.x] : [bit.to.x, bit.from.x]
    const [inner, outer] = bit.from.y < bit.to.y ? [bit.from.y, bit.to.y] : [bit.to.y, bit.from.y]
    const slack = 1e-9 * (1 + Math.abs(z) + radius)
    if (z < low - slack || z > high + slack) return
    if (radius < inner - slack || radius > outer + slack) return
    hits.push({ t, edge: bit.edge, at: { x: z, y: radius }, angle: Math.atan2(y, x) })
  }
  const across = direction.x ** 2 + direction.y ** 2
  const towards = origin.x * direction.x + origin.y * direction.y
  const away = origin.x ** 2 + origin.y ** 2
  for (const bit of bitsOf(section, chord)) {
    const { from, to } = bit
    const length = to.x - from.x
    if (Math.abs(length) < 1e-12) {
      if (direction.z !== 0) take(bit, (from.x - origin.z) / direction.z)
      continue
    }
    const slope = (to.y - from.y) / length
    const start = from.y + slope * (origin.z - from.x)
    const a = across - (slope * direction.z) ** 2
    const b = towards - start * slope * direction.z
    const c = away - start * start
    const square = b * b - a * c
    if (square < 0) continue
    const root = Math.sqrt(square)
    if (Math.abs(a) < 1e-15) {
      if (b !== 0) take(bit, -c / (2 * b))
    } else {
      take(bit, (-b - root) / a)
      take(bit, (-b + root) / a)
    }
  }
  return hits.sort((p, q) => p.t - q.t)
}

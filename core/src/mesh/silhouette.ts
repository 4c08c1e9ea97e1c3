import { pointsAlong, tangentAt, type Vec, type Place } from '../geometry'
import { edgesOf, liesOnAxis, type Section } from '../section'
import { lastFor } from '../once'

/** A point of the outline with its normal out of the material, both in the section plane. */
interface Rib {
  readonly at: Vec
  readonly normal: Vec
}

const ribsOf = lastFor((section: Section, chord: number): readonly Rib[][] =>
  edgesOf(section).flatMap((edge) => {
    if (liesOnAxis(edge)) return []
    const points = pointsAlong(edge.piece, chord)
    return [
      points.map((at, i) => {
        const tangent = tangentAt(edge.piece, i / (points.length - 1))
        return { at, normal: { x: tangent.y, y: -tangent.x } }
      }),
    ]
  }),
)

/** From where one looks: from a place, or along a direction from far away. */
export type Eye = { readonly at: Place } | { readonly along: Place }

/**
 * The outline of a turned body as it is seen: line segments along the places where the surface turns
 * away from the eye, x, y, z by pairs. On the circle of a rib with the normal (a, n) these lie at
 * cos φ = −a·d_z / (n·d_r) from the way one looks, or nowhere.
 */
export function silhouetteOf(section: Section, eye: Eye, chord: number): Float32Array {
  const out: number[] = []
  for (const run of ribsOf(section, chord)) {
    let before: readonly [Place, Place] | undefined
    for (const rib of run) {
      const here = placesOf(rib, eye)
      if (before && here) {
        for (const side of [0, 1] as const) {
          const [p, q] = [before[side], here[side]]
          out.push(p.x, p.y, p.z, q.x, q.y, q.z)
        }
      }
      before = here
    }
  }
  return Float32Array.from(out)
}

function placesOf({ at, normal }: Rib, eye: Eye): readonly [Place, Place] | undefined {
  const [across, cosine, towards] =
    'along' in eye ? alongCosine(normal, eye.along) : fromCosine(at, normal, eye.at)
  if (across < 1e-12 || Math.abs(cosine) > 1 || Number.isNaN(cosine)) return undefined
  const spread = Math.acos(cosine)
  const place = (angle: number): Place => ({
    x: at.y * Math.cos(angle),
    y: at.y * Math.sin(angle),
    z: at.x,
  })
  return [place(towards + spread), place(towards - spread)]
}

/** The reach of a direction across the axis, the cosine of the angle to it, and its own angle. */
type Facing = readonly [across: number, cosine: number, towards: number]

function alongCosine(normal: Vec, along: Place): Facing {
  const across = Math.hypot(along.x, along.y)
  const cosine = (-normal.x * along.z) / (normal.y * across)
  return [across * Math.abs(normal.y), cosine, Math.atan2(along.y, along.x)]
}

function fromCosine(at: Vec, normal: Vec, from: Place): Facing {
  const across = Math.hypot(from.x, from.y)
  const cosine = (normal.x * (at.x - from.z) + normal.y * at.y) / (normal.y * across)
  return [across * Math.abs(normal.y), cosine, Math.atan2(from.y, from.x)]
}

import { windingAround, type Place, type Vec } from '@lathica/core/geometry'
import { edgesOf, type Section } from '@lathica/core/section'
import { hitsOnTurned, type SolidMesh } from '@lathica/core/mesh'
import { Vector3, type Ray } from 'three'
import { isCutAway, type CutSpec } from './cutting'

/** What lies under the pointer: a body, the place of its section, and where that is in space. */
export interface Hit {
  readonly body: string
  readonly at: Vec
  readonly t: number
  /** The angle round the axis in radians. */
  readonly angle: number
  /** Of a body that is no full turn, the name of the face, the place in space, and its triangles. */
  readonly face?: string
  readonly place?: Place
  readonly mesh?: SolidMesh
}

interface Pickable {
  readonly id: string
  readonly section: Section
  readonly chord: number
}

/**
 * The nearest thing a ray meets among bodies as they are seen: their surfaces but for what is cut
 * away, and their cut faces.
 * @param ray in the model's space
 */
export function nearestHit(
  bodies: readonly Pickable[],
  ray: Ray,
  cut: CutSpec | undefined,
): Hit | undefined {
  const hits = bodies.flatMap(({ id, section, chord }): Hit[] => {
    const surface = hitsOnTurned(section, ray.origin, ray.direction, chord).find(
      (h) => h.t > 0 && !(cut && isCutAway(cut, h.angle, h.at.x, h.at.y)),
    )
    const cap = cut && capHit(section, ray, cut)
    return [
      ...(surface ? [{ body: id, at: surface.at, t: surface.t, angle: surface.angle }] : []),
      ...(cap ? [{ body: id, ...cap }] : []),
    ]
  })
  return hits.reduce<Hit | undefined>((best, h) => (best && best.t <= h.t ? best : h), undefined)
}

/** Where a ray meets the cut faces of a section. */
function capHit(section: Section, ray: Ray, cut: CutSpec): Omit<Hit, 'body'> | undefined {
  const turned = edgesOf(section).map(({ piece }) => ({ piece, times: 1 }))
  const inside = (at: Vec): boolean => at.y >= 0 && windingAround(at, turned) > 0
  if (cut.kind === 'across') {
    const t = (cut.at - ray.origin.z) / ray.direction.z
    const p = placeAlong(ray, t)
    const at = { x: cut.at, y: Math.hypot(p.x, p.y) }
    return t > 0 && inside(at) ? { at, t, angle: Math.atan2(p.y, p.x) } : undefined
  }
  if (cut.kind === 'beside') {
    const normal = new Vector3(Math.cos(cut.angle), Math.sin(cut.angle), -cut.slope)
    const t = (cut.at - ray.origin.dot(normal)) / ray.direction.dot(normal)
    const p = placeAlong(ray, t)
    const at = { x: p.z, y: Math.hypot(p.x, p.y) }
    return t > 0 && inside(at) ? { at, t, angle: Math.atan2(p.y, p.x) } : undefined
  }
  const found = [cut.from, cut.to].flatMap((angle) => {
    const normal = new Vector3(-Math.sin(angle), Math.cos(angle), 0)
    const t = -ray.origin.dot(normal) / ray.direction.dot(normal)
    const p = placeAlong(ray, t)
    const at = { x: p.z, y: p.x * Math.cos(angle) + p.y * Math.sin(angle) }
    return t > 0 && inside(at) ? [{ at, t, angle }] : []
  })
  return found.sort((a, b) => a.t - b.t)[0]
}

const placeAlong = ({ origin, direction }: Ray, t: number): Place => ({
  x: origin.x + t * direction.x,
  y: origin.y + t * direction.y,
  z: origin.z + t * direction.z,
})

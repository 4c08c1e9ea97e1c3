import { closedMesh, welded } from '@lathica/core/mesh'
import type { LiftedProperties, SolidPlan } from '@lathica/core/solid'

/** So near chords are asked to be, in mm. */
const CHORD = 0.02

/** What is wrong with the picture of a solid that is made without the kernel, if anything is. */
export function pictureFault(plan: SolidPlan, told: LiftedProperties): string | undefined {
  const mesh = closedMesh(plan, CHORD)
  if (!mesh) return undefined
  const { positions, indices } = welded(mesh)
  const at = (v: number): number[] => positions.slice(3 * v, 3 * v + 3)
  const sides = new Map<string, number>()
  let volume = 0
  for (let i = 0; i < indices.length; i += 3) {
    const corners = indices.slice(i, i + 3)
    corners.forEach((from, k) => {
      const to = corners[(k + 1) % 3] ?? from
      const [key, way] = from < to ? [`${from} ${to}`, 1] : [`${to} ${from}`, -1]
      sides.set(key, (sides.get(key) ?? 0) + way)
    })
    const [a = [], b = [], c = []] = corners.map(at)
    const [ax = 0, ay = 0, az = 0] = a
    const [bx = 0, by = 0, bz = 0] = b
    const [cx = 0, cy = 0, cz = 0] = c
    volume += ax * (by * cz - bz * cy) + ay * (bz * cx - bx * cz) + az * (bx * cy - by * cx)
  }
  const open = [...sides.values()].filter((n) => n !== 0).length
  if (open > 0) return `a picture with ${open} open sides of triangles`
  const off = Math.abs(volume / 6 - told.volume)
  return off > CHORD * told.area ? `a picture ${off} mm³ off` : undefined
}

import { closedMesh } from '@lathica/core/mesh'
import type { LiftedProperties, SolidPlan } from '@lathica/core/solid'
import { openSides, volumeWithin } from '../../core/test/support/tight'

/** So near chords are asked to be, in mm. */
const CHORD = 0.02

/** What is wrong with the picture of a solid that is made without the kernel, if anything is. */
export function pictureFault(plan: SolidPlan, told: LiftedProperties): string | undefined {
  const mesh = closedMesh(plan, CHORD)
  if (!mesh) return undefined
  const open = openSides(mesh)
  if (open > 0) return `a picture with ${open} open sides of triangles`
  const off = Math.abs(volumeWithin(mesh) - told.volume)
  return off > CHORD * told.area ? `a picture ${off} mm³ off` : undefined
}

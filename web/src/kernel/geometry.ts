import type { PartState } from '@lathica/core/route'
import type { SolidMesh } from '@lathica/core/mesh'
import { bodyPlans, type BuiltGeometry } from '@lathica/core/formats'
import type { Answer } from './answers'
import { buildSolid, writeSolids } from './client'

/** What a part's files take of the kernel: triangles within a tolerance in mm, and the exchange file. */
export async function geometryFor(
  state: PartState,
  tolerance: number,
): Promise<Answer<BuiltGeometry>> {
  const plans = bodyPlans(state)
  const meshes = new Map<string, SolidMesh>()
  for (const { bodyId, plan } of plans) {
    if (plan.ops.length === 0) continue
    const answer = await buildSolid(plan, tolerance)
    if (!answer.ok) return answer
    meshes.set(bodyId, answer.value.mesh)
  }
  const step = await writeSolids(plans, state.part.name)
  return step.ok ? { ok: true, value: { meshes, step: step.value } } : step
}

import { threadCuts } from '../notes'
import { materialOf } from '../inspect'
import { latheMesh, threadedMesh, type SolidMesh } from '../mesh'
import type { Look, Part } from '../part'
import type { BodyState, PartState } from '../route'
import type { SolidPlan } from '../solid'

/** Triangles as files take them. */
export type Triangles = Pick<SolidMesh, 'positions' | 'normals' | 'indices'>

/** A body as files of triangles take it. */
export interface MeshedBody {
  readonly name: string
  /** as #rrggbb */
  readonly colour: string
  readonly look: Look
  readonly mesh: Triangles
}

/** What the solid kernel made of a part for its files. */
export interface BuiltGeometry {
  /** Triangles of the bodies that are no full turn, by body. */
  readonly meshes: ReadonlyMap<string, Triangles>
  /** The exchange file of all bodies. */
  readonly step: string | undefined
}

/** A body as the kernel builds it, with its name and colour. */
export interface BodyPlan {
  readonly bodyId: string
  readonly name: string
  /** as #rrggbb */
  readonly colour: string
  readonly plan: SolidPlan
}

/** Whether some body is no full turn, so that its files take the solid kernel. */
export const needsKernel = ({ bodies }: PartState): boolean =>
  bodies.some((b) => b.plan && !b.reference)

const withMaterial = ({ bodies }: PartState): BodyState[] =>
  bodies.filter((b) => !b.reference && (b.plan !== undefined || b.section.regions.length > 0))

function dressOf(part: Part, bodyId: string): Omit<MeshedBody, 'mesh'> {
  const body = part.bodies.find((b) => b.id === bodyId)
  const material = materialOf(part, bodyId)
  return {
    name: body?.name ?? bodyId,
    colour: body?.colour || (material?.colour ?? '#8d979d'),
    look: body?.look || (material?.look ?? 'metal'),
  }
}

/** Every body that has material as a plan, full turns too. */
export const bodyPlans = (state: PartState): BodyPlan[] =>
  withMaterial(state).map(({ bodyId, section, plan }) => {
    const { name, colour } = dressOf(state.part, bodyId)
    return { bodyId, name, colour, plan: plan ?? { base: section, ops: [] } }
  })

/** The plans of some bodies, in the order of their ids. */
export function plansCalled(state: PartState, ids: readonly string[]): SolidPlan[] {
  const all = bodyPlans(state)
  return ids.flatMap((id) => all.find((b) => b.bodyId === id)?.plan ?? [])
}

/**
 * The bodies of a part that have material, as triangles within a tolerance in mm. Of those that are no
 * full turn it takes what the kernel built; these have plain threads, also where the others are cut.
 */
export function meshedBodies(
  state: PartState,
  tolerance: number,
  built?: BuiltGeometry,
  cutsThreads = false,
): MeshedBody[] {
  const threads = cutsThreads ? threadCuts(state) : []
  return withMaterial(state).flatMap(({ bodyId, section, plan }) => {
    const own = threads.filter((t) => t.body === bodyId)
    const mesh = plan
      ? built?.meshes.get(bodyId)
      : own.length > 0
        ? threadedMesh(section, tolerance, own)
        : latheMesh(section, tolerance)
    return mesh ? [{ ...dressOf(state.part, bodyId), mesh }] : []
  })
}

/** How many threads of a part can be cut into its triangles, and how many stay plain on what is no full turn. */
export function threadsToCut(state: PartState): { readonly cut: number; readonly plain: number } {
  const all = threadCuts(state)
  const isLifted = (body: string): boolean =>
    state.bodies.some((b) => b.bodyId === body && b.plan !== undefined)
  const plain = all.filter((t) => isLifted(t.body)).length
  return { cut: all.length - plain, plain }
}

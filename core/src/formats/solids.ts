import { materialOf } from '../inspect'
import { latheMesh, type SolidMesh } from '../mesh'
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

/**
 * The bodies of a part that have material, as triangles within a tolerance in mm. Of those that are no
 * full turn it takes what the kernel built.
 */
export function meshedBodies(
  state: PartState,
  tolerance: number,
  built?: BuiltGeometry,
): MeshedBody[] {
  return withMaterial(state).flatMap(({ bodyId, section, plan }) => {
    const mesh = plan ? built?.meshes.get(bodyId) : latheMesh(section, tolerance)
    return mesh ? [{ ...dressOf(state.part, bodyId), mesh }] : []
  })
}

/** A mesh whose equal places are one vertex, as files that must be watertight want it. */
export interface WeldedMesh {
  /** x, y, z per vertex in mm */
  readonly positions: readonly number[]
  /** three vertices per triangle */
  readonly indices: readonly number[]
}

/** Joins vertices at equal places; triangles that shrink to less than three are left out. */
export function welded({
  positions,
  indices,
}: Pick<Triangles, 'positions' | 'indices'>): WeldedMesh {
  const known = new Map<string, number>()
  const places: number[] = []
  const renamed: number[] = []
  for (let v = 0; v < positions.length; v += 3) {
    const place = [0, 1, 2].map((k) => positions[v + k] ?? 0)
    const key = place.map((x) => (x === 0 ? 0 : x)).join(' ')
    const found = known.get(key) ?? known.size
    if (!known.has(key)) {
      known.set(key, found)
      places.push(...place)
    }
    renamed.push(found)
  }
  const triangles: number[] = []
  for (let i = 0; i < indices.length; i += 3) {
    const [a = 0, b = 0, c = 0] = [0, 1, 2].map((k) => renamed[indices[i + k] ?? 0] ?? 0)
    if (a !== b && b !== c && c !== a) triangles.push(a, b, c)
  }
  return { positions: places, indices: triangles }
}

import { fail, succeed } from '../../result'
import { newBody, type ImportStep, type Part } from '../../part'
import { LARGEST_PACKED, packMesh, type BareMesh } from '../../solid'
import type { Command } from '../command'
import { addStep } from './routeEdits'

/** A mesh that is brought into a part, under its own name and in its own colour if it has them. */
export interface BroughtMesh extends BareMesh {
  readonly name: string
  readonly colour: string
}

/** A solid of an exchange file (ISO 10303-21), packed, and where it stands in the part. */
export type BroughtSolid = Pick<
  ImportStep,
  'file' | 'solid' | 'frame' | 'from' | 'to' | 'radius' | 'inner' | 'outline' | 'planes'
>

/** Puts meshes into the part, each as a body to go by. */
export function bringMeshes(meshes: readonly BroughtMesh[]): Command {
  return {
    label: meshes.length === 1 ? 'bring in a mesh' : `bring in ${meshes.length} meshes`,
    run(part) {
      let here = part
      for (const mesh of meshes) {
        const packed = packMesh(mesh)
        if (packed.length > LARGEST_PACKED) {
          return fail(
            'mesh.kept',
            `${mesh.name} is too large to be kept in a part.`,
            'Write it with a coarser tolerance.',
          )
        }
        const [id, grown] = withBody(here, mesh.name, { colour: mesh.colour, reference: true })
        const placing = { lies: 'z', scale: '', along: '', turn: '' } as const
        const put = addStep({ kind: 'mesh', body: id, mesh: packed, ...placing }).run(grown)
        if (!put.ok) return put
        here = put.value
      }
      return succeed(here)
    },
  }
}

/** Puts solids of an exchange file into the part as they are, each as a body. */
export function bringSolids(solids: readonly BroughtSolid[], name: string): Command {
  return {
    label: solids.length === 1 ? 'bring in a solid' : `bring in ${solids.length} solids`,
    run(part) {
      let here = part
      for (const solid of solids) {
        const [body, grown] = withBody(here, name, {})
        const put = addStep({ kind: 'import', body, ...solid }).run(grown)
        if (!put.ok) return put
        here = put.value
      }
      return succeed(here)
    },
  }
}

/** The part with one more body, its name told apart from those that are there. */
function withBody(
  part: Part,
  name: string,
  state: { readonly colour?: string; readonly reference?: boolean },
): readonly [string, Part] {
  const names = new Set(part.bodies.map((b) => b.name))
  const wanted = name.trim().slice(0, 70) || 'body'
  let own = wanted
  for (let n = 2; names.has(own); n++) own = `${wanted} ${n}`
  const id = `body${part.nextId}`
  const body = { ...newBody(id, own, part.bodies[0]?.material ?? ''), ...state }
  return [id, { ...part, nextId: part.nextId + 1, bodies: [...part.bodies, body] }]
}

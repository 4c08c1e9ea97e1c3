import {
  creased,
  meshInPart,
  partFromMeshes,
  readMeshes,
  type ForeignMesh,
  type PlacedMesh,
  type Result,
  type SolidMesh,
} from '@lathica/core'
import { expose, transfer } from 'comlink'

/** Meshes are read and dressed in a thread of their own: large ones take a while. */
const threads = {
  read(bytes: Uint8Array, name: string): Result<readonly ForeignMesh[]> {
    const meshes = readMeshes(bytes, name)
    if (!meshes.ok) return meshes
    const buffers = meshes.value.flatMap((m) => [m.positions.buffer, m.indices.buffer])
    return transfer(meshes, buffers)
  },
  part: (bytes: Uint8Array, name: string) => partFromMeshes(bytes, name),
  dressed(placed: PlacedMesh): SolidMesh {
    const mesh = creased(meshInPart(placed))
    const { positions, normals, indices, edges } = mesh
    return transfer(mesh, [positions.buffer, normals.buffer, indices.buffer, edges.buffer])
  },
}

export type MeshThread = typeof threads

expose(threads)

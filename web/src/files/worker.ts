import {
  creased,
  meshBends,
  meshInPart,
  partFromMeshes,
  readMeshes,
  type ForeignMesh,
  type PlacedMesh,
  type Result,
  type SolidMesh,
} from '@lathica/core'
import { expose, transfer } from 'comlink'
import { buffersOf } from '../kernel/buffers'

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
    const dressed = { ...mesh, bends: meshBends(mesh) }
    return transfer(dressed, buffersOf(dressed))
  },
}

export type MeshThread = typeof threads

expose(threads)

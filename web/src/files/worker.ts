import type { Result } from '@lathica/core/result'
import { meshInPart, type PlacedMesh } from '@lathica/core/solid'
import { partFromMeshes } from '@lathica/core/recover'
import { creased, meshBends, type SolidMesh } from '@lathica/core/mesh'
import { readMeshes, type ForeignMesh } from '@lathica/core/formats'
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

import type { Result } from '@lathica/core/result'
import type { PlacedMesh } from '@lathica/core/solid'
import type { BroughtPart } from '@lathica/core/recover'
import type { SolidMesh } from '@lathica/core/mesh'
import type { ForeignMesh } from '@lathica/core/formats'
import { wrap, type Remote } from 'comlink'
import type { MeshThread } from './worker'

let thread: Remote<MeshThread> | undefined

function remote(): Remote<MeshThread> {
  thread ??= wrap<MeshThread>(
    new Worker(new URL('./worker.ts', import.meta.url), { type: 'module' }),
  )
  return thread
}

/** The meshes of an STL or 3MF file. */
export const readMeshFile = (
  bytes: Uint8Array,
  name: string,
): Promise<Result<readonly ForeignMesh[]>> => remote().read(bytes, name)

/** A part with the meshes of a file to go by. */
export const partOfMeshes = (bytes: Uint8Array, name: string): Promise<Result<BroughtPart>> =>
  remote().part(bytes, name)

/** A placed mesh as it is shown. */
export const dressedMesh = (placed: PlacedMesh): Promise<SolidMesh> => remote().dressed(placed)

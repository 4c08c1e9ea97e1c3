import type { SolidMesh } from '@lathica/core/mesh'

/** What of a mesh is handed from thread to thread without being copied. */
export const buffersOf = ({
  positions,
  normals,
  indices,
  edges,
  bends,
}: SolidMesh): ArrayBufferLike[] => [
  ...[positions.buffer, normals.buffer, indices.buffer, edges.buffer],
  ...(bends ? [bends.places.buffer, bends.normals.buffer] : []),
]

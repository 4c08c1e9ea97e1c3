import { fail, succeed, type Result } from '../result'
import { MOST_TRIANGLES } from '../solid'
import type { ForeignMesh } from './foreignMesh'
import { THINNER, tooManyTriangles } from './tooMany'
import { read3mf } from './read3mf'
import { readStl } from './readStl'

/** Larger files are refused before they are read, in bytes. */
export const LARGEST_MESH_FILE = 60_000_000

/** More meshes than this in one file are refused: each becomes a body. */
const MOST_MESHES = 40

/**
 * The meshes of an STL file, binary or text, or of a 3MF file (3MF Core Specification 1.3), in mm.
 * STL knows no unit; its numbers are taken as mm.
 * @param name of the file, with its ending
 */
export function readMeshes(bytes: Uint8Array, name: string): Result<readonly ForeignMesh[]> {
  if (bytes.length > LARGEST_MESH_FILE) {
    return fail('mesh.large', 'This file is too large for a mesh to go by.', THINNER)
  }
  const isZip = bytes[0] === 0x50 && bytes[1] === 0x4b
  const read = isZip ? read3mf(bytes) : readStl(bytes, name.replace(/\.[^.]*$/, ''))
  if (!read.ok) return read
  const meshes = read.value.filter((m) => m.indices.length > 0)
  if (meshes.length === 0) {
    return fail('mesh.empty', 'This file holds no triangles.', 'Write it again from its source.')
  }
  if (meshes.length > MOST_MESHES) {
    return fail(
      'mesh.many',
      `This file holds ${meshes.length} meshes; at most ${MOST_MESHES} are taken.`,
      'Write it with fewer of them.',
    )
  }
  const triangles = meshes.reduce((sum, m) => sum + m.indices.length / 3, 0)
  if (triangles > MOST_TRIANGLES) return tooManyTriangles(triangles)
  if (meshes.some((m) => !m.positions.every(Number.isFinite))) {
    return fail('mesh.numbers', 'A place in this file is no number.', 'Write it again.')
  }
  return succeed(meshes)
}

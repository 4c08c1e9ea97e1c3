import { bringMeshes, perform } from '../edit'
import { readMeshes } from '../formats'
import { createPart, type Part } from '../part'
import { succeed, type Result } from '../result'

/** What came of a file that was brought in: a part, and a sentence on it. */
export interface BroughtPart {
  readonly part: Part
  readonly words: string
}

/**
 * A part with the meshes of an STL or 3MF file to go by, ready to be drawn beside them.
 * @param fileName with its ending
 */
export function partFromMeshes(bytes: Uint8Array, fileName: string): Result<BroughtPart> {
  const read = readMeshes(bytes, fileName)
  if (!read.ok) return read
  const name = plainName(fileName)
  const made = perform(createPart({ name }), bringMeshes(read.value))
  if (!made.ok) return made
  const triangles = read.value.reduce((sum, m) => sum + m.indices.length / 3, 0)
  return succeed({ part: made.value, words: `${triangles} triangles stand there to go by.` })
}

/** Files that hold triangles, by their names. */
export const isMeshFile = (fileName: string): boolean => /\.(stl|3mf)$/i.test(fileName)

/** Files that hold solids or triangles, by their names. */
export const isForeignFile = (fileName: string): boolean =>
  isMeshFile(fileName) || /\.(step|stp)$/i.test(fileName)

/** What a part from a file is called: the file's name without its ending. */
export const plainName = (fileName: string): string => fileName.replace(/\.[^.]*$/, '').slice(0, 80)

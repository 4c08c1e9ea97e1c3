import { perform, renamePart } from '@lathica/core/edit'
import type { Part } from '@lathica/core/part'
import { partFromForeign } from '../files/bringIn'
import { keepReport } from '../files/report'

export { readPart, readPartFile, toDocument, writePartFile } from '@lathica/core/formats'
export { isForeignFile } from '@lathica/core/recover'

/** The same part once more, under a name of its own. */
export function copied(part: Part): Part | undefined {
  const copy = perform(part, renamePart(`${part.name.slice(0, 70)} (copy)`))
  return copy.ok ? copy.value : undefined
}

/**
 * A part from solids or meshes that came from elsewhere; what came of it is kept as a report.
 * @param create puts it on the shelf and tells its id, if it can
 */
export async function importForeign(
  file: File,
  create: (part: Part) => Promise<string | undefined>,
): Promise<{ readonly id: string; readonly words: string } | undefined> {
  const made = await partFromForeign(file)
  const id = made && (await create(made.part))
  if (!made || id === undefined) return undefined
  if (made.solids.length > 0) keepReport({ part: id, fileName: file.name, solids: made.solids })
  return { id, words: made.words }
}

import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import type { Part } from '@lathica/core/part'
import { readPartFile } from '@lathica/core/formats'

/** A part of the demo project. */
export function demoPart(name: string): Part {
  const file = join(import.meta.dirname, '..', 'demo', `${name}.lathica.json`)
  const read = readPartFile(readFileSync(file, 'utf8'))
  if (!read.ok) throw new Error(read.problem.message)
  return read.value
}

/** A document that says which it is. */
export const marked = (part: Part, mark: string): object =>
  JSON.parse(JSON.stringify({ ...part, name: mark })) as object

import { readdirSync, readFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { readPartFile } from '../../src/formats'
import type { Part } from '../../src/part'

const FOLDER = join(dirname(fileURLToPath(import.meta.url)), '../../../demo')
const END = '.lathica.json'

/**
 * The demo parts by name, as their files in the repository are: making them anew takes a second. That both are the same
 * is tested with the command line.
 */
export const demoNames: readonly string[] = readdirSync(FOLDER).map((file) => file.replace(END, ''))

/** The part file of a demo part. */
export const demoText = (name: string): string => readFileSync(join(FOLDER, name + END), 'utf8')

/** A demo part. @param change of its file before it is read */
export function demoPart(name: string, change: (text: string) => string = (text) => text): Part {
  const read = readPartFile(change(demoText(name)))
  if (!read.ok) throw new Error(read.problem.message)
  return read.value
}

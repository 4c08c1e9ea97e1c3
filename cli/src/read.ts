import { readFile, stat } from 'node:fs/promises'
import type { Part } from '@lathica/core/part'
import type { PartReport } from '@lathica/core/inspect'
import { LARGEST_PART_FILE, readPartFile } from '@lathica/core/formats'
import { EXIT, Stop } from './exit'

/** Reads a part file from disk. Throws a stop that says why it cannot be read. */
export async function readPartAt(path: string): Promise<Part> {
  const read = readPartFile(await textOf(path, LARGEST_PART_FILE, 'a part'))
  if (read.ok) return read.value
  throw new Stop(EXIT.unreadable, `${path}: ${read.problem.message} ${read.problem.mend}`)
}

/** @param most bytes it may have; @param what it then is too large for */
export const textOf = async (path: string, most: number, what: string): Promise<string> =>
  (await bytesOf(path, most, what)).toString('utf8')

/** The same, as bytes. */
export async function bytesOf(path: string, most: number, what: string): Promise<Buffer> {
  try {
    // Looked at first, so that a huge file is never taken into memory.
    const { size } = await stat(path)
    if (size > most) {
      throw new Stop(EXIT.unreadable, `${path}: This file is too large for ${what}.`)
    }
    return await readFile(path)
  } catch (error) {
    if (error instanceof Stop) throw error
    const { code } = error as NodeJS.ErrnoException
    const reason = code === 'ENOENT' ? 'There is no such file.' : 'This file cannot be read.'
    throw new Stop(EXIT.unreadable, `${path}: ${reason}`)
  }
}

/** Whether everything in a part holds: no step fails, no sketch conflicts, no value lacks a result. */
export function isSound(report: PartReport): boolean {
  return (
    report.steps.every((s) => s.status !== 'failed') &&
    report.sketches.every((s) => s.conflicts.length === 0) &&
    report.values.every((v) => v.problem === '')
  )
}

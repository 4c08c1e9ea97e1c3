import { basename } from 'node:path'
import { evaluate, type PartState } from '@lathica/core/route'
import {
  isMeshFile,
  partFromMeshes,
  plainName,
  recoveredWords,
  type BroughtPart,
} from '@lathica/core/recover'
import { reportOf } from '@lathica/core/inspect'
import { LARGEST_MESH_FILE, writePartFile } from '@lathica/core/formats'
import { KernelFault, loadKernel, partFromFile, settlePlans } from '@lathica/kernel'
import { EXIT, Stop, type Streams } from './exit'
import { bytesOf, isSound, textOf } from './read'
import { writeOut } from './write'

/** Larger files are refused before they are read. */
const LARGEST_FILE = 20_000_000

/** Makes a part file of an exchange file, with the half-section of what is turned, or of meshes to go by. */
export async function importPart(
  path: string,
  output: string | undefined,
  streams: Streams,
): Promise<number> {
  if (output === undefined) throw new Stop(EXIT.usage, 'Name the output with -o OUT.')
  const { part, words, state } = await (isMeshFile(path) ? fromMeshes(path) : fromSolids(path))
  await writeOut(output, writePartFile(part), streams)
  streams.stderr.write(`${words}\n`)
  return isSound(reportOf(state())) ? EXIT.well : EXIT.unsound
}

interface Imported extends BroughtPart {
  /** The part's state with all figures. */
  readonly state: () => PartState
}

async function fromMeshes(path: string): Promise<Imported> {
  const bytes = await bytesOf(path, LARGEST_MESH_FILE, 'a mesh')
  const made = partFromMeshes(bytes, basename(path))
  if (!made.ok) throw unreadable(path, made.problem)
  return { ...made.value, state: () => evaluate(made.value.part) }
}

async function fromSolids(path: string): Promise<Imported> {
  const text = await textOf(path, LARGEST_FILE, 'an exchange file')
  const kernel = await loadKernel()
  try {
    const recovered = partFromFile(kernel, text, plainName(basename(path)))
    const { part } = recovered
    return {
      part,
      words: recoveredWords(recovered),
      state: () => settlePlans(part, (plan) => kernel.weigh(plan)),
    }
  } catch (error) {
    if (!(error instanceof KernelFault)) throw error
    throw unreadable(path, error)
  }
}

const unreadable = (path: string, { message, mend }: { message: string; mend: string }): Stop =>
  new Stop(EXIT.unreadable, `${path}: ${message} ${mend}`)

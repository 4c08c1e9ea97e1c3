import { basename } from 'node:path'
import {
  LARGEST_MESH_FILE,
  bringMeshes,
  createPart,
  perform,
  readMeshes,
  recoveredWords,
  reportOf,
  writePartFile,
  type Part,
} from '@lathica/core'
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
  const name = basename(path)
    .replace(/\.[^.]*$/, '')
    .slice(0, 80)
  const { part, words, settle } = /\.(stl|3mf)$/i.test(path)
    ? await fromMeshes(path, name)
    : await fromSolids(path, name)
  await writeOut(output, writePartFile(part), streams)
  streams.stderr.write(`${words}\n`)
  settle(part)
  return isSound(reportOf(part)) ? EXIT.well : EXIT.unsound
}

interface Imported {
  readonly part: Part
  readonly words: string
  readonly settle: (part: Part) => void
}

async function fromMeshes(path: string, name: string): Promise<Imported> {
  const bytes = await bytesOf(path, LARGEST_MESH_FILE, 'a mesh')
  const read = readMeshes(bytes, basename(path))
  if (!read.ok) throw unreadable(path, read.problem)
  const made = perform(createPart({ name }), bringMeshes(read.value))
  if (!made.ok) throw unreadable(path, made.problem)
  const triangles = read.value.reduce((sum, m) => sum + m.indices.length / 3, 0)
  return {
    part: made.value,
    words: `${triangles} triangles stand there to go by.`,
    settle: () => undefined,
  }
}

async function fromSolids(path: string, name: string): Promise<Imported> {
  const text = await textOf(path, LARGEST_FILE, 'an exchange file')
  const kernel = await loadKernel()
  try {
    const recovered = partFromFile(kernel, text, name)
    return {
      part: recovered.part,
      words: recoveredWords(recovered),
      settle: (part) => settlePlans(part, (plan) => kernel.weigh(plan)),
    }
  } catch (error) {
    if (!(error instanceof KernelFault)) throw error
    throw unreadable(path, error)
  }
}

const unreadable = (path: string, { message, mend }: { message: string; mend: string }): Stop =>
  new Stop(EXIT.unreadable, `${path}: ${message} ${mend}`)

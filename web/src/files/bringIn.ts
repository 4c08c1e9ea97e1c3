import type { Problem } from '@lathica/core/result'
import { bringMeshes, bringSolids, type Command } from '@lathica/core/edit'
import {
  isForeignFile,
  isMeshFile,
  plainName,
  recoveredWords,
  type BroughtPart,
  type RecoveredSolid,
} from '@lathica/core/recover'
import { LARGEST_MESH_FILE } from '@lathica/core/formats'
import { Button, message } from 'ant-design-vue'
import { h } from 'vue'
import { tell, tellProblem } from '../notices'
import { useBoardStore } from '../store/board'
import { usePartStore } from '../store/part'
import { choose } from './choose'
import { FOREIGN_FILES } from './kinds'

type Read<T> = { readonly ok: true; readonly value: T } | { readonly ok: false; problem: Problem }

/** What a reading tells of how far it has come, and what ends it. */
interface Reading {
  readonly tell: (words: string) => void
  readonly stop: AbortSignal
}

/**
 * Reads a file while a line says how far it has come, and can be stopped there; what is against it is told, with the
 * name of the file.
 */
async function reading<T>(
  file: File,
  read: (reading: Reading) => Promise<Read<T>>,
): Promise<T | undefined> {
  const key = `reading-${file.name}`
  const stopping = new AbortController()
  const show = (words: string): void => {
    const stop = h(Button, { size: 'small', onClick: () => stopping.abort() }, () => 'Stop')
    const content = h('span', { class: 'reading' }, [`${file.name}: ${words} … `, stop])
    void message.loading({ key, content, duration: 0 })
  }
  show('reading')
  const answer = await read({ tell: show, stop: stopping.signal }).finally(() =>
    message.destroy(key),
  )
  if (answer.ok) return answer.value
  if (stopping.signal.aborted) tell(`${file.name} was not brought in.`)
  else tellProblem({ ...answer.problem, message: `${file.name}: ${answer.problem.message}` })
  return undefined
}

const bytesOf = async (file: File): Promise<Uint8Array> => new Uint8Array(await file.arrayBuffer())

/** Looked at first, so that a huge file is never taken into memory. */
const tooLarge: Read<never> = {
  ok: false,
  problem: {
    ...{ code: 'mesh.large', message: 'this file is too large for a mesh to go by.' },
    mend: 'Write it with a coarser tolerance.',
  },
}

/** What puts the meshes of a file into a part as bodies to go by. */
async function meshesOf(file: File): Promise<Read<Command>> {
  if (file.size > LARGEST_MESH_FILE) return tooLarge
  const { readMeshFile } = await import('./meshes')
  const read = await readMeshFile(await bytesOf(file), file.name)
  return read.ok ? { ok: true, value: bringMeshes(read.value) } : read
}

/** A part that was made of a file, and what became of each of its solids. */
export interface ForeignPart extends BroughtPart {
  /** None of a file of triangles. */
  readonly solids: readonly RecoveredSolid[]
}

/** A part from solids or meshes that came from elsewhere, and what came of it in words. */
export async function partFromForeign(file: File): Promise<ForeignPart | undefined> {
  if (!isMeshFile(file.name)) {
    const recovered = await reading(file, async ({ tell: show, stop }) => {
      const { bringIn } = await import('../kernel/client')
      const told = ({ words }: { readonly words: string }): void => show(words)
      return bringIn(await file.text(), plainName(file.name), told, stop)
    })
    return recovered && { ...recovered, words: recoveredWords(recovered) }
  }
  const made = await reading<BroughtPart>(file, async () => {
    const { partOfMeshes } = await import('./meshes')
    return file.size > LARGEST_MESH_FILE ? tooLarge : partOfMeshes(await bytesOf(file), file.name)
  })
  return made && { ...made, solids: [] }
}

/** Puts what a file holds into the open part: solids as bodies, triangles as bodies to go by. */
export async function bringIntoPart(file: File): Promise<void> {
  const parts = usePartStore()
  const { id } = parts
  if (!isForeignFile(file.name)) {
    tellProblem({
      message: `${file.name} is no file of solids or triangles.`,
      mend: 'Choose a STEP, STL or 3MF file; part files go onto the shelf.',
    })
    return
  }
  const command = await reading(file, async (): Promise<Read<Command>> => {
    if (isMeshFile(file.name)) return meshesOf(file)
    const { solidsOf } = await import('../kernel/client')
    const solids = await solidsOf(await file.text())
    return solids.ok ? { ok: true, value: bringSolids(solids.value, plainName(file.name)) } : solids
  })
  // Another part may have been opened meanwhile.
  if (!command || parts.id !== id || !parts.run(command)) return
  useBoardStore().fit()
  tell(`${file.name} was brought in: ${isMeshFile(file.name) ? 'to go by' : 'as it came'}.`)
}

/** Lets the designer choose files to bring in. */
export const chooseFiles = (): void => choose(FOREIGN_FILES, bringIntoPart, true)

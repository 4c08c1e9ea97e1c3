import {
  LARGEST_MESH_FILE,
  bringMeshes,
  bringSolids,
  createPart,
  perform,
  recoveredWords,
  type Command,
  type Part,
  type Problem,
} from '@lathica/core'
import { message } from 'ant-design-vue'
import { tell, tellProblem } from '../notices'
import { usePartStore } from '../store/part'

/** Files of solids and of triangles that can be brought in. */
export const FOREIGN_FILES = '.step,.stp,.stl,.3mf'

export const isForeign = ({ name }: File): boolean => /\.(step|stp|stl|3mf)$/i.test(name)
const isMesh = ({ name }: File): boolean => /\.(stl|3mf)$/i.test(name)
const plainName = ({ name }: File): string => name.replace(/\.[^.]*$/, '').slice(0, 80)

type Read<T> = { readonly ok: true; readonly value: T } | { readonly ok: false; problem: Problem }

/** Reads a file while a line says so; what is against it is told, with the name of the file. */
async function reading<T>(file: File, read: () => Promise<Read<T>>): Promise<T | undefined> {
  const key = `reading-${file.name}`
  void message.loading({ key, content: `Reading ${file.name} …`, duration: 0 })
  const answer = await read().finally(() => message.destroy(key))
  if (answer.ok) return answer.value
  tellProblem({ ...answer.problem, message: `${file.name}: ${answer.problem.message}` })
  return undefined
}

/** What puts the meshes of a file into a part as bodies to go by. */
async function meshesOf(file: File): Promise<Read<Command>> {
  if (file.size > LARGEST_MESH_FILE) {
    const [code, message] = ['mesh.large', 'this file is too large for a mesh to go by.']
    return { ok: false, problem: { code, message, mend: 'Write it with a coarser tolerance.' } }
  }
  const { readMeshFile } = await import('./meshes')
  const read = await readMeshFile(new Uint8Array(await file.arrayBuffer()), file.name)
  return read.ok ? { ok: true, value: bringMeshes(read.value) } : read
}

/** A part from solids or meshes that came from elsewhere, and what came of it in words. */
export async function partFromFile(
  file: File,
): Promise<{ readonly part: Part; readonly words: string } | undefined> {
  if (!isMesh(file)) {
    const recovered = await reading(file, async () => {
      const { bringIn } = await import('../kernel/client')
      return bringIn(await file.text(), plainName(file))
    })
    return recovered && { part: recovered.part, words: recoveredWords(recovered) }
  }
  return reading(file, async () => {
    const command = await meshesOf(file)
    if (!command.ok) return command
    const made = perform(createPart({ name: plainName(file) }), command.value)
    if (!made.ok) return made
    return { ok: true, value: { part: made.value, words: 'Its triangles stand there to go by.' } }
  })
}

/** Puts what a file holds into the open part: solids as bodies, triangles as bodies to go by. */
export async function bringIntoPart(file: File): Promise<void> {
  const parts = usePartStore()
  const { id } = parts
  if (!isForeign(file)) {
    tellProblem({
      message: `${file.name} is no file of solids or triangles.`,
      mend: 'Choose a STEP, STL or 3MF file; part files go onto the shelf.',
    })
    return
  }
  const command = await reading(file, async (): Promise<Read<Command>> => {
    if (isMesh(file)) return meshesOf(file)
    const { solidsOf } = await import('../kernel/client')
    const solids = await solidsOf(await file.text())
    return solids.ok ? { ok: true, value: bringSolids(solids.value, plainName(file)) } : solids
  })
  // Another part may have been opened meanwhile.
  if (!command || parts.id !== id || !parts.run(command)) return
  tell(`${file.name} was brought in: ${isMesh(file) ? 'to go by' : 'as it came'}.`)
}

/** Lets the designer choose files to bring in. */
export function chooseFiles(): void {
  const input = document.createElement('input')
  Object.assign(input, { type: 'file', accept: FOREIGN_FILES, multiple: true })
  input.addEventListener('change', () => {
    void (async () => {
      for (const file of input.files ?? []) await bringIntoPart(file)
    })()
  })
  input.click()
}

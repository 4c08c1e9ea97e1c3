import type { Part } from '@lathica/core/part'
import { onBeforeUnmount, ref, shallowRef } from 'vue'
import { ApiError, api } from '../api/client'
import type { PartCard, ProjectCard } from '@lathica/core/wire'
import { saveFile } from '../dispatch/saveFile'
import { tell, tellProblem } from '../notices'
import { offerBack } from '../offerBack'
import { tellDeleted } from '../store/told'
import { NOT_FETCHED } from '../ui/later'
import type { Problem } from '@lathica/core/result'

/** How often, and after how long in ms, the shelf looks for masses that were not told yet. */
const MOST_LOOKS = 10
const LOOK_AGAIN = 3000

/** What is done with parts themselves is loaded when the first of it is asked for: the shelf is seen without it. */
const partFiles = () =>
  import('./partFiles').catch(() => {
    throw new ApiError(0, NOT_FETCHED)
  })

/** Whether more will be told of a part than is known now. */
const isUnfinished = ({ damaged, summary }: PartCard): boolean =>
  !damaged && (summary === null || summary.overall?.mass === null)

/** The projects and parts one starts from, and what can be done with them. */
export function useShelf() {
  const projects = shallowRef<readonly ProjectCard[]>([])
  const loading = ref(true)
  const problem = shallowRef<Problem>()

  /** Runs a request; what the server says against it is told. */
  async function ask<T>(request: () => Promise<T>): Promise<T | undefined> {
    try {
      return await request()
    } catch (error) {
      if (!(error instanceof ApiError)) throw error
      tellProblem(error.problem)
      return undefined
    }
  }

  async function load(): Promise<void> {
    try {
      projects.value = await api.projects()
      problem.value = undefined
      lookAgain()
    } catch (error) {
      if (!(error instanceof ApiError)) throw error
      problem.value = error.problem
    } finally {
      loading.value = false
    }
  }

  /** Pictures of what was just saved, and masses that take the solid kernel, come later; they are looked for a few times. */
  let looks = 0
  let timer: ReturnType<typeof setTimeout> | undefined
  function lookAgain(): void {
    const open = projects.value.some((p) => p.parts.some(isUnfinished))
    if (!open || looks >= MOST_LOOKS) return
    looks += 1
    clearTimeout(timer)
    timer = setTimeout(() => void load(), LOOK_AGAIN)
  }
  onBeforeUnmount(() => clearTimeout(timer))

  async function createProject(name: string): Promise<void> {
    if (await ask(() => api.createProject(name))) await load()
  }

  async function renameProject(id: string, name: string): Promise<void> {
    await ask(() => api.renameProject(id, name))
    await load()
  }

  async function createPart(projectId: string, part: Part): Promise<string | undefined> {
    const made = await ask(async () => {
      const { toDocument } = await partFiles()
      return api.createPart(projectId, toDocument(part))
    })
    return made?.id
  }

  async function remove(what: string, gone: () => Promise<void>, back: () => Promise<void>) {
    const done = await ask(async () => {
      await gone()
      return true
    })
    if (done !== true) return
    await load()
    offerBack(`“${what}” was deleted.`, async () => {
      await ask(back)
      await load()
    })
  }

  const removePart = (part: PartCard) =>
    remove(
      part.name,
      async () => {
        await api.deletePart(part.id)
        tellDeleted(part.id)
      },
      () => api.restorePart(part.id),
    )

  const removeProject = (project: ProjectCard) =>
    remove(
      project.name,
      () => api.deleteProject(project.id),
      () => api.restoreProject(project.id),
    )

  async function stored(id: string): Promise<Part | undefined> {
    const read = await ask(async () => (await partFiles()).readPart((await api.part(id)).document))
    if (read?.ok) return read.value
    if (read) tellProblem(read.problem)
    return undefined
  }

  async function duplicate(projectId: string, card: PartCard): Promise<void> {
    const part = await stored(card.id)
    const copy = part && (await partFiles()).copied(part)
    if (copy && (await createPart(projectId, copy)) !== undefined) await load()
  }

  async function download(card: PartCard): Promise<void> {
    const part = await stored(card.id)
    if (!part) return
    const { writePartFile } = await partFiles()
    saveFile(writePartFile(part), `${part.name}.lathica.json`, 'application/json')
  }

  /**
   * Reads dropped files; each that cannot be read says why, the others are taken.
   * @returns the part to be looked at, where a single one was made of what came from elsewhere
   */
  async function importFiles(
    projectId: string,
    files: readonly File[],
  ): Promise<string | undefined> {
    const reading = await ask(partFiles)
    if (!reading) return undefined
    const { importForeign, isForeignFile, readPartFile } = reading
    let taken = 0
    let foreign: string | undefined
    for (const file of files) {
      if (isForeignFile(file.name)) {
        const made = await importForeign(file, (part) => createPart(projectId, part))
        if (!made) continue
        await load()
        tell(`${file.name}: ${made.words}`)
        foreign = made.id
        continue
      }
      const read = readPartFile(await file.text())
      if (!read.ok) {
        tellProblem({ ...read.problem, message: `${file.name}: ${read.problem.message}` })
      } else if ((await createPart(projectId, read.value)) !== undefined) taken++
    }
    if (taken > 0) {
      await load()
      tell(taken === 1 ? 'One part was put on the shelf.' : `${taken} parts were put on the shelf.`)
    }
    return files.length === 1 ? foreign : undefined
  }

  return {
    projects,
    loading,
    problem,
    load,
    createProject,
    renameProject,
    createPart,
    removePart,
    removeProject,
    duplicate,
    download,
    importFiles,
  }
}

import { readFile, writeFile } from 'node:fs/promises'
import type { MessagePort } from 'node:worker_threads'
import type { Problem } from '@lathica/core/result'
import type { Part } from '@lathica/core/part'
import { asksToSee, NOTHING_SEEN, type SeenLines } from '@lathica/core/drawing'
import { evaluate, type PartState } from '@lathica/core/route'
import { isMeshFile, partFromMeshes, plainName, recoveredWords } from '@lathica/core/recover'
import {
  EXPORTERS,
  bodyPlans,
  needsKernel,
  readPart,
  toDocument,
  touchWords,
  type Exporter,
} from '@lathica/core/formats'
import {
  KernelFault,
  builtGeometry,
  loadKernel,
  partFromFile,
  seenBy,
  settlePlans,
  type Kernel,
} from '@lathica/kernel'
import { strToU8, zipSync } from 'fflate'
import { HttpProblem } from '../http/problem'
import { NO_ROOM } from '../jobs/room'
import type { JobProgress } from '@lathica/core/wire'
import type { JobFile, JobTask } from '../jobs/types'
import { storable, type PartText } from '../partText'
import { pagesOf } from './pages'

/** A job, and where it tells how far it has come. */
export interface FilesTask {
  readonly job: JobTask
  /** Where a file goes that is written. */
  readonly out: string
  readonly port: MessagePort
}

/** What a job came to. */
export type FilesAnswer =
  | { readonly kind: 'file'; readonly file: JobFile; readonly notes: readonly string[] }
  | { readonly kind: 'part'; readonly part: PartText; readonly words: string }
  | { readonly kind: 'failed'; readonly problem: Problem }

type Tell = (progress: JobProgress) => void

/** Writes parts as files, or makes a part of a file. */
export async function files({ job, out, port }: FilesTask): Promise<FilesAnswer> {
  const tell: Tell = (progress) => port.postMessage(progress)
  try {
    return await (job.kind === 'export' ? written(job, out, tell) : broughtIn(job, tell))
  } catch (error) {
    if (error instanceof KernelFault) return fail(error.problem)
    if (error instanceof HttpProblem) {
      const { code, message, mend } = error
      return fail({ code, message, mend })
    }
    if ((error as NodeJS.ErrnoException).code === 'ENOSPC') return fail(NO_ROOM)
    throw error
  } finally {
    port.close()
  }
}

const fail = (problem: Problem): FilesAnswer => ({ kind: 'failed', problem })

let loaded: Promise<Kernel> | undefined
const kernelAtHand = (): Promise<Kernel> => (loaded ??= loadKernel())

type ExportTask = Extract<JobTask, { kind: 'export' }>
type ImportTask = Extract<JobTask, { kind: 'import' }>

/** Writes a file for each part; several of them are packed together. */
async function written(
  { parts, format, tolerance, name }: ExportTask,
  out: string,
  tell: Tell,
): Promise<FilesAnswer> {
  const exporter = EXPORTERS.find((e) => e.id === format)
  if (!exporter) throw new Error(`there is no format ${format}`)
  const read = parts.flatMap(({ document }) => {
    const part = readPart(JSON.parse(document))
    return part.ok ? [part.value] : []
  })
  if (exporter.pages)
    return writtenPages(read, { ...exporter, pages: exporter.pages }, name, out, tell)
  // A body that takes the kernel is one thing to do, and so is each file.
  const of = read.reduce((sum, part) => sum + 1 + liftedIn(evaluate(part), exporter), 0)
  let done = 0
  const made: Written[] = []
  const notes: string[] = []
  for (const part of read) {
    tell({ done, of, words: `Writing ${part.name}` })
    const file = await fileOf(part, exporter, tolerance, (body) => {
      done++
      tell({ done, of, words: `Writing ${part.name}: ${body} is built` })
    })
    done++
    if (typeof file === 'string') notes.push(`${part.name}: ${file}`)
    else {
      made.push(file)
      notes.push(...file.notes.map((n) => `${part.name}: ${n}`))
    }
  }
  tell({ done: of, of, words: 'Putting the files together' })
  const [only] = made
  if (!only) {
    return fail({
      ...{ code: 'export.nothing', message: 'None of these parts has anything to hand over.' },
      mend: notes[0] ?? 'Turn a profile first.',
    })
  }
  const { name: called, type, content } = read.length === 1 ? only : packed(made, name)
  await writeFile(out, content)
  return { kind: 'file', file: { name: called, type, path: out, size: content.length }, notes }
}

/** Writes the pages of all parts into one file. */
async function writtenPages(
  parts: readonly Part[],
  { pages, extension }: Exporter & Required<Pick<Exporter, 'pages'>>,
  name: string,
  out: string,
  tell: Tell,
): Promise<FilesAnswer> {
  const of = parts.length + 1
  const states: { state: PartState; seen: SeenLines }[] = []
  for (const part of parts) {
    tell({ done: states.length, of, words: `Drawing ${part.name}` })
    states.push(await settledState(part))
  }
  tell({ done: parts.length, of, words: 'Writing the sheets' })
  const title = parts.length === 1 ? (parts[0]?.name ?? name) : name
  const made = pagesOf(states, pages, title)
  if (!made) {
    return fail({
      ...{ code: 'export.nothing', message: 'None of these parts has anything to hand over.' },
      mend: 'Turn a profile first.',
    })
  }
  const { content, notes } = made
  await writeFile(out, content)
  const file = {
    name: `${title}.${extension}`,
    type: 'application/pdf',
    path: out,
    size: content.length,
  }
  return { kind: 'file', file, notes }
}

/** A part with what the kernel tells of it, as far as it can build it. */
async function settledState(part: Part): Promise<{ state: PartState; seen: SeenLines }> {
  const state = evaluate(part)
  if (!needsKernel(state) && asksToSee(state).length === 0) return { state, seen: NOTHING_SEEN }
  const kernel = await kernelAtHand()
  try {
    const settled = settlePlans(
      part,
      (plan) => kernel.weigh(plan),
      (ask) => kernel.measure(ask),
    )
    return { state: settled, seen: seenBy(kernel, settled) }
  } catch (error) {
    if (!(error instanceof KernelFault)) throw error
    return { state, seen: NOTHING_SEEN }
  }
}

/** A file as it is written. */
interface Written {
  readonly name: string
  readonly type: string
  readonly content: Uint8Array
}

interface WrittenPart extends Written {
  /** What is worth saying of it. */
  readonly notes: readonly string[]
}

const liftedIn = (state: PartState, exporter: Exporter): number =>
  exporter.of === 'solids' && needsKernel(state)
    ? bodyPlans(state).filter(({ plan }) => plan.ops.length > 0).length
    : 0

/** The file of a part, or why there is none. */
async function fileOf(
  part: Part,
  exporter: Exporter,
  tolerance: number,
  onBody: (name: string) => void,
): Promise<WrittenPart | string> {
  const lifted = liftedIn(evaluate(part), exporter) > 0
  const isSeen = exporter.drawn === true && asksToSee(evaluate(part)).length > 0
  const kernel = lifted || isSeen ? await kernelAtHand() : undefined
  try {
    const state = kernel ? settlePlans(part, (plan) => kernel.weigh(plan)) : evaluate(part)
    const built = kernel && lifted ? builtGeometry(kernel, state, tolerance, onBody) : undefined
    const settings = {
      ...{ tolerance, at: new Date(), ...(built ? { built } : {}) },
      ...(kernel && isSeen ? { seen: seenBy(kernel, state) } : {}),
    }
    const made = exporter.write(state, settings)
    if (!made.ok) return `${made.problem.message} ${made.problem.mend}`
    const { value } = made
    const content = typeof value === 'string' ? strToU8(value) : value
    const notes = exporter.triangles ? touchWords(state, tolerance, built) : []
    return { name: `${part.name}.${exporter.extension}`, type: exporter.type, content, notes }
  } catch (error) {
    if (!(error instanceof KernelFault)) throw error
    return `${error.message} ${error.mend}`
  }
}

const ENDINGS = EXPORTERS.map((e) => `.${e.extension}`)

/** Several files in one archive, those of one name told apart. */
function packed(files: readonly Written[], name: string): Written {
  const entries: Record<string, Uint8Array> = {}
  const taken = new Set<string>()
  for (const { name: own, content } of files) {
    // Only a kind of file has an ending: a part's own name may have dots in it.
    const plain = own.replace(/[\\/]/g, '-')
    const ending = ENDINGS.find((e) => plain.endsWith(e)) ?? ''
    const stem = plain.slice(0, plain.length - ending.length)
    let unique = plain
    // Some file systems take capitals for small letters.
    for (let n = 2; taken.has(unique.toLowerCase()); n++) unique = `${stem} ${n}${ending}`
    taken.add(unique.toLowerCase())
    entries[unique] = content
  }
  return { name: `${name}.zip`, type: 'application/zip', content: zipSync(entries) }
}

/** Makes a part of a file. */
async function broughtIn({ fileName, path }: ImportTask, tell: Tell): Promise<FilesAnswer> {
  const bytes = await readFile(path)
  if (isMeshFile(fileName)) {
    tell({ done: 1, of: 3, words: `Reading ${fileName}` })
    const made = partFromMeshes(bytes, fileName)
    if (!made.ok) return fail(made.problem)
    return { kind: 'part', part: storable(toDocument(made.value.part)), words: made.value.words }
  }
  tell({ done: 0, of: 3, words: 'Loading the solid kernel' })
  const kernel = await kernelAtHand()
  const text = new TextDecoder().decode(bytes)
  const recovered = partFromFile(kernel, text, plainName(fileName), ({ done, of, words }) =>
    tell({ done, of: of + 1, words: `${fileName}: ${words}` }),
  )
  const part = storable(toDocument(recovered.part))
  return { kind: 'part', part, words: recoveredWords(recovered) }
}

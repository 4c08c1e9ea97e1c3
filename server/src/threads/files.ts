import { parentPort } from 'node:worker_threads'
import {
  EXPORTERS,
  bodyPlans,
  isMeshFile,
  needsKernel,
  partFromMeshes,
  plainName,
  readPart,
  recoveredWords,
  toDocument,
  type Exporter,
  type Part,
  type Problem,
} from '@lathica/core'
import {
  KernelFault,
  builtGeometry,
  loadKernel,
  partFromFile,
  settlePlans,
  type Kernel,
} from '@lathica/kernel'
import { strToU8, zipSync } from 'fflate'
import type { JobAnswer, JobFile, JobTask } from '../jobs/types'

/** The thread that writes and reads files: each job is one message, its answers are several. */
parentPort?.on('message', (task: JobTask) => {
  void (task.kind === 'export' ? written(task) : broughtIn(task)).catch((error: unknown) => {
    if (!(error instanceof KernelFault)) throw error
    tell({ kind: 'failed', problem: error.problem })
  })
})

const tell = (answer: JobAnswer): void => parentPort?.postMessage(answer)
const fail = (problem: Problem): void => tell({ kind: 'failed', problem })

let loaded: Promise<Kernel> | undefined
const kernelAtHand = (): Promise<Kernel> => (loaded ??= loadKernel())

type ExportTask = Extract<JobTask, { kind: 'export' }>
type ImportTask = Extract<JobTask, { kind: 'import' }>

/** Writes a file for each part; several of them are packed together. */
async function written({ parts, format, tolerance, name }: ExportTask): Promise<void> {
  const exporter = EXPORTERS.find((e) => e.id === format)
  if (!exporter) throw new Error(`there is no format ${format}`)
  const read = parts.flatMap(({ document }) => {
    const part = readPart(JSON.parse(document))
    return part.ok ? [part.value] : []
  })
  // A body that takes the kernel is one thing to do, and so is each file.
  const of = read.reduce((sum, part) => sum + 1 + liftedIn(part, exporter), 0)
  let done = 0
  const files: JobFile[] = []
  const notes: string[] = []
  for (const part of read) {
    tell({ kind: 'progress', progress: { done, of, words: `Writing ${part.name}` } })
    const file = await fileOf(part, exporter, tolerance, (body) => {
      done++
      tell({
        kind: 'progress',
        progress: { done, of, words: `Writing ${part.name}: ${body} is built` },
      })
    })
    done++
    if (typeof file === 'string') notes.push(`${part.name}: ${file}`)
    else files.push(file)
  }
  tell({ kind: 'progress', progress: { done: of, of, words: 'Putting the files together' } })
  const [only] = files
  if (!only) {
    fail({
      ...{ code: 'export.nothing', message: 'None of these parts has anything to hand over.' },
      mend: notes[0] ?? 'Turn a profile first.',
    })
  } else if (read.length === 1) tell({ kind: 'files', file: only, notes })
  else tell({ kind: 'files', file: packed(files, name), notes })
}

const liftedIn = (part: Part, exporter: Exporter): number =>
  exporter.id !== 'json' && needsKernel(part)
    ? bodyPlans(part).filter(({ plan }) => plan.ops.length > 0).length
    : 0

/** The file of a part, or why there is none. */
async function fileOf(
  part: Part,
  exporter: Exporter,
  tolerance: number,
  onBody: (name: string) => void,
): Promise<JobFile | string> {
  const lifted = liftedIn(part, exporter) > 0
  const kernel = lifted ? await kernelAtHand() : undefined
  try {
    if (kernel) settlePlans(part, (plan) => kernel.weigh(plan))
    const built = kernel && builtGeometry(kernel, part, tolerance, onBody)
    const settings = { tolerance, at: new Date(), ...(built ? { built } : {}) }
    const made = exporter.write(part, settings)
    if (!made.ok) return `${made.problem.message} ${made.problem.mend}`
    const { value } = made
    const content = typeof value === 'string' ? strToU8(value) : value
    return { name: `${part.name}.${exporter.extension}`, type: exporter.type, content }
  } catch (error) {
    if (!(error instanceof KernelFault)) throw error
    return `${error.message} ${error.mend}`
  }
}

const ENDINGS = EXPORTERS.map((e) => `.${e.extension}`)

/** Several files in one archive, those of one name told apart. */
function packed(files: readonly JobFile[], name: string): JobFile {
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
async function broughtIn({ fileName, bytes }: ImportTask): Promise<void> {
  const at = (done: number, words: string): void =>
    tell({ kind: 'progress', progress: { done, of: 3, words } })
  if (isMeshFile(fileName)) {
    at(1, `Reading ${fileName}`)
    const made = partFromMeshes(bytes, fileName)
    if (!made.ok) fail(made.problem)
    else {
      const document = JSON.stringify(toDocument(made.value.part))
      tell({ kind: 'part', document, words: made.value.words })
    }
    return
  }
  at(0, 'Loading the solid kernel')
  const kernel = await kernelAtHand()
  at(1, `Reading ${fileName}`)
  const recovered = partFromFile(kernel, new TextDecoder().decode(bytes), plainName(fileName))
  at(2, 'Weighing its bodies')
  settlePlans(recovered.part, (plan) => kernel.weigh(plan))
  const document = JSON.stringify(toDocument(recovered.part))
  tell({ kind: 'part', document, words: recoveredWords(recovered) })
}

import { EXPORT_CHORD_TOLERANCE } from '@lathica/core/tolerances'
import { reportOf } from '@lathica/core/inspect'
import { asksToSee, NOTHING_SEEN } from '@lathica/core/drawing'
import { EXPORTERS, touchWords } from '@lathica/core/formats'
import { builtGeometry, loadKernel, seenBy } from '@lathica/kernel'
import { EXIT, Stop, type Streams } from './exit'
import { isSound } from './read'
import { pdfOf } from './pdf'
import { readSettled } from './settled'
import { writeOut } from './write'

export const FORMATS = EXPORTERS.map((e) => e.id)

interface Options {
  readonly format?: string | undefined
  readonly output?: string | undefined
  readonly tolerance?: string | undefined
  /** Whether threads are cut into triangles. */
  readonly threads?: boolean | undefined
}

/** Writes a part in another format. */
export async function exportPart(
  path: string,
  options: Options,
  streams: Streams,
): Promise<number> {
  const { format, output } = options
  const exporter = EXPORTERS.find((e) => e.id === format)
  if (!exporter) {
    const asked = format === undefined ? 'No format is named' : `There is no format “${format}”`
    throw new Stop(EXIT.usage, `${asked}: use --format ${FORMATS.join(', ')}.`)
  }
  if (output === undefined) throw new Stop(EXIT.usage, 'Name the output with -o OUT.')
  const tolerance = toleranceOf(options.tolerance)
  const { state, kernel: settled } = await readSettled(path)
  const isSeen = exporter.drawn === true && asksToSee(state).length > 0
  const kernel = settled ?? (isSeen ? await loadKernel() : undefined)
  const onBody = (name: string): void => {
    if (streams.stderr.isTTY === true) streams.stderr.write(`${name} is built\n`)
  }
  const built =
    kernel && exporter.of === 'solids' ? builtGeometry(kernel, state, tolerance, onBody) : undefined
  const seen = kernel ? seenBy(kernel, state) : NOTHING_SEEN
  const at = new Date()
  const { pages = [] } = exporter.pages?.(state, seen, at) ?? {}
  const content = exporter.write(state, {
    ...{ seen, ...pdfOf(state.part, pages, at) },
    ...{ tolerance, at, cutsThreads: options.threads === true },
    ...(built ? { built } : {}),
  })
  if (!content.ok) throw new Stop(EXIT.unwritten, content.problem.message)
  await writeOut(output, content.value, streams)
  const notes = exporter.triangles ? touchWords(state, tolerance, built) : []
  for (const note of notes) streams.stderr.write(`${note}\n`)
  return isSound(reportOf(state)) ? EXIT.well : EXIT.unsound
}

function toleranceOf(text: string | undefined): number {
  if (text === undefined) return EXPORT_CHORD_TOLERANCE
  const value = Number(text)
  if (value >= 1e-4 && value <= 10) return value
  throw new Stop(EXIT.usage, `A tolerance lies between 0.0001 and 10 mm, “${text}” does not.`)
}

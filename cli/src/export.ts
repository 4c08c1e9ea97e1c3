import { writeFile } from 'node:fs/promises'
import {
  EXPORT_CHORD_TOLERANCE,
  evaluate,
  latheMesh,
  reportOf,
  writePartFile,
  writeStep,
  writeStl,
  type Part,
} from '@lathica/core'
import { EXIT, Stop, type Streams } from './exit'
import { isSound, readPartAt } from './read'

const NOTHING = 'Nothing is turned yet, so there is nothing to export.'

/** Writers by the name of their format. */
const WRITERS: Readonly<Record<string, (part: Part, tolerance: number) => Uint8Array | string>> = {
  stl: (part, tolerance) => {
    const bodies = evaluate(part).bodies.filter((b) => b.solid)
    if (bodies.length === 0) {
      throw new Stop(EXIT.unwritten, NOTHING)
    }
    return writeStl(
      bodies.map((b) => latheMesh(b.section, tolerance)),
      part.name,
    )
  },
  step: (part) => {
    const text = writeStep(part, new Date())
    if (text === undefined) throw new Stop(EXIT.unwritten, NOTHING)
    return text
  },
  json: (part) => writePartFile(part),
}

export const FORMATS = Object.keys(WRITERS)

interface Options {
  readonly format?: string | undefined
  readonly output?: string | undefined
  readonly tolerance?: string | undefined
}

/** Writes a part in another format. */
export async function exportPart(
  path: string,
  options: Options,
  streams: Streams,
): Promise<number> {
  const { format, output } = options
  const writer = format === undefined ? undefined : WRITERS[format]
  if (!writer) {
    const asked = format === undefined ? 'No format is named' : `There is no format “${format}”`
    throw new Stop(EXIT.usage, `${asked}: use --format ${FORMATS.join(', ')}.`)
  }
  if (output === undefined) throw new Stop(EXIT.usage, 'Name the output with -o OUT.')
  const tolerance = toleranceOf(options.tolerance)
  const part = await readPartAt(path)
  const content = writer(part, tolerance)
  if (output === '-') streams.stdout.write(content)
  else {
    try {
      await writeFile(output, content)
    } catch (error) {
      const reason = error instanceof Error ? error.message : String(error)
      throw new Stop(EXIT.unwritten, `${output} cannot be written: ${reason}`)
    }
  }
  return isSound(reportOf(part)) ? EXIT.well : EXIT.unsound
}

function toleranceOf(text: string | undefined): number {
  if (text === undefined) return EXPORT_CHORD_TOLERANCE
  const value = Number(text)
  if (value >= 1e-4 && value <= 10) return value
  throw new Stop(EXIT.usage, `A tolerance lies between 0.0001 and 10 mm, “${text}” does not.`)
}

import { parseArgs } from 'node:util'
import { checkPart } from './check'
import { exportPart, FORMATS } from './export'
import { importPart } from './import'
import { inspectPart } from './inspect'
import { rescueParts } from './rescue'
import { EXIT, Stop, type Streams } from './exit'

const USAGE = `Usage:
  lathica inspect FILE [--json]
  lathica check FILE [--json | --csv]
  lathica export FILE --format ${FORMATS.join('|')} -o OUT [--tolerance MM] [--threads]
  lathica sheet FILE -o OUT.pdf|OUT.svg
  lathica plan FILE -o OUT.csv|OUT.pdf
  lathica import FILE.step -o OUT
  lathica rescue DATABASE -o NEW_DATABASE

inspect   tells mass properties of every body, and how sketches and steps stand
check     compares the part with its inspection sheet, row by row
export    writes the part as another file: step is exact, 3mf, stl and glb are triangles within
          the tolerance, with --threads their threads are cut; -o - writes to standard output
sheet     draws the part for the workshop
plan      writes what the drawing asks of every piece, with what was measured
import    makes a part file of an exchange file (STEP): what is turned becomes a half-section with
          sizes; where that is not all of it, the solid itself stands for the part as it came
rescue    saves what can be read of a damaged database of the server into a new one; the damaged
          one is left as it is

Exit codes:
  0  all is well
  1  the part was read, but a step fails, a sketch conflicts, a value has no result, or a row of the
     inspection sheet fails or cannot be judged; or something that was rescued is torn
  2  the call is off
  3  the file cannot be read, or is not a part file
  4  there is nothing to export, or the output cannot be written
`

/**
 * Runs one call of the command line.
 * @param args what stands behind the program's name
 * @returns the exit code
 */
export async function main(args: readonly string[], streams: Streams): Promise<number> {
  try {
    return await dispatch(args, streams)
  } catch (error) {
    if (!(error instanceof Stop)) throw error
    streams.stderr.write(`lathica: ${error.message}\n`)
    return error.code
  }
}

async function dispatch(args: readonly string[], streams: Streams): Promise<number> {
  const { values, positionals } = parse(args)
  const [command, file, ...rest] = positionals
  if (values.help === true || command === undefined) {
    streams.stdout.write(USAGE)
    return command === undefined && values.help !== true ? EXIT.usage : EXIT.well
  }
  if (
    !['inspect', 'check', 'export', ...Object.keys(DRAWN), 'import', 'rescue'].includes(command)
  ) {
    throw new Stop(EXIT.usage, `There is no command “${command}”. Try lathica --help.`)
  }
  if (file === undefined) throw new Stop(EXIT.usage, `${command} needs a file behind it.`)
  if (rest.length > 0) throw new Stop(EXIT.usage, `Only one file at a time: what is “${rest[0]}”?`)
  if (command === 'inspect') return inspectPart(file, values.json === true, streams)
  if (command === 'check') return checkPart(file, values, streams)
  if (command === 'rescue') return rescueParts(file, values.output, streams)
  if (command === 'import') return importPart(file, values.output, streams)
  const drawn = DRAWN[command]
  if (drawn)
    return exportPart(file, { ...values, format: formatCalled(drawn, values.output) }, streams)
  return exportPart(file, values, streams)
}

/** What drawings are written as, by the endings of files. */
const DRAWN: Readonly<Record<string, Readonly<Record<string, string>>>> = {
  sheet: { pdf: 'pdf', svg: 'sheet' },
  plan: { csv: 'plan', pdf: 'report' },
}

/** The format that a file is called by. */
function formatCalled(formats: Readonly<Record<string, string>>, output = ''): string {
  const ending = /\.([a-z]+)$/i.exec(output)?.[1]?.toLowerCase() ?? ''
  const format = formats[ending]
  if (format !== undefined) return format
  const names = Object.keys(formats).map((e) => `OUT.${e}`)
  throw new Stop(EXIT.usage, `Name the output with -o ${names.join(' or ')}.`)
}

function parse(args: readonly string[]) {
  try {
    return parseArgs({
      args: [...args],
      allowPositionals: true,
      options: {
        help: { type: 'boolean', short: 'h' },
        json: { type: 'boolean' },
        csv: { type: 'boolean' },
        format: { type: 'string' },
        output: { type: 'string', short: 'o' },
        tolerance: { type: 'string' },
        threads: { type: 'boolean' },
      },
    })
  } catch (error) {
    const message = error instanceof Error ? error.message : String(error)
    throw new Stop(EXIT.usage, `${message} Try lathica --help.`)
  }
}

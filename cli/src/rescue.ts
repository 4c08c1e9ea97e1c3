import { existsSync } from 'node:fs'
import { EXIT, Stop, type Streams } from './exit'

/** Saves what can be read of a damaged database of the server into a new one. */
export async function rescueParts(
  path: string,
  output: string | undefined,
  streams: Streams,
): Promise<number> {
  if (output === undefined) throw new Stop(EXIT.usage, 'Name the new database with -o OUT.')
  if (!existsSync(path)) throw new Stop(EXIT.unreadable, `${path} is not there.`)
  if (existsSync(output)) throw new Stop(EXIT.unwritten, `${output} is there already.`)
  const { rescueDatabase } = await import('@lathica/server/rescue')
  const rescued = await rescueDatabase(path, output).catch((error: unknown) => {
    throw new Stop(EXIT.unwritten, error instanceof Error ? error.message : String(error))
  })
  const { projects, parts, materials, damaged } = rescued
  const torn = damaged > 0 ? `; ${counted(damaged, 'part')} torn, and kept as it came` : ''
  streams.stdout.write(
    `${counted(parts, 'part')} in ${counted(projects, 'project')} and ${counted(materials, 'material')} are in ${output}${torn}.\n`,
  )
  if (parts === 0) {
    streams.stderr.write(`lathica: nothing that could be a part was found in ${path}.\n`)
    return EXIT.unreadable
  }
  return damaged > 0 ? EXIT.unsound : EXIT.well
}

const counted = (n: number, one: string): string => `${n} ${one}${n === 1 ? '' : 's'}`

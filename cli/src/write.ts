import { writeFile } from 'node:fs/promises'
import { EXIT, Stop, type Streams } from './exit'

/** Writes to a file, or to standard output for “-”. */
export async function writeOut(
  output: string,
  content: string | Uint8Array,
  streams: Streams,
): Promise<void> {
  if (output === '-') {
    streams.stdout.write(content)
    return
  }
  try {
    await writeFile(output, content)
  } catch (error) {
    const reason = error instanceof Error ? error.message : String(error)
    throw new Stop(EXIT.unwritten, `${output} cannot be written: ${reason}`)
  }
}

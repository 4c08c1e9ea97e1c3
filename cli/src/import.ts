import { writeFile } from 'node:fs/promises'
import { basename } from 'node:path'
import { recoveredWords, reportOf, writePartFile } from '@lathica/core'
import { KernelFault, loadKernel, partFromFile, settlePlans } from '@lathica/kernel'
import { EXIT, Stop, type Streams } from './exit'
import { isSound, textOf } from './read'

/** Larger files are refused before they are read. */
const LARGEST_FILE = 20_000_000

/** Makes a part file of an exchange file, with the half-section of what is turned. */
export async function importPart(
  path: string,
  output: string | undefined,
  streams: Streams,
): Promise<number> {
  if (output === undefined) throw new Stop(EXIT.usage, 'Name the output with -o OUT.')
  const text = await textOf(path, LARGEST_FILE, 'an exchange file')
  const kernel = await loadKernel()
  const recovered = (() => {
    try {
      return partFromFile(
        kernel,
        text,
        basename(path)
          .replace(/\.[^.]*$/, '')
          .slice(0, 80),
      )
    } catch (error) {
      if (!(error instanceof KernelFault)) throw error
      throw new Stop(EXIT.unreadable, `${path}: ${error.message} ${error.mend}`)
    }
  })()
  const { part } = recovered
  const document = writePartFile(part)
  if (output === '-') streams.stdout.write(document)
  else {
    try {
      await writeFile(output, document)
    } catch (error) {
      const reason = error instanceof Error ? error.message : String(error)
      throw new Stop(EXIT.unwritten, `${output} cannot be written: ${reason}`)
    }
  }
  streams.stderr.write(`${recoveredWords(recovered)}\n`)
  settlePlans(part, (plan) => kernel.weigh(plan))
  return isSound(reportOf(part)) ? EXIT.well : EXIT.unsound
}

import { readPartFile, type Part } from '@lathica/core'
import { demoParts } from '../../../scripts/demo/parts'

/** The demo spindle: in ink, turned, with twelve sizes. */
export function spindle(): Part {
  const read = readPartFile(demoParts().get('spindle.lathica.json') ?? '')
  if (!read.ok) throw new Error(read.problem.message)
  return read.value
}

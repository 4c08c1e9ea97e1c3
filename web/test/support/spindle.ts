import type { Part } from '@lathica/core/part'
import { readPartFile } from '@lathica/core/formats'
import { demoParts } from '../../../scripts/demo/parts'

/** The demo spindle as it is turned first: in ink, with twelve sizes, and no later steps. */
export function spindle(): Part {
  const read = readPartFile(demoParts().get('spindle.lathica.json') ?? '')
  if (!read.ok) throw new Error(read.problem.message)
  return { ...read.value, route: read.value.route.slice(0, 1) }
}

import type { Part } from '@lathica/core/part'
import { demoPart } from '../../../core/test/support/demo'

/** The demo spindle as it is turned first: in ink, with twelve sizes, and no later steps. */
export function spindle(): Part {
  const part = demoPart('spindle')
  return { ...part, route: part.route.slice(0, 1) }
}

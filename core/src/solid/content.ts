import type { Section } from '../section'
import type { SolidOp, SolidPlan } from './plan'
import { once } from '../once'

/**
 * Content keys: equal plans have equal keys, whatever objects they are. A key of 106 bits keeps
 * chance meetings away; sections and operations are read once.
 */

/** The keys of a plan's states: of its base, and of it after each operation. */
export function planKeys({ base, ops: all }: SolidPlan): readonly string[] {
  const keys = [sectionKey(base)]
  for (const op of all) {
    const own = opKey(op)
    keys.push(digest(`${keys.at(-1) ?? ''} ${own}`))
  }
  return keys
}

/** The key of a plan as a whole. */
export const planKey = (plan: SolidPlan): string => planKeys(plan).at(-1) ?? ''

const sectionKey = once((section: Section): string => digest(JSON.stringify(section)))
const opKey = once((op: SolidOp): string => digest(JSON.stringify(op)))

/** Two runs of a 53-bit mixing hash (multiply and shift, after MurmurHash3) with different seeds. */
function digest(text: string): string {
  return [0x9747b28c, 0x3c6ef372].map((seed) => mixed(text, seed).toString(36)).join('-')
}

function mixed(text: string, seed: number): number {
  let a = 0xdeadbeef ^ seed
  let b = 0x41c6ce57 ^ seed
  for (let i = 0; i < text.length; i++) {
    const code = text.charCodeAt(i)
    a = Math.imul(a ^ code, 2654435761)
    b = Math.imul(b ^ code, 1597334677)
  }
  a = Math.imul(a ^ (a >>> 16), 2246822507) ^ Math.imul(b ^ (b >>> 13), 3266489909)
  b = Math.imul(b ^ (b >>> 16), 2246822507) ^ Math.imul(a ^ (a >>> 13), 3266489909)
  return 4294967296 * (2097151 & b) + (a >>> 0)
}

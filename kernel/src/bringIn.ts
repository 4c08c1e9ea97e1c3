import {
  LARGEST_PACKED,
  METRIC,
  packText,
  readFileSaid,
  recoverPart,
  solidsToBring,
  type BroughtSolid,
  type RecoveredPart,
} from '@lathica/core'
import { KernelFault } from './fault'
import type { Kernel } from './kernel'

const tooLarge = new KernelFault(
  'kernel.fileKept',
  'The solids have more than turned shapes, and the file is too large to be kept in a part.',
  'Write it with fewer bodies, or with the turned ones alone.',
)

/**
 * A part from an exchange file (ISO 10303-21): its half-sections, and what they do not tell as it came.
 * @throws KernelFault when the file holds no solid, or more than a part can keep
 */
export function partFromFile(kernel: Kernel, text: string, name: string): RecoveredPart {
  const packed = packText(text)
  const { unit } = readFileSaid(text)
  const recovered = recoverPart(name, kernel.read(text), packed, {
    ...(unit === 'in' || unit === 'cm' ? { units: { ...METRIC, length: unit } } : {}),
    weigh: (plan) => kernel.weigh(plan),
  })
  if (packed.length > LARGEST_PACKED && recovered.solids.some((s) => s.isKept)) throw tooLarge
  return recovered
}

/**
 * The solids of an exchange file (ISO 10303-21) as they are, to be put into a part.
 * @throws KernelFault when the file holds no solid, or more than a part can keep
 */
export function solidsFromFile(kernel: Kernel, text: string): readonly BroughtSolid[] {
  const packed = packText(text)
  const solids = solidsToBring(kernel.read(text), packed)
  if (packed.length * solids.length > LARGEST_PACKED) throw tooLarge
  return solids
}

import { LARGEST_PACKED, packText, recoverPart, type RecoveredPart } from '@lathica/core'
import { KernelFault } from './fault'
import type { Kernel } from './kernel'

/**
 * A part from an exchange file (ISO 10303-21): its half-sections, and what they do not tell as it came.
 * @throws KernelFault when the file holds no solid, or more than a part can keep
 */
export function partFromFile(kernel: Kernel, text: string, name: string): RecoveredPart {
  const packed = packText(text)
  const recovered = recoverPart(name, kernel.read(text), packed)
  if (packed.length > LARGEST_PACKED && recovered.solids.some((s) => s.isKept)) {
    throw new KernelFault(
      'kernel.fileKept',
      'The solids have more than turned shapes, and the file is too large to be kept in a part.',
      'Write it with fewer bodies, or with the turned ones alone.',
    )
  }
  return recovered
}

import { METRIC } from '@lathica/core/units'
import { LARGEST_PACKED, packText } from '@lathica/core/solid'
import type { BroughtSolid } from '@lathica/core/edit'
import { recoverPart, solidsToBring, type RecoveredPart } from '@lathica/core/recover'
import { readFileSaid } from '@lathica/core/formats'
import { KernelFault } from './fault'
import type { Kernel } from './kernel'

const tooLarge = new KernelFault(
  'kernel.fileKept',
  'The solids have more than turned shapes, and the file is too large to be kept in a part.',
  'Write it with fewer bodies, or with the turned ones alone.',
)

/** How far the reading of a file has come. */
export interface Progress {
  readonly done: number
  readonly of: number
  /** What is being done, in words. */
  readonly words: string
}

/**
 * A part from an exchange file (ISO 10303-21): its half-sections, the steps that were found, and what these do not tell
 * as it came.
 * @throws KernelFault when the file holds no solid, or more than a part can keep
 */
export function partFromFile(
  kernel: Kernel,
  text: string,
  name: string,
  tell: (progress: Progress) => void = () => undefined,
): RecoveredPart {
  tell({ done: 0, of: 3, words: 'Reading the file' })
  const packed = packText(text)
  const said = readFileSaid(text)
  const { unit } = said
  const told = (solid: number, of: number): void =>
    tell({ done: solid, of: 2 * of + 1, words: `Taking the faces of ${ofMany(solid, of)}` })
  const solids = kernel.read(text, told, said)
  const many = solids.length
  const recovered = recoverPart(name, solids, packed, {
    ...(unit === 'in' || unit === 'cm' ? { units: { ...METRIC, length: unit } } : {}),
    weigh: (plan) => kernel.weigh(plan),
    tell: (solid) =>
      tell({
        ...{ done: many + solid, of: 2 * many + 1 },
        words: `Looking for the profile and the steps of ${ofMany(solid, many)}`,
      }),
  })
  if (packed.length > LARGEST_PACKED && recovered.solids.some((s) => s.isKept)) throw tooLarge
  return recovered
}

const ofMany = (solid: number, of: number): string =>
  of === 1 ? 'the solid' : `solid ${solid} of ${of}`

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

import type { Part } from '@lathica/core/part'
import { needsKernel } from '@lathica/core/formats'
import { loadKernel, settlePlans, type Kernel } from '@lathica/kernel'
import { readPartAt } from './read'

/** A part with all that the solid kernel tells of it, and the kernel where it was needed. */
export interface Settled {
  readonly part: Part
  readonly kernel: Kernel | undefined
}

/** Reads a part file; the solid kernel is loaded only for parts that are no full turn. */
export async function readSettled(path: string): Promise<Settled> {
  const part = await readPartAt(path)
  if (!needsKernel(part)) return { part, kernel: undefined }
  const kernel = await loadKernel()
  settlePlans(part, (plan) => kernel.weigh(plan))
  return { part, kernel }
}

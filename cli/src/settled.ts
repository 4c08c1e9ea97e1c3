import { evaluate, type PartState } from '@lathica/core/route'
import { needsKernel } from '@lathica/core/formats'
import { loadKernel, settlePlans, type Kernel } from '@lathica/kernel'
import { readPartAt } from './read'

/** A part's state with all that the solid kernel tells of it, and the kernel where it was needed. */
export interface Settled {
  readonly state: PartState
  readonly kernel: Kernel | undefined
}

/** Reads a part file; the solid kernel is loaded only for parts that are no full turn. */
export async function readSettled(path: string): Promise<Settled> {
  const part = await readPartAt(path)
  const state = evaluate(part)
  if (!needsKernel(state)) return { state, kernel: undefined }
  const kernel = await loadKernel()
  const settled = settlePlans(
    part,
    (plan) => kernel.weigh(plan),
    (ask) => kernel.measure(ask),
  )
  return { state: settled, kernel }
}

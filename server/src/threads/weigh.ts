import { summarise, type PartSummary } from '@lathica/core/inspect'
import { readPart } from '@lathica/core/formats'
import { loadKernel, settlePlans } from '@lathica/kernel'

const kernel = loadKernel()

/** The summary of a part with its mass, from its document in JSON; undefined when it cannot be read. */
export async function weigh(document: string): Promise<PartSummary | undefined> {
  const loaded = await kernel
  const read = readPart(JSON.parse(document))
  if (!read.ok) return undefined
  return summarise(settlePlans(read.value, (plan) => loaded.weigh(plan)))
}

import { summarise, type PartSummary } from '@lathica/core/inspect'
import { evaluate } from '@lathica/core/route'
import { readPart } from '@lathica/core/formats'

/** What the shelf shows of a part, from its document in JSON; undefined when it cannot be read. */
export function summary(document: string): PartSummary | undefined {
  const read = readPart(JSON.parse(document))
  return read.ok ? summarise(evaluate(read.value)) : undefined
}

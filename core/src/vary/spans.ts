import type { Spans } from '../inspect'
import type { Part } from '../part'
import type { Result } from '../result'
import { variationOf, type Span } from './variation'

/** Between which values the figures lie whose rows of the sheet ask for every limit, by the ids of the rows. */
export function spansOf(part: Part): Spans {
  const rows = part.checks.filter((c) => c.everyLimit === true)
  return new Map(rows.map(({ id, figure }) => [id, spanOf(part, figure)]))
}

/** Between which values a figure lies with every value at the limit that counts. */
export function spanOf(part: Part, figure: Part['checks'][number]['figure']): Result<Span> {
  const found = variationOf(part, figure)
  return found.ok ? { ok: true, value: found.value.worst } : found
}

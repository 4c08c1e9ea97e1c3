import { attempt, type Fault } from './attempt'
import type { SizeValues } from './system'
import type { Sketch } from '../sketch'

/** Constraints and sizes that say the same, or that cannot all hold. */
export interface Disagreement {
  readonly kind: 'redundant' | 'conflict'
  /** Ids of constraints and sizes: a smallest such set. */
  readonly members: readonly string[]
  /** Those of a redundant set that could go without anything getting looser. */
  readonly idle: readonly string[]
}

/** Above this many suspects only a shortened list is searched, to answer within a frame or two. */
const MOST_SUSPECTS = 200

/**
 * Narrows a fault to a smallest set that still disagrees, or still says the same twice
 * (QuickXplain; Junker, AAAI 2004): dropping any one member resolves it.
 * @param freedoms those of the whole sketch
 * @returns undefined when each of a redundant set holds something that no other does
 */
export function explainDisagreement(
  sketch: Sketch,
  values: SizeValues,
  fault: Fault,
  freedoms: number,
): Disagreement | undefined {
  const members = smallestSet(sketch, values, fault)
  if (fault.kind === 'conflict') return { kind: 'conflict', members, idle: [] }
  const idle = members.filter(
    (m) => attempt(sketch, values, (id) => id !== m).analysis.freedoms === freedoms,
  )
  return idle.length > 0 ? { kind: 'redundant', members, idle } : undefined
}

function smallestSet(sketch: Sketch, values: SizeValues, fault: Fault): readonly string[] {
  const suspects = fault.suspects.slice(0, MOST_SUSPECTS)
  const holds = (ids: readonly string[]): boolean => {
    const set = new Set(ids)
    const { faults } = attempt(sketch, values, (id) => set.has(id))
    return !faults.some((f) => f.kind === fault.kind)
  }
  if (suspects.length < 2 || holds(suspects)) return suspects
  return quickXplain([], suspects, false, holds)
}

function quickXplain(
  background: readonly string[],
  candidates: readonly string[],
  grown: boolean,
  holds: (ids: readonly string[]) => boolean,
): readonly string[] {
  if (grown && !holds(background)) return []
  if (candidates.length <= 1) return candidates
  const middle = Math.floor(candidates.length / 2)
  const first = candidates.slice(0, middle)
  const second = candidates.slice(middle)
  const inSecond = quickXplain([...background, ...first], second, true, holds)
  const inFirst = quickXplain([...background, ...inSecond], first, inSecond.length > 0, holds)
  return [...inFirst, ...inSecond]
}

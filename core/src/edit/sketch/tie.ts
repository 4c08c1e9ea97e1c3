import { fail, succeed, type Result } from '../../result'
import { CONSTRAINT_KINDS, describeItem, type NewConstraint, type Picks } from '../../constraints'
import { disagreementProblem } from '../../route'
import { withTie } from './draft'
import type { Command } from '../command'
import type { Constraint, Sketch } from '../../sketch'
import type { Part } from '../../part'

/** The kinds that fit what is picked. */
export function fittingConstraints(sketch: Sketch, picks: Picks): Constraint['kind'][] {
  const kinds = Object.keys(CONSTRAINT_KINDS) as Constraint['kind'][]
  return kinds.filter((kind) => offered(sketch, kind, picks).length > 0)
}

const offered = (
  sketch: Sketch,
  kind: Constraint['kind'],
  picks: Picks,
): readonly NewConstraint[] => CONSTRAINT_KINDS[kind].offer?.make(sketch, picks) ?? []

/**
 * Puts a constraint on picks. It is refused, with the names of those against it, when it cannot
 * hold, or when all of it is said by others already; of many picks, those that hold are passed over.
 */
export function constrain(sketchId: string, kind: Constraint['kind'], picks: Picks): Command {
  return {
    label: `constrain: ${kind.replace(/([A-Z])/g, ' $1').toLowerCase()}`,
    run: (part) => {
      const sketch = part.sketches.find((s) => s.id === sketchId)
      if (!sketch) return fail('sketch.gone', 'This profile is gone.', 'Choose another.')
      const wanted = offered(sketch, kind, picks)
      if (wanted.length === 0) {
        const needs = CONSTRAINT_KINDS[kind].offer?.needs ?? 'Use its tool.'
        return fail('constraint.picks', 'This constraint does not fit what is picked.', needs)
      }
      let here = part
      let passedOver: Result<Part> | undefined
      for (const constraint of wanted) {
        const next = putOn(here, sketchId, constraint)
        if (next.ok) here = next.value
        else if (next.problem.code === ALREADY) passedOver ??= next
        else return next
      }
      return here === part && passedOver ? passedOver : succeed(here)
    },
  }
}

const ALREADY = 'constraint.redundant'

function putOn(part: Part, sketchId: string, constraint: NewConstraint): Result<Part> {
  const sketch = part.sketches.find((s) => s.id === sketchId)
  if (!sketch) return succeed(part)
  const { part: next, id, against } = withTie(part, sketchId, constraint)
  if (!against) return succeed(next)
  const others = { ...against, members: against.members.filter((m) => m !== id) }
  const problem = disagreementProblem(sketch, others)
  const what = describeNew(sketch, constraint)
  const message =
    against.kind === 'conflict'
      ? `${what} cannot be put on. ${problem.message}`
      : `${what} holds already, by other constraints.`
  const code = against.kind === 'conflict' ? problem.code : ALREADY
  return { ok: false, problem: { ...problem, code, message, involves: others.members } }
}

function describeNew(sketch: Sketch, constraint: NewConstraint): string {
  return `“${describeItem(sketch, { ...constraint, id: '' } as Constraint)}”`
}

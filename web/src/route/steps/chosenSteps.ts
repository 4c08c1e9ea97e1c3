import type { AroundStep, Part, Step } from '@lathica/core/part'
import { stepRules, type Repeater } from '@lathica/core/route'
import { choice, type Field } from './field'

/** Rounds and bevels of edges of the solid go with the steps that made those. */
function finishesSolid(step: Step, part: Part): boolean {
  if (step.kind !== 'fillet' && step.kind !== 'chamfer') return false
  const mills = (id: string): boolean =>
    part.route.some((s) => s.id === id && s.kind !== 'unknown' && stepRules(s).mills === true)
  return step.sets.some(
    ({ pick }) => pick.kind === 'solid' || (pick.kind === 'step' && mills(pick.step)),
  )
}

const isRepeatable = (step: Step, by: Repeater): boolean =>
  step.kind !== 'unknown' && stepRules(step).again?.includes(by) === true

/** Which earlier steps are done again. */
export function chosenSteps(
  step: AroundStep | Extract<Step, { kind: 'repeat' | 'mirror' }>,
  part: Part,
): Field[] {
  const at = part.route.findIndex((s) => s.id === step.id)
  return part.route
    .slice(0, at)
    .filter((s) => isRepeatable(s, step.kind) || finishesSolid(s, part))
    .map((s) =>
      choice(
        `${s.number} ${s.kind}`,
        step.steps.includes(s.id) ? 'yes' : 'no',
        step.kind === 'mirror' ? { yes: 'mirrored', no: 'stays' } : { yes: 'repeated', no: 'once' },
        (v) => ({
          ...step,
          steps: v === 'yes' ? [...step.steps, s.id] : step.steps.filter((id) => id !== s.id),
        }),
      ),
    )
}

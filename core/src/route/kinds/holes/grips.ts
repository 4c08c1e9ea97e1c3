import type { HolesStep } from '../../../part'
import { angleMoved, lengthMoved, takenBy } from '../../steps/gripped'
import { anglePlace, tell } from '../../steps/common'
import type { StepContext } from '../../steps/context'
import type { StepGrip } from '../../state'
import type { GripMove } from '../kind'
import type { Site } from './words'

/** Holes can be taken hold of where their places are figures of the step; drawn ones are moved in their sketch. */
export function holeGrips(
  step: HolesStep,
  context: StepContext,
  sites: readonly Site[],
): StepGrip[] {
  if (step.way === 'end' && step.layout === 'sketch') return []
  return sites.map(({ number, frame: { at } }) => ({
    ...{ body: step.body, number, at, name: `hole ${number}` },
    words:
      (step.way === 'end' ? `on ⌀${tell(context, 2 * Math.hypot(at.x, at.y))} ` : '') +
      `at ${anglePlace(context, at)}`,
  }))
}

/**
 * The step with one of its holes elsewhere: on a circle all go with it, holes across turn with it. What is told by names
 * of values stays; undefined where all of it is.
 */
export function holeMoved(step: HolesStep, grip: StepGrip, move: GripMove): HolesStep | undefined {
  const { units } = move
  const { out, turn } = takenBy(grip, move)
  if (step.way === 'end' && step.layout === 'places') {
    const own = step.places[grip.number - 1]
    if (!own) return undefined
    const diameter = lengthMoved(own.diameter, 2 * out, units)
    const angle = angleMoved(own.angle, turn, units)
    if (diameter === undefined && angle === undefined) return undefined
    const moved = { diameter: diameter ?? own.diameter, angle: angle ?? own.angle }
    return { ...step, places: step.places.map((p, i) => (i === grip.number - 1 ? moved : p)) }
  }
  const circle = step.way === 'end' ? lengthMoved(step.circle, 2 * out, units) : undefined
  const start = angleMoved(step.start, turn, units)
  if (circle === undefined && start === undefined) return undefined
  return { ...step, circle: circle ?? step.circle, start: start ?? step.start }
}

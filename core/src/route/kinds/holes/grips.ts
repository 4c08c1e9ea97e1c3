import { vec, type Vec } from '../../../geometry'
import { evaluateFormula } from '../../../formula'
import type { HolesStep } from '../../../part'
import { unitScale, type Measure, type UnitSettings } from '../../../units'
import type { StepGrip } from '../../state'
import type { GripMove } from '../kind'
import type { Site } from './words'

/** Holes can be taken hold of where their places are figures of the step; drawn ones are moved in their sketch. */
export const holeGrips = (step: HolesStep, sites: readonly Site[]): StepGrip[] =>
  step.way === 'end' && step.layout === 'sketch'
    ? []
    : sites.map(({ number, frame }) => ({ body: step.body, number, at: frame.at }))

/** Pitch diameters go in steps of so much of the part’s unit, angles in whole degrees. */
const STEPS = { mm: 0.5, cm: 0.05, m: 0.0005, in: 0.02 } as const
const DEGREE = Math.PI / 180

/**
 * The step with one of its holes elsewhere: on a circle all go with it, holes across turn with it. What is told by names
 * of values stays; undefined where all of it is.
 */
export function holeMoved(
  step: HolesStep,
  { number, at }: StepGrip,
  move: GripMove,
): HolesStep | undefined {
  const { units } = move
  const { far, turn } = movedBy(vec(at.x, at.y), move)
  const diameterOf = (text: string): string | undefined =>
    valueOf(text, 'length', units) === undefined
      ? undefined
      : far === undefined
        ? text
        : inSteps(2 * far, STEPS[units.length] * unitScale('length', units), 'length', units)
  const angleOf = (text: string): string | undefined => {
    const now = text.trim() === '' ? 0 : valueOf(text, 'angle', units)
    if (now === undefined || turn === 0) return now === undefined ? undefined : text
    return inSteps(aroundFrom0(now + turn), DEGREE, 'angle', units)
  }
  if (step.way === 'end' && step.layout === 'places') {
    const own = step.places[number - 1]
    if (!own) return undefined
    const [diameter, angle] = [diameterOf(own.diameter), angleOf(own.angle)]
    if (diameter === undefined && angle === undefined) return undefined
    const moved = { diameter: diameter ?? own.diameter, angle: angle ?? own.angle }
    return { ...step, places: step.places.map((p, i) => (i === number - 1 ? moved : p)) }
  }
  const [circle, start] = [
    step.way === 'end' ? diameterOf(step.circle) : undefined,
    angleOf(step.start),
  ]
  if (circle === undefined && start === undefined) return undefined
  return { ...step, circle: circle ?? step.circle, start: start ?? step.start }
}

/** How far from the axis something goes, if it does, and how far round. */
function movedBy(
  at: Vec,
  { to, straight }: GripMove,
): { readonly far: number | undefined; readonly turn: number } {
  const far = Math.hypot(to.x, to.y)
  const between = Math.atan2(to.y, to.x) - Math.atan2(at.y, at.x)
  const turn = Math.atan2(Math.sin(between), Math.cos(between))
  if (!straight) return { far, turn }
  const isOutwards = Math.abs(far - Math.hypot(at.x, at.y)) >= Math.abs(turn) * far
  return isOutwards ? { far, turn: 0 } : { far: undefined, turn }
}

/** What a text without names of values comes to, in mm or radians. */
function valueOf(text: string, want: Measure, units: UnitSettings): number | undefined {
  const result = evaluateFormula(text, { want, units, lookup: () => undefined })
  return result.ok ? result.value : undefined
}

const aroundFrom0 = (angle: number): number => {
  const turn = 2 * Math.PI
  return ((angle % turn) + turn) % turn
}

/** A figure as it would be typed, to the nearest step. */
function inSteps(value: number, step: number, measure: Measure, units: UnitSettings): string {
  const rounded = Math.round(value / step) * step
  const whole = measure === 'angle' && Math.abs(rounded - 2 * Math.PI) < 1e-9 ? 0 : rounded
  return String(Number((whole / unitScale(measure, units)).toFixed(5)))
}

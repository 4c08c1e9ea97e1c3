import { mapped, vec, type ArcPiece, type Vec } from '../../geometry'
import { once } from '../../once'
import { bodyOf, usesSketch, valuesOf, type KnownStep } from '../../part'
import { fieldWords, formulasIn, type Fields } from '../../part/fields'
import { STEP_KINDS, type PartState } from '../../route'
import { extentOf, greatestRadius } from '../../section'
import { isEndSketch } from '../../sketch'
import { placedShape, type Asked, type Shape, type SizeText } from './asked'
import { lookOf, placeOn, stepView, type AllStepAsks, type StepAsks, type StepView } from './kind'
import { shapeOnEnd, sketchedAt } from './ends'
import { bore } from './kinds/bore'
import { chamfer, fillet } from './kinds/corners'
import { extrude } from './kinds/extrude'
import { groove } from './kinds/groove'
import { besidePlace, flats, holes, slot } from './kinds/milled'
import { length, shell, wall } from './kinds/turned'
import { sizesOf } from './sizes'

export {
  cutPlace,
  endOf,
  placedShape,
  saidText,
  type Asked,
  type Shape,
  type SizeText,
} from './asked'

/** Kinds of steps whose sizes are shown in a way of their own. Values of all others are told by their names. */
const STEP_ASKS: AllStepAsks = {
  ...{ wall, shell, length, groove, bore, fillet, chamfer },
  ...{ holes, flats, slot, extrude },
}

/** All that has to stand on the sheet, and what cannot be shown on a view. */
export interface AllAsked {
  readonly asked: readonly Asked[]
  /** Values that have no place on the part as it stands: told in words. */
  readonly beside: readonly Asked[]
}

/** Everything a part's profiles and steps are driven by. */
export const askedOf = once((state: PartState): AllAsked => {
  const { part } = state
  const done = new Set(state.steps.filter((s) => s.status === 'done').map((s) => s.stepId))
  const steps = part.route.filter((s): s is KnownStep => done.has(s.id) && s.kind !== 'unknown')
  const profiles = part.sketches.flatMap((sketch): Asked[] => {
    const step = steps.find((s) => usesSketch(s) && s.sketch === sketch.id)
    const told = state.sketches.get(sketch.id)
    if (!step || !told) return []
    const { values } = valuesOf(part).sizesOf(sketch.id)
    const body = bodyOf(step) ?? ''
    const { solution, measured } = told
    const sizes = sizesOf(sketch, solution.positions, values, measured, part.units, body)
    if (!isEndSketch(sketch))
      return sizes.map((s) => movedBy(s, movesAfter(state, steps, step, body)))
    const from = lookOf(stepView(state, step))
    const put = sketchedAt(part.lie, sketch.plane, from)
    return sizes.map(({ alike: _, ...size }) => ({
      ...{ ...size, named: sketch.name },
      shape: shapeOnEnd(size.shape, put, from) ?? NOWHERE,
    }))
  })
  const asked = [...profiles, ...steps.flatMap((step) => stepAsked(state, step))]
  const isShown = ({ shape }: Asked): boolean =>
    shape.kind !== 'place' || Number.isFinite(shape.at.x)
  return { asked: asked.filter(isShown), beside: asked.filter((a) => !isShown(a)) }
})

/** How far a body is moved along the axis after a step that made it. */
function movesAfter(
  state: PartState,
  steps: readonly KnownStep[],
  step: KnownStep,
  body: string,
): number {
  return steps.slice(steps.indexOf(step) + 1).reduce((far, later) => {
    const isMoved = later.kind === 'move' && later.body === body && later.into === body
    return isMoved ? far + (stepView(state, later).value(later.along) ?? 0) : far
  }, 0)
}

/** A size of a profile where its body stands now. */
function movedBy(asked: Asked, far: number): Asked {
  if (far === 0) return asked
  const put = (p: Vec): Vec => vec(p.x + far, p.y)
  return {
    ...asked,
    shape: placedShape(asked.shape, put, (arc) => mapped(arc, put, false) as ArcPiece),
    ...(asked.alike ? { alike: asked.alike.map(([a, b]) => [put(a), put(b)] as const) } : {}),
  }
}

const NOWHERE: Shape = { kind: 'place', at: vec(NaN, NaN), out: vec(0, 1) }

/** What a step shows, and by their names those of its values that it does not. */
function stepAsked(state: PartState, step: KnownStep): Asked[] {
  const view = stepView(state, step)
  const asks = STEP_ASKS[step.kind] as StepAsks | undefined
  const own = asks?.asks(step, view) ?? []
  const shown = new Set(own.flatMap((a) => a.shows))
  const idle = new Set(asks?.idle?.(step).map((path) => `step/${step.id}/${path}`))
  const { fields, name } = STEP_KINDS[step.kind]
  const rest = formulasIn(fields as Fields, step).flatMap(({ path, formula, measure }) => {
    const id = ['step', step.id, ...path].join('/')
    const at = path.join('/')
    const isIdle = idle.has(id) || [...idle].some((i) => id.startsWith(`${i}/`))
    // Nought says nothing: what stands at its place has no distance from it.
    if (formula.trim() === '' || shown.has(id) || isIdle || view.value(formula, measure) === 0)
      return []
    const field = path.filter((p) => typeof p === 'string').at(-1) ?? ''
    const words = `${fieldWords(String(field))} `
    return [{ at, line: view.text(formula, words, measure) }]
  })
  if (rest.length === 0) return [...own]
  const shape = placeOn(view.faces()) ?? toldPlace(view) ?? ownPlace(state, view) ?? NOWHERE
  const title: SizeText = { text: `${name}:` }
  const lines =
    rest.length > 1 ? [title, ...rest.map((r) => r.line)] : [joined(name, rest[0]?.line)]
  return [
    ...own,
    ...view.call(
      rest.map((r) => r.at),
      lines,
      shape,
    ),
  ]
}

const joined = (name: string, line: SizeText | undefined): SizeText => ({
  ...line,
  text: `${name}: ${line?.text ?? ''}`,
})

function toldPlace(view: StepView): Shape | undefined {
  const [told] = view.sizes
  return told && besidePlace(told.at)
}

/** On top of the step's body, where nothing else tells where it is. */
function ownPlace(state: PartState, { body }: StepView): Shape | undefined {
  const section = state.bodies.find((b) => b.bodyId === body)?.section
  if (!section || section.regions.length === 0) return undefined
  const [from, to] = extentOf(section)
  const x = (from + to) / 2
  return { kind: 'place', at: vec(x, greatestRadius(section, x, x)), out: vec(0, 1) }
}

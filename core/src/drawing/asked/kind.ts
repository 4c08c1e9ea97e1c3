import { evaluateFormula } from '../../formula'
import { distance, leftNormal, lengthOf, pointAt, vec, type Vec } from '../../geometry'
import { isFaceOf } from '../../names'
import { valuesOf, type KnownStep, type Part, type StepKind } from '../../part'
import type { PartState, SizeAt } from '../../route'
import { edgeKey, edgesOf, type SectionEdge } from '../../section'
import { isEndSketch, middleOf, restLocator } from '../../sketch'
import { sizeText, type Asked, type Shape, type SizeText } from './asked'
import { sketchedAt, type End } from './ends'

/** What a step's sizes are told by: the step's faces as the part stands, and its values. */
export interface StepView {
  readonly step: KnownStep
  readonly part: Part
  readonly body: string
  /** Its faces at the end of the route, by what they are within the step: all whose name begins so. */
  faces(what?: string): readonly SectionEdge[]
  /** All faces of its body. */
  readonly bodyEdges: readonly SectionEdge[]
  /** A face of any step. */
  face(key: string): readonly SectionEdge[]
  /** What it told itself where no section shows it: of holes, flats, slots. */
  readonly sizes: readonly SizeAt[]
  /** The middle of what an end sketch has drawn, where it is seen from an end. */
  middleOf(sketch: string, from: End): Vec | undefined
  value(formula: string, measure?: Measured): number | undefined
  /** A formula of the step as drawings have it, with a sign before it. */
  text(formula: string, before?: string, measure?: Measured): SizeText
  /** One size, shown by one formula of the step. @param path its fields, as in `sizes/width` */
  size(
    path: string,
    formula: string,
    shape: Shape | undefined,
    before?: string,
    measure?: Measured,
  ): Asked[]
  /** A call-out of several lines, for several values of the step. */
  call(paths: readonly string[], lines: readonly SizeText[], shape: Shape | undefined): Asked[]
}

export type Measured = 'length' | 'angle' | 'number'

/** What of a step is shown how. Values it does not speak of are told by their names. */
export interface StepAsks<S extends KnownStep = KnownStep> {
  asks(step: S, view: StepView): readonly Asked[]
  /** Fields that have no effect as the step is: the angle of a tip that is flat. */
  idle?(step: S): readonly string[]
}

export type AllStepAsks = {
  readonly [K in StepKind]?: StepAsks<Extract<KnownStep, { readonly kind: K }>>
}

/** The end that the face of a step looks to. */
export function lookOf({ step, face }: Pick<StepView, 'step' | 'face'>): End {
  const on = 'on' in step ? step.on : ''
  const [first] = face(on)
  // Material lies to the left of an outline: a face that runs outwards looks to the right.
  return first && first.piece.to.y < first.piece.from.y ? 'left' : 'right'
}

export function stepView(state: PartState, step: KnownStep): StepView {
  const { part } = state
  const told = state.steps.find((s) => s.stepId === step.id)
  const body = 'body' in step ? step.body : (told?.touched[0] ?? '')
  const all = state.bodies.flatMap((b) => edgesOf(b.section))
  const own = all.filter((e) => isFaceOf(step.id, edgeKey(e.name)))
  const value: StepView['value'] = (formula, measure = 'length') => {
    const { lookup } = valuesOf(part).table
    const read = evaluateFormula(formula, { want: measure, units: part.units, lookup })
    return read.ok ? read.value : undefined
  }
  const text: StepView['text'] = (formula, before = '', measure = 'length') =>
    sizeText(value(formula, measure) ?? NaN, formula, measure, part.units, before)
  const idOf = (path: string): string => `step/${step.id}/${path}`
  const call: StepView['call'] = (paths, lines, shape) => {
    const [first] = paths
    if (first === undefined || !shape) return []
    return [{ id: idOf(first), shows: paths.map(idOf), shape, lines, value: NaN, body }]
  }
  return {
    ...{ step, part, body, value, text, call },
    faces: (what = '') => firstOf(own.filter((e) => e.name.entity.startsWith(what))),
    bodyEdges: state.bodies.filter((b) => b.bodyId === body).flatMap((b) => edgesOf(b.section)),
    face: (key) => all.filter((e) => edgeKey(e.name) === key),
    sizes: told?.sizes ?? [],
    middleOf: (id, from) => {
      const sketch = part.sketches.find((s) => s.id === id)
      const positions = state.sketches.get(id)?.solution.positions
      if (!sketch || !positions || !isEndSketch(sketch)) return undefined
      const locate = restLocator(sketch, positions)
      const drawn = sketch.entities.filter((e) => e.role === 'outline')
      const at = drawn.map((e) => middleOf(e, locate))
      const [x, y] = [at.map((p) => p.x), at.map((p) => p.y)].map(middleIn)
      if (x === undefined || y === undefined) return undefined
      return sketchedAt(part.lie, sketch.plane, from)(vec(x, y))
    },
    size: (path, formula, shape, before, measure) => {
      const found = value(formula, measure)
      if (formula.trim() === '' || found === undefined || !shape) return []
      return call([path], [text(formula, before, measure)], shape).map((a) => ({
        ...a,
        value: found,
      }))
    },
  }
}

/** Between the least and the greatest of some figures. */
const middleIn = (all: readonly number[]): number | undefined =>
  all.length === 0 ? undefined : (Math.min(...all) + Math.max(...all)) / 2

/** Of faces that are there several times, with a count behind their names, those of the first. */
function firstOf(edges: readonly SectionEdge[]): readonly SectionEdge[] {
  const first = edges.filter((e) => !/\.\d+$/.test(e.name.entity))
  return first.length > 0 ? first : edges
}

/** In the middle of the longest of some edges, pointing out of the material. */
export function placeOn(edges: readonly SectionEdge[]): Shape | undefined {
  const longest = longestOf(edges)
  if (!longest) return undefined
  const inwards = leftNormal(longest.piece, 0.5)
  return { kind: 'place', at: pointAt(longest.piece, 0.5), out: vec(-inwards.x, -inwards.y) }
}

export function longestOf(edges: readonly SectionEdge[]): SectionEdge | undefined {
  return edges.reduce<SectionEdge | undefined>(
    (a, b) => (a && lengthOf(a.piece) >= lengthOf(b.piece) ? a : b),
    undefined,
  )
}

/** A rounded edge with its radius, or where it is told else. */
export function radiusOn(edges: readonly SectionEdge[]): Shape | undefined {
  const arc = edges.find((e) => e.piece.kind === 'arc')?.piece
  return arc?.kind === 'arc' ? { kind: 'radius', arc } : placeOn(edges)
}

/** The ends of some edges that lie furthest apart along the axis, left one first. */
export function reachOf(edges: readonly SectionEdge[]): readonly [Vec, Vec] | undefined {
  const ends = edges.flatMap((e) => [e.piece.from, e.piece.to])
  const [first] = ends
  if (!first) return undefined
  const left = ends.reduce((a, b) => (b.x < a.x ? b : a))
  const right = ends.reduce((a, b) => (b.x > a.x ? b : a))
  return distance(left, right) > 0 ? [left, right] : undefined
}

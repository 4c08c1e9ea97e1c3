import { measureOf, renamed } from '../../constraints'
import { fail, succeed, type Result } from '../../result'
import { distance } from '../../geometry'
import { LARGEST_LENGTH, VERTEX_TOLERANCE } from '../../tolerances'
import {
  endsOf,
  locator,
  pointsOf,
  withPoints,
  type Constraint,
  type Entity,
  type Size,
  type Sketch,
} from '../../sketch'
import { disagreementWith } from './disagreement'
import { withSketch, type Command } from '../command'
import type { NewConstraint } from '../../constraints'
import { placeEnd, type End } from './ends'
import { takeId } from './ids'
import { without } from './remove'
import type { Disagreement } from '../../solver'
import { freeName, type SizeOffer } from './offers'
import { valuesOf, type Part } from '../../part'
import { evaluateFormula } from '../../formula'
import { unitScale } from '../../units'

/**
 * New things to draw as one edit, before they have ids. They go by names of the draft's own, which
 * begin with `~` and are used wherever an id would be; other ids are those of the sketch.
 */
export interface Draft {
  readonly points: Readonly<Record<string, End>>
  readonly entities: readonly Entity[]
  /** Constraints the designer let stand; one that would only disagree is left out. */
  readonly ties?: readonly NewConstraint[]
  readonly sizes?: readonly DraftSize[]
}

export interface DraftSize {
  readonly offer: SizeOffer
  readonly formula: string
  readonly reference?: boolean
  /** The name it had where it comes from, by which formulas of the same draft read it. */
  readonly formerName?: string
  /** What it measured, in mm or radians, for where its formula has no meaning. */
  readonly measured?: number
}

/** Draws a draft. What it was put onto is shared or lain on; too far and too short are refused. */
export function drawDraft(label: string, sketchId: string, draft: Draft): Command {
  return {
    label,
    run: (part) => {
      const drawn = placeDraft(part, sketchId, draft)
      return drawn.ok ? succeed(drawn.value.part) : drawn
    },
  }
}

export interface Placed {
  readonly part: Part
  /** The id each of the draft's names has got. */
  readonly ids: ReadonlyMap<string, string>
}

/** Draws a draft and tells the ids its names have got. */
export function placeDraft(part: Part, sketchId: string, draft: Draft): Result<Placed> {
  const before = part.sketches.find((s) => s.id === sketchId)
  if (!before) return fail('sketch.gone', 'This profile is gone.', 'Choose another profile.')
  const ids = new Map<string, string>()
  const rename = (id: string): string => ids.get(id) ?? id
  const ties: NewConstraint[] = []
  let sketch = before
  for (const [name, end] of Object.entries(draft.points)) {
    if (!(Math.abs(end.at.x) <= LARGEST_LENGTH && Math.abs(end.at.y) <= LARGEST_LENGTH)) {
      return fail('draw.far', 'This point is too far out.', 'Draw within 1 km of the datum point.')
    }
    const placed = placeEnd(part, sketch, end)
    sketch = placed.sketch
    ties.push(...placed.ties)
    ids.set(name, placed.id)
  }
  for (const entity of draft.entities) {
    const [id, grown] = takeId(sketch, entity.kind[0] ?? 'e')
    ids.set(entity.id, id)
    const named = withPoints({ ...entity, id }, rename)
    const bad = refuseEntity(grown, named)
    if (bad) return bad
    sketch = { ...grown, entities: [...grown.entities, named] }
  }
  ties.push(...(draft.ties ?? []).map((tie) => renamed(tie, rename)))
  const tied = withTiesThatFit(withSketch(part, sketch), sketchId, ties)
  return succeed({ part: withSizes(tied, sketchId, draft.sizes ?? [], rename), ids })
}

function refuseEntity(sketch: Sketch, entity: Entity): Result<never> | undefined {
  const locate = locator(sketch)
  const points = pointsOf(entity)
  const [a = '', b = ''] = entity.kind === 'circle' ? points : endsOf(entity)
  if (a === b || distance(locate(a), locate(b)) <= VERTEX_TOLERANCE) {
    const what = entity.kind === 'circle' ? 'no radius' : 'no length'
    return fail('draw.zero', `This ${entity.kind} would have ${what}.`, 'End it somewhere else.')
  }
  const doubled = sketch.entities.some(
    (e) =>
      e.kind === 'line' && entity.kind === 'line' && endsOf(e).includes(a) && endsOf(e).includes(b),
  )
  return doubled
    ? fail('draw.double', 'There is a line between these points already.', 'End it elsewhere.')
    : undefined
}

/** Puts on constraints, leaving out those that would disagree or say what others say. */
export function withTiesThatFit(
  part: Part,
  sketchId: string,
  ties: readonly NewConstraint[],
): Part {
  const all = putOn(part, sketchId, ties)
  if (ties.length === 0 || !disagreementWith(all.part, sketchId, all.ids)) return all.part
  return ties.reduce((here, tie) => {
    const next = withTie(here, sketchId, tie)
    return next.against ? here : next.part
  }, part)
}

/**
 * Puts on one constraint. One that says all of what a weaker one said, and more, takes the place of
 * that.
 * @returns the part with it, its id, and what stands against it
 */
export function withTie(
  part: Part,
  sketchId: string,
  tie: NewConstraint,
): { readonly part: Part; readonly id: string; readonly against?: Disagreement } {
  const next = putOn(part, sketchId, [tie])
  const [id = ''] = next.ids
  const against = disagreementWith(next.part, sketchId, next.ids)
  if (!against) return { part: next.part, id }
  const sketch = part.sketches.find((s) => s.id === sketchId)
  const weaker = against.idle.filter((m) => sketch?.constraints.some((c) => c.id === m))
  if (!sketch || against.idle.includes(id) || weaker.length === 0) {
    return { part: next.part, id, against }
  }
  return withTie(withSketch(part, without(sketch, new Set(weaker))), sketchId, tie)
}

function putOn(
  part: Part,
  sketchId: string,
  ties: readonly NewConstraint[],
): { readonly part: Part; readonly ids: readonly string[] } {
  let sketch = part.sketches.find((s) => s.id === sketchId)
  if (!sketch) return { part, ids: [] }
  const ids: string[] = []
  for (const tie of ties) {
    const next = withConstraint(sketch, tie)
    sketch = next.sketch
    ids.push(next.id)
  }
  return { part: withSketch(part, sketch), ids }
}

export function withConstraint(
  sketch: Sketch,
  tie: NewConstraint,
): { readonly sketch: Sketch; readonly id: string } {
  const [id, grown] = takeId(sketch, 'c')
  const constraint = { ...tie, id } as Constraint
  return { sketch: { ...grown, constraints: [...grown.constraints, constraint] }, id }
}

/** Sizes of a draft under new names; those that would disagree become references. */
function withSizes(
  part: Part,
  sketchId: string,
  sizes: readonly DraftSize[],
  rename: (id: string) => string,
): Part {
  const names = new Map<string, string>()
  return sizes.reduce((here, { offer, formula, reference, formerName, measured }) => {
    const sketch = here.sketches.find((s) => s.id === sketchId)
    if (!sketch) return here
    const name = freeName(here, offer.kind)
    if (formerName !== undefined) names.set(formerName, name)
    const text = readable(
      here,
      offer,
      formula.replace(/[A-Za-z_]\w*/g, (word) => names.get(word) ?? word),
      measured,
    )
    const [id, grown] = takeId(sketch, 's')
    const named = { ...renamed(offer, rename), id, name, formula: text }
    const driving = { ...named, reference: reference === true } as Size
    const next = withSketch(here, { ...grown, sizes: [...grown.sizes, driving] })
    if (driving.reference || !disagreementWith(next, sketchId, [id])) return next
    return withSketch(here, { ...grown, sizes: [...grown.sizes, { ...driving, reference: true }] })
  }, part)
}

/** The formula, or the measured figure where the part has no values the formula would read. */
function readable(part: Part, offer: SizeOffer, formula: string, measured?: number): string {
  if (measured === undefined) return formula
  const want = measureOf(offer)
  const lookup = valuesOf(part).table.lookup
  if (evaluateFormula(formula, { want, units: part.units, lookup }).ok) return formula
  return String(Number((measured / unitScale(want, part.units)).toPrecision(12)))
}

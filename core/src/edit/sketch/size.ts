import { measureOf, measureSize } from '../../constraints'
import { evaluateFormula, splitTolerance } from '../../formula'
import { fail, succeed, type Result } from '../../result'
import { sizeProblem, valuesOf, type Part } from '../../part'
import { entityMap, locator, type Size, type Sketch } from '../../sketch'
import { nameItems } from '../../route'
import { unitScale } from '../../units'
import type { Vec } from '../../geometry'
import { refuseDistance } from './curves/beside'
import { disagreementWith } from './disagreement'
import { sketchCommand, withSketch, type Command } from '../command'
import { takeId } from './ids'
import { freeName, measureOffer, named, type SizeOffer } from './offers'

/**
 * Adds a size. The first size of a profile scales the whole in proportion, so that a rough drawing
 * keeps its shape. A size that cannot hold, or says what others say, is refused with their names.
 * @param label where the label goes, in mm from the middle of what is measured; laid out when left out
 */
export function addSize(sketchId: string, offer: SizeOffer, formula: string, label?: Vec): Command {
  return {
    label: 'add size',
    run: (part) => {
      const sketch = part.sketches.find((s) => s.id === sketchId)
      if (!sketch) return fail('sketch.gone', 'This profile is gone.', 'Choose another profile.')
      const value = checkFormula(part, offer, formula)
      if (!value.ok) return value
      const [id, grown] = takeId(sketch, 's')
      const bare = named(offer, id, freeName(part, offer.kind), formula)
      const size = label ? { ...bare, label } : bare
      const scaled = scaledToFirst(grown, offer, value.value)
      const next = withSketch(part, { ...scaled, sizes: [...scaled.sizes, size] })
      const against = disagreementWith(next, sketchId, [id])
      if (!against) return succeed(next)
      return refuseSize(sketch, against, id)
    },
  }
}

function refuseSize(
  sketch: Sketch,
  against: NonNullable<ReturnType<typeof disagreementWith>>,
  id: string,
): Result<never> {
  const members = against.members.filter((m) => m !== id)
  const names = nameItems(sketch, members).join('; ')
  return fail(
    `size.${against.kind}`,
    against.kind === 'redundant'
      ? `This is held already by ${names}.`
      : `This cannot hold together with ${names}.`,
    'Keep it as a reference, or change one of those.',
    { involves: members },
  )
}

/** Adds a size that only reports what it measures. */
export function addReference(sketchId: string, offer: SizeOffer): Command {
  return sketchCommand('add reference size', sketchId, (sketch, part) => {
    const [id, grown] = takeId(sketch, 's')
    const size = { ...named(offer, id, freeName(part, offer.kind), ''), reference: true }
    return succeed({ ...grown, sizes: [...grown.sizes, size] })
  })
}

function checkFormula(part: Part, offer: Pick<Size, 'kind'>, formula: string): Result<number> {
  const result = evaluateFormula(formula, {
    want: measureOf(offer),
    units: part.units,
    lookup: valuesOf(part).table.lookup,
  })
  if (!result.ok) return result
  const problem = sizeProblem(offer, result.value)
  return problem ? { ok: false, problem } : result
}

function scaledToFirst(sketch: Sketch, offer: SizeOffer, value: number): Sketch {
  const now = measureOffer(sketch, offer)
  const first =
    offer.kind !== 'angle' && !sketch.sizes.some((s) => !s.reference && s.kind !== 'angle')
  const fixed = sketch.constraints.some((c) => c.kind === 'fixed' || c.kind === 'linked')
  return !first || fixed || now <= 0 ? sketch : scaledBy(sketch, value / now)
}

/** The sketch with all positions in proportion about the datum point. */
function scaledBy(sketch: Sketch, factor: number): Sketch {
  const scaled = <T extends { readonly x: number; readonly y: number }>(p: T): T => ({
    ...p,
    x: p.x * factor,
    y: p.y * factor,
  })
  return {
    ...sketch,
    points: sketch.points.map(scaled),
    constraints: sketch.constraints.map((c) => (c.kind === 'fixed' ? scaled(c) : c)),
    sizes: sketch.sizes.map((s) => (s.label ? { ...s, label: scaled(s.label) } : s)),
  }
}

/**
 * Scales the whole profile so that a size comes to a value: every position and every length that
 * drives. Plain numbers are scaled as such; a formula is multiplied.
 */
export function scaleAll(sketchId: string, sizeId: string, formula: string): Command {
  return {
    label: 'scale all',
    run: (part) => {
      const sketch = part.sketches.find((s) => s.id === sketchId)
      const size = sketch?.sizes.find((s) => s.id === sizeId)
      if (!sketch || !size) return fail('size.gone', 'This size is gone.', 'Pick another.')
      if (size.kind === 'angle') {
        return fail('scale.angle', 'An angle does not scale.', 'Take a length or a diameter.')
      }
      const value = checkFormula(part, size, formula)
      if (!value.ok) return value
      const now = measureSize(size, entityMap(sketch), locator(sketch))
      if (now <= 0) return fail('scale.zero', 'This measures nothing now.', 'Take another size.')
      return succeed(withScaledSizes(part, scaledBy(sketch, value.value / now), value.value / now))
    },
  }
}

/** Brings every driving length of a sketch to its former value times a factor. */
function withScaledSizes(part: Part, scaled: Sketch, factor: number): Part {
  const before = valuesOf(part).sizesOf(scaled.id).values
  const lengths = scaled.sizes.filter((s) => !s.reference && s.kind !== 'angle')
  const valueOf = (size: Size): string => splitTolerance(size.formula).value
  const times = (size: Size): string =>
    /^\s*[\d.]+\s*$/.test(size.formula)
      ? String(Number((Number(size.formula) * factor).toPrecision(12)))
      : `(${valueOf(size)}) * ${Number(factor.toPrecision(12))}${size.formula.slice(valueOf(size).length)}`
  const rewritten = (here: Part, size: Size): Part => {
    const sketch = here.sketches.find((s) => s.id === scaled.id) ?? scaled
    const changed = { ...size, formula: times(size) }
    return withSketch(here, {
      ...sketch,
      sizes: sketch.sizes.map((s) => (s.id === size.id ? changed : s)),
    })
  }
  const plain = lengths.filter((s) => /^\s*[\d.]+\s*$/.test(s.formula))
  const first = plain.reduce(rewritten, withSketch(part, scaled))
  // What reads scaled sizes has scaled with them; what does not is multiplied.
  return lengths.reduce((here, size) => {
    const wanted = (before.get(size.id) ?? NaN) * factor
    const is = valuesOf(here).sizesOf(scaled.id).values.get(size.id) ?? NaN
    return Math.abs(is - wanted) <= 1e-9 * wanted || Number.isNaN(wanted)
      ? here
      : rewritten(here, size)
  }, first)
}

/** Puts labels of sizes at places, in mm from the middle of what each measures, or back in their rows. */
export function placeLabels(
  sketchId: string,
  places: ReadonlyMap<string, { readonly x: number; readonly y: number } | undefined>,
): Command {
  return sketchCommand('move label', sketchId, (sketch) =>
    succeed({
      ...sketch,
      sizes: sketch.sizes.map((size) => {
        if (!places.has(size.id)) return size
        const { label: _, ...rest } = size
        const place = places.get(size.id)
        return place ? { ...rest, label: place } : rest
      }),
    }),
  )
}

/**
 * Gives a size another formula. A formula that cannot be read is refused; a value that cannot hold
 * is kept, so that nothing typed is lost, and the sketch says who disagrees.
 */
export function changeSize(sketchId: string, sizeId: string, formula: string): Command {
  return sketchCommand('change size', sketchId, (sketch, part) => {
    const size = sketch.sizes.find((s) => s.id === sizeId)
    if (!size) return fail('size.gone', 'This size is gone.', 'Pick another.')
    if (size.formula === formula && !size.reference) return succeed(sketch)
    const changed = { ...size, formula, reference: false }
    const sizes = sketch.sizes.map((s) => (s.id === sizeId ? changed : s))
    const next = { ...sketch, sizes }
    const nextPart = withSketch(part, next)
    const problem = valuesOf(nextPart).sizesOf(sketchId).problems.get(sizeId)
    if (problem) return { ok: false, problem }
    const value = valuesOf(nextPart).sizesOf(sketchId).values.get(sizeId) ?? 0
    const tight = refuseDistance(sketch, size, value, part.units)
    if (tight) return { ok: false, problem: tight }
    const against = size.reference ? disagreementWith(nextPart, sketchId, [sizeId]) : undefined
    return against ? refuseSize(sketch, against, sizeId) : succeed(next)
  })
}

/** Lets a size only report, or drive again with what it measures. */
export function setReference(sketchId: string, sizeId: string, reference: boolean): Command {
  return sketchCommand(reference ? 'make reference' : 'make driving', sketchId, (sketch, part) => {
    const size = sketch.sizes.find((s) => s.id === sizeId)
    if (!size) return fail('size.gone', 'This size is gone.', 'Pick another.')
    const formula = size.formula === '' ? measuredFormula(sketch, size, part) : size.formula
    const driving = { ...size, reference, formula: reference ? size.formula : formula }
    const next = { ...sketch, sizes: sketch.sizes.map((s) => (s.id === sizeId ? driving : s)) }
    if (reference) return succeed(next)
    const nextPart = withSketch(part, next)
    const problem = valuesOf(nextPart).sizesOf(sketchId).problems.get(sizeId)
    if (problem) return { ok: false, problem }
    const against = disagreementWith(nextPart, sketchId, [sizeId])
    return against ? refuseSize(sketch, against, sizeId) : succeed(next)
  })
}

/** What a size measures now, as a formula in the part's units with digits to spare. */
function measuredFormula(sketch: Sketch, size: Size, part: Part): string {
  const value = measureSize(size, entityMap(sketch), locator(sketch))
  return String(Number((value / unitScale(measureOf(size), part.units)).toPrecision(12)))
}

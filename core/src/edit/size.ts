import { evaluateFormula } from '../formula'
import { fail, succeed, type Result } from '../result'
import { measureOf, sizeProblem, valuesOf, type Part } from '../part'
import {
  AXIS_ID,
  entityMap,
  locator,
  measureSize,
  signedAngle,
  type Size,
  type Sketch,
} from '../sketch'
import { nameItems } from '../route'
import { unitScale } from '../units'
import { disagreementWith } from './disagreement'
import { sketchCommand, withSketch, type Command } from './command'
import { takeId } from './draw'
import type { Picks } from './tie'

type Unnamed<S> = S extends Size ? Omit<S, 'id' | 'name' | 'formula' | 'reference'> : never

/** What a size would measure, before it has a name and a value. */
export type SizeOffer = Unnamed<Size>

/**
 * What can be sized on picks, the likeliest first: lines give their length, and their diameter when
 * they run along the axis; points with the axis give diameters, two points their axial distance,
 * lines with lines or the axis angles.
 */
export function fittingSizes(sketch: Sketch, picks: Picks): SizeOffer[] {
  const lines = entityMap(sketch)
  const locate = locator(sketch)
  const line = picks.find((id) => lines.has(id))
  const other = picks.find((id) => id !== line && lines.has(id))
  const points = picks.filter((id) => sketch.points.some((p) => p.id === id))
  const [a, b] = points
  const entity = line === undefined ? undefined : lines.get(line)
  if (picks.length === 1 && line !== undefined && entity) {
    const from = locate(entity.from)
    const to = locate(entity.to)
    const length: SizeOffer = { kind: 'length', line }
    if (Math.abs(to.y - from.y) < 1e-6) return [length, { kind: 'diameter', point: entity.from }]
    if (Math.abs(to.x - from.x) < 1e-6) return [length]
    return [
      length,
      angleOffer(sketch, line, AXIS_ID),
      { kind: 'axialDistance', a: entity.from, b: entity.to },
    ]
  }
  if (picks.length === 1 && a !== undefined) return [{ kind: 'diameter', point: a }]
  if (picks.length !== 2) return []
  if (picks.includes(AXIS_ID)) {
    if (a !== undefined) return [{ kind: 'diameter', point: a }]
    if (line === undefined || !entity) return []
    const slanted = Math.abs(locate(entity.to).y - locate(entity.from).y) > 1e-6
    return slanted
      ? [angleOffer(sketch, line, AXIS_ID)]
      : [{ kind: 'diameter', point: entity.from }]
  }
  if (a !== undefined && b !== undefined) return [{ kind: 'axialDistance', a, b }]
  if (a !== undefined && picks.includes('origin'))
    return [{ kind: 'axialDistance', a: 'origin', b: a }]
  if (line !== undefined && other !== undefined && entity) {
    const second = lines.get(other)
    const angle = angleOffer(sketch, line, other)
    const parallel = Math.abs(Math.sin(signedAngle(angle, lines, locate))) < 1e-6
    if (!parallel) return [angle]
    return second ? [{ kind: 'axialDistance', a: entity.from, b: second.from }] : []
  }
  if (a !== undefined && entity) return [{ kind: 'axialDistance', a, b: entity.from }]
  return []
}

/** The sharp angle of the two that lines make. */
function angleOffer(sketch: Sketch, line: string, to: string): SizeOffer & { kind: 'angle' } {
  const straight = { kind: 'angle' as const, line, to, reversed: false }
  const angle = Math.abs(signedAngle(straight, entityMap(sketch), locator(sketch)))
  return angle > Math.PI / 2 ? { ...straight, reversed: true } : straight
}

const PREFIXES: Readonly<Record<Size['kind'], string>> = {
  length: 'len',
  axialDistance: 'dist',
  diameter: 'dia',
  angle: 'ang',
}

/** What an offer measures where the points stand, in mm or radians. */
export function measureOffer(sketch: Sketch, offer: SizeOffer): number {
  return measureSize(named(offer, '', '', ''), entityMap(sketch), locator(sketch))
}

function named(offer: SizeOffer, id: string, name: string, formula: string): Size {
  return { ...offer, id, name, formula, reference: false }
}

/** A size of the sketch that measures the same thing as an offer. */
export function sameSize(sketch: Sketch, offer: SizeOffer): Size | undefined {
  return sketch.sizes.find((s) =>
    Object.entries(offer).every(([key, value]) => s[key as keyof Size] === value),
  )
}

/**
 * Adds a size. The first size of a profile scales the whole in proportion, so that a rough drawing
 * keeps its shape. A size that cannot hold, or says what others say, is refused with their names.
 */
export function addSize(sketchId: string, offer: SizeOffer, formula: string): Command {
  return {
    label: 'add size',
    run: (part) => {
      const sketch = part.sketches.find((s) => s.id === sketchId)
      if (!sketch) return fail('sketch.gone', 'This profile is gone.', 'Choose another profile.')
      const value = checkFormula(part, offer, formula)
      if (!value.ok) return value
      const [id, grown] = takeId(sketch, 's')
      const size = named(offer, id, freeName(part, PREFIXES[offer.kind]), formula)
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
    const size = { ...named(offer, id, freeName(part, PREFIXES[offer.kind]), ''), reference: true }
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
  const fixed = sketch.constraints.some((c) => c.kind === 'fixed')
  if (!first || fixed || now <= 0) return sketch
  const factor = value / now
  return {
    ...sketch,
    points: sketch.points.map((p) => ({ ...p, x: p.x * factor, y: p.y * factor })),
  }
}

/** A name no value or size of the part has yet. */
export function freeName(part: Part, prefix: string): string {
  const taken = new Set([
    ...part.values.map((v) => v.name),
    ...part.sketches.flatMap((s) => s.sizes.map((size) => size.name)),
  ])
  let n = 1
  while (taken.has(`${prefix}${n}`)) n++
  return `${prefix}${n}`
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
    const problem = valuesOf(nextPart).problems.get(sizeId)
    if (problem) return { ok: false, problem }
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
    const problem = valuesOf(nextPart).problems.get(sizeId)
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

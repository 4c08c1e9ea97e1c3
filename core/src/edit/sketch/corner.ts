import { LENGTH_ROUNDING, PARAMETER_TOLERANCE } from '../../tolerances'
import { referencesOf } from '../../constraints'
import { evaluateFormula } from '../../formula'
import { fail, succeed, type Problem, type Result } from '../../result'
import {
  add,
  arc,
  cross,
  distance,
  line,
  meetingsOf,
  nearestOn,
  pointAt,
  radiusOf,
  scale,
  subtract,
  unit,
  type Piece,
  type Vec,
} from '../../geometry'
import {
  endsOf,
  locator,
  pieceOf,
  type Entity,
  type Size,
  type Sketch,
  isFree,
  type Ended,
  type FreeCurve,
  type SketchParallel,
} from '../../sketch'
import { valuesOf, type Part } from '../../part'
import { formatLength, type UnitSettings } from '../../units'
import { withSketch, type Command } from '../command'
import { placeDraft, type DraftSize } from './draft'
import type { NewConstraint } from '../../constraints'
import { betweenEnds } from './modify'
import { without } from './remove'

/** The two curves of an outline that meet in a corner. */
/** A line or an arc. */
type PlainEnded = Exclude<Ended, FreeCurve | SketchParallel>

function cornerOf(sketch: Sketch, point: string): readonly [Ended, Ended] | undefined {
  const ended = sketch.entities.filter((e) => e.kind !== 'circle')
  const [first, second, more] = ended.filter((e) => endsOf(e).includes(point))
  return first && second && !more ? [first, second] : undefined
}

/** Whether a point is a corner that can be rounded or bevelled. */
export function isCorner(sketch: Sketch, point: string): boolean {
  return cornerOf(sketch, point) !== undefined
}

/** What a corner is replaced by: a new end on either curve, and what joins them. */
interface Replacement {
  readonly feet: readonly [Vec, Vec]
  /** For a rounding: the centre and the way it turns. */
  readonly round?: { readonly centre: Vec; readonly counterClockwise: boolean }
}

/**
 * Rounds a corner of the sketch. The curves end where the rounding begins; sizes that measured to the
 * corner still do, since the corner stays as a point on both where anything stands on it.
 */
export function filletCorner(sketchId: string, point: string, formula: string): Command {
  return cornerCommand(
    'round corner',
    sketchId,
    point,
    formula,
    (sketch, [a, b], radius, units) => {
      const locate = locator(sketch)
      const found = rounding(pieceOf(a, locate), pieceOf(b, locate), locate(point), radius)
      if (found) return succeed(found)
      const most = largestRounding(pieceOf(a, locate), pieceOf(b, locate), locate(point))
      return { ok: false, problem: tooLarge('radius', most, units) }
    },
  )
}

/** Bevels a corner between two lines by the same length on both. */
export function chamferCorner(sketchId: string, point: string, formula: string): Command {
  return cornerCommand(
    'bevel corner',
    sketchId,
    point,
    formula,
    (sketch, [a, b], length, units) => {
      if (a.kind !== 'line' || b.kind !== 'line') {
        return fail(
          'corner.curve',
          'Only corners between lines can be bevelled.',
          'Round it instead.',
        )
      }
      const locate = locator(sketch)
      const corner = locate(point)
      const others = [a, b].map((e) => locate(e.from === point ? e.to : e.from))
      const most = Math.min(...others.map((p) => distance(p, corner)))
      if (length >= most) return { ok: false, problem: tooLarge('length', most, units) }
      const [p = corner, q = corner] = others.map((other) =>
        add(corner, scale(unit(subtract(other, corner)), length)),
      )
      return succeed({ feet: [p, q] as const })
    },
  )
}

function tooLarge(what: string, most: number, units: UnitSettings): Problem {
  return {
    code: 'corner.large',
    message: `This ${what} leaves nothing of the lines beside the corner.`,
    mend: `It has to be less than ${formatLength(most, units)} ${units.length}.`,
  }
}

function cornerCommand(
  label: string,
  sketchId: string,
  point: string,
  formula: string,
  replace: (
    sketch: Sketch,
    curves: readonly [PlainEnded, PlainEnded],
    value: number,
    units: UnitSettings,
  ) => Result<Replacement>,
): Command {
  return {
    label,
    run: (part) => {
      const sketch = part.sketches.find((s) => s.id === sketchId)
      const curves = sketch && cornerOf(sketch, point)
      if (!curves) {
        return fail('corner.none', 'No two lines meet here.', 'Pick a corner between two lines.')
      }
      const [one, two] = curves
      if (isFree(one) || isFree(two) || one.kind === 'parallel' || two.kind === 'parallel') {
        const mend = 'Turn the profile, and put the round or bevel on as a step.'
        return fail('corner.free', 'A corner of a free curve is not worked on here.', mend)
      }
      const value = positiveLength(part, formula)
      if (!value.ok) return value
      const corner = [one, two] as const
      const found = replace(sketch, corner, value.value, part.units)
      return found.ok ? withoutCorner(part, sketch, point, corner, found.value, formula) : found
    },
  }
}

function positiveLength(part: Part, formula: string): Result<number> {
  const lookup = valuesOf(part).table.lookup
  const value = evaluateFormula(formula, { want: 'length', units: part.units, lookup })
  if (!value.ok || value.value > 0) return value
  return fail('corner.size', 'This has to be greater than zero.', 'Type a length.')
}

/** Ends both curves at their feet, joins them, and keeps the corner if anything stands on it. */
function withoutCorner(
  part: Part,
  sketch: Sketch,
  point: string,
  [a, b]: readonly [PlainEnded, PlainEnded],
  { feet, round }: Replacement,
  formula: string,
): Result<Part> {
  const measured = sketch.sizes.map((s): Size => {
    const whole = [a, b].find((e) => s.kind === 'length' && s.line === e.id)
    return whole && s.kind === 'length' ? betweenEnds(sketch, s, whole) : s
  })
  const shortened = { ...sketch, sizes: measured }
  const stands = [...shortened.constraints, ...measured].some((item) =>
    referencesOf(item).includes(point),
  )
  const keep = stands || !round
  const locate = locator(sketch)
  const corner = locate(point)
  const kept: NewConstraint[] = [a, b].map((e) => ({ kind: 'pointOn', point, curve: e.id }))
  const join: Entity = round
    ? {
        ...{ id: '~join', kind: 'arc', from: '~p', to: '~q', centre: '~m', role: a.role },
        counterClockwise: round.counterClockwise,
      }
    : { id: '~join', kind: 'line', from: '~p', to: '~q', role: a.role }
  // The feet are drawn first and the curves then end on them.
  const placed = placeDraft(withSketch(part, shortened), sketch.id, {
    points: {
      '~p': { at: feet[0] },
      '~q': { at: feet[1] },
      ...(round ? { '~m': { at: round.centre } } : {}),
    },
    entities: [join],
  })
  if (!placed.ok) return placed
  const { ids, part: drawn } = placed.value
  const grown = drawn.sketches.find((s) => s.id === sketch.id) ?? shortened
  const endingAt = (e: PlainEnded, foot: string): Entity =>
    e.from === point ? { ...e, from: foot } : { ...e, to: foot }
  const [p, q] = [ids.get('~p') ?? '', ids.get('~q') ?? '']
  const cut: Sketch = {
    ...grown,
    entities: grown.entities.map((e) =>
      e.id === a.id ? endingAt(a, p) : e.id === b.id ? endingAt(b, q) : e,
    ),
  }
  const cleared = keep ? cut : without(cut, new Set([point]))
  const id = ids.get('~join') ?? ''
  const ties: NewConstraint[] = round
    ? [a, b].map((e) => ({ kind: 'tangent', curve: id, to: e.id }))
    : []
  const sizes: DraftSize[] = round
    ? [{ offer: { kind: 'radius', curve: id }, formula }]
    : [p, q].map((foot, i) => ({
        offer: { kind: kindBetween(corner, feet[i] ?? corner), a: point, b: foot },
        formula: i === 0 ? formula : 'corner_first',
        formerName: i === 0 ? 'corner_first' : 'corner_second',
      }))
  const tied = placeDraft(withSketch(drawn, cleared), sketch.id, {
    points: {},
    entities: [],
    ties: [...(keep ? kept : []), ...ties],
    sizes,
  })
  return tied.ok ? succeed(tied.value.part) : tied
}

function kindBetween(p: Vec, q: Vec): 'axialDistance' | 'radialDistance' | 'distance' {
  if (Math.abs(p.y - q.y) < LENGTH_ROUNDING) return 'axialDistance'
  return Math.abs(p.x - q.x) < LENGTH_ROUNDING ? 'radialDistance' : 'distance'
}

/** A circle of a radius that touches both curves beside their corner. */
function rounding(a: Piece, b: Piece, corner: Vec, radius: number): Replacement | undefined {
  const candidates = beside(a, radius).flatMap((p) =>
    beside(b, radius).flatMap((q) => meetingsOf(p, q, LENGTH_ROUNDING).map((m) => m.at)),
  )
  const touching = candidates.flatMap((centre) => {
    const feet = [a, b].map((piece) => nearestOn(piece, centre))
    const [s, t] = feet
    if (!s || !t) return []
    const touches = feet.every((f) => Math.abs(f.distance - radius) <= 1e-6 * Math.max(1, radius))
    const [p, q] = [pointAt(a, s.t), pointAt(b, t.t)]
    const inside = [s.t, t.t].every((v) => v > PARAMETER_TOLERANCE && v < 1 - PARAMETER_TOLERANCE)
    return touches && inside && distance(p, q) > LENGTH_ROUNDING
      ? [{ centre, feet: [p, q] as const }]
      : []
  })
  const best = touching.sort((x, y) => distance(x.centre, corner) - distance(y.centre, corner))[0]
  if (!best) return undefined
  const { centre, feet } = best
  const counterClockwise = cross(subtract(feet[0], centre), subtract(feet[1], centre)) > 0
  return { feet, round: { centre, counterClockwise } }
}

/** A piece moved to either side by a distance. */
function beside(piece: Piece, by: number): Piece[] {
  if (piece.kind === 'line') {
    const u = unit(subtract(piece.to, piece.from))
    const n = scale({ x: -u.y, y: u.x }, by)
    return [1, -1].map((s) => line(add(piece.from, scale(n, s)), add(piece.to, scale(n, s))))
  }
  // A free curve is not rounded in the sketch: its handles would have to follow.
  if (piece.kind === 'cubic') return []
  const radius = radiusOf(piece)
  return [radius + by, radius - by].flatMap((r) => {
    if (r <= LENGTH_ROUNDING) return []
    const end = (p: Vec): Vec => add(piece.centre, scale(subtract(p, piece.centre), r / radius))
    return [arc(end(piece.from), end(piece.to), piece.centre, piece.counterClockwise)]
  })
}

/** The radius up to which a corner can be rounded, to three digits, by halving. */
function largestRounding(a: Piece, b: Piece, corner: Vec): number {
  let [low, high] = [0, 10 * Math.max(distance(a.from, a.to), distance(b.from, b.to))]
  for (let i = 0; i < 40; i++) {
    const middle = (low + high) / 2
    if (rounding(a, b, corner, middle)) low = middle
    else high = middle
  }
  return low
}

import { DRAWN_DIRECTION, VERTEX_TOLERANCE } from '../../tolerances'
import {
  AXIS_ID,
  ORIGIN_ID,
  entityMap,
  isEndSketch,
  isFree,
  isGiven,
  lineEnds,
  locator,
  signedAngle,
  type Size,
  type Sketch,
  type Without,
} from '../../sketch'
import { SIZE_KINDS, isPoint, measureSize, type Picks } from '../../constraints'
import type { Part } from '../../part'

/** What a size would measure, before it has a name and a value. */
export type SizeOffer = Without<Size, 'id' | 'name' | 'formula' | 'reference' | 'label'>

/**
 * What can be sized on picks, the likeliest first. A curve alone gives its length or radius, and
 * lines along the axis their diameter; a point with a line its distance and the span across it;
 * two points their distances; lines with lines or the axis their distance or angle.
 */
export function fittingSizes(sketch: Sketch, picks: Picks): SizeOffer[] {
  const [one, two, more] = picks
  if (one === undefined || more !== undefined) return []
  if (two === undefined) return alone(sketch, one)
  // The order of the two picks does not matter: points before curves, drawn before given ones.
  const rank = (id: string): number => {
    if (id === AXIS_ID) return 3
    if (id === ORIGIN_ID) return 1
    return isPoint(sketch, id) ? 0 : 2
  }
  const [a, b] = rank(one) <= rank(two) ? [one, two] : [two, one]
  if (isPoint(sketch, a)) return isPoint(sketch, b) ? ofPoints(sketch, a, b) : toCurve(sketch, a, b)
  return ofCurves(sketch, a, b)
}

function alone(sketch: Sketch, id: string): SizeOffer[] {
  const isEnd = isEndSketch(sketch)
  if (sketch.points.some((p) => p.id === id)) {
    if (isEnd) return ofPoints(sketch, ORIGIN_ID, id)
    return [
      { kind: 'diameter', point: id },
      { kind: 'radialDistance', a: ORIGIN_ID, b: id },
      { kind: 'axialDistance', a: ORIGIN_ID, b: id },
    ]
  }
  const entity = sketch.entities.find((e) => e.id === id)
  if (!entity) return []
  if (entity.kind === 'circle') {
    return [
      { kind: 'curveDiameter', curve: id },
      { kind: 'radius', curve: id },
    ]
  }
  if (entity.kind === 'arc') {
    return [
      { kind: 'radius', curve: id },
      { kind: 'curveDiameter', curve: id },
      { kind: 'arcLength', curve: id },
    ]
  }
  if (isFree(entity)) {
    const length: SizeOffer = { kind: 'arcLength', curve: id }
    const radius: SizeOffer = { kind: 'leastRadius', curve: id }
    if (isEnd) return [length, radius]
    return [
      { kind: 'greatestDiameter', curve: id },
      { kind: 'leastDiameter', curve: id },
      { kind: 'greatestAt', curve: id },
      { kind: 'leastAt', curve: id },
      length,
      radius,
    ]
  }
  if (entity.kind === 'parallel') {
    return [{ kind: 'gap', item: id, to: entity.of }]
  }
  const [from, to] = lineEnds(entityMap(sketch), locator(sketch), id)
  const length: SizeOffer = { kind: 'length', line: id }
  if (Math.abs(to.y - from.y) < VERTEX_TOLERANCE) {
    const radial: SizeOffer = { kind: 'radialDistance', a: ORIGIN_ID, b: entity.from }
    if (isEnd) return [length, radial]
    return [length, { kind: 'diameter', point: entity.from }, radial]
  }
  if (Math.abs(to.x - from.x) < VERTEX_TOLERANCE) return [length]
  return [
    length,
    angleOffer(sketch, id, AXIS_ID),
    { kind: 'axialDistance', a: entity.from, b: entity.to },
    { kind: 'radialDistance', a: entity.from, b: entity.to },
  ]
}

function ofPoints(sketch: Sketch, p: string, q: string): SizeOffer[] {
  // From the datum point, so that the size runs outwards.
  const [a, b] = q === ORIGIN_ID ? [q, p] : [p, q]
  const locate = locator(sketch)
  const [dx, dy] = [locate(b).x - locate(a).x, locate(b).y - locate(a).y].map(Math.abs)
  const axial: SizeOffer = { kind: 'axialDistance', a, b }
  const radial: SizeOffer = { kind: 'radialDistance', a, b }
  const flat = (dy ?? 0) < VERTEX_TOLERANCE
  const upright = (dx ?? 0) < VERTEX_TOLERANCE
  if (flat) return [axial]
  if (upright) return [radial]
  return [axial, radial, { kind: 'distance', a, b }]
}

function toCurve(sketch: Sketch, point: string, curve: string): SizeOffer[] {
  const entity = sketch.entities.find((e) => e.id === curve)
  if (curve === AXIS_ID) {
    if (isGiven(point)) return []
    const radial: SizeOffer = { kind: 'radialDistance', a: ORIGIN_ID, b: point }
    return isEndSketch(sketch) ? [radial] : [{ kind: 'diameter', point }, radial]
  }
  if (!entity) return []
  if (isFree(entity) || entity.kind === 'parallel') return []
  if (entity.kind !== 'line') return ofPoints(sketch, entity.centre, point)
  const gap: SizeOffer = { kind: 'gap', item: point, to: curve }
  const span: SizeOffer = { kind: 'span', point, about: curve }
  return entity.role === 'centre' ? [span, gap] : [gap, span]
}

function ofCurves(sketch: Sketch, a: string, b: string): SizeOffer[] {
  const entities = entityMap(sketch)
  const locate = locator(sketch)
  const [one, two] = [entities.get(a), entities.get(b)]
  for (const [e, other] of [
    [one, two],
    [two, one],
  ]) {
    if (e?.kind === 'parallel' && e.of === other?.id) return alone(sketch, e.id).slice(0, 1)
  }
  if ([one, two].some((e) => e && (isFree(e) || e.kind === 'parallel'))) return []
  const round = [one, two].find((e) => e?.kind === 'arc' || e?.kind === 'circle')
  if (round?.kind === 'arc' || round?.kind === 'circle') {
    const other = round === one ? two : one
    if (b === AXIS_ID) return toCurve(sketch, round.centre, AXIS_ID)
    if (other?.kind === 'line') return toCurve(sketch, round.centre, other.id)
    if (other?.kind !== 'arc' && other?.kind !== 'circle') return []
    const [p, q] = [locate(round.centre), locate(other.centre)]
    const concentric = Math.hypot(q.x - p.x, q.y - p.y) < VERTEX_TOLERANCE
    if (concentric) return [{ kind: 'gap', item: a, to: b }]
    return ofPoints(sketch, round.centre, other.centre)
  }
  if (one?.kind !== 'line') return []
  const angle = angleOffer(sketch, a, b)
  const parallel = Math.abs(Math.sin(signedAngle(angle, entities, locate))) < DRAWN_DIRECTION
  if (!parallel) return [angle]
  if (b === AXIS_ID) return toCurve(sketch, one.from, AXIS_ID)
  // The distance is measured from a centre line to the other, whichever was picked first.
  const [line, to] = one.role === 'centre' && two?.kind === 'line' ? [two, one] : [one, two]
  if (to?.kind !== 'line') return []
  const gap: SizeOffer = { kind: 'gap', item: line.id, to: to.id }
  const span: SizeOffer = { kind: 'span', point: line.from, about: to.id }
  return to.role === 'centre' ? [span, gap] : [gap]
}

/** The sharp angle of the two that lines make. */
export function angleOffer(
  sketch: Sketch,
  line: string,
  to: string,
): SizeOffer & { kind: 'angle' } {
  const straight = { kind: 'angle' as const, line, to, reversed: false }
  const angle = Math.abs(signedAngle(straight, entityMap(sketch), locator(sketch)))
  return angle > Math.PI / 2 ? { ...straight, reversed: true } : straight
}

/** What an offer measures where the points stand, in mm or radians. */
export function measureOffer(sketch: Sketch, offer: SizeOffer): number {
  return measureSize(named(offer, '', '', ''), entityMap(sketch), locator(sketch))
}

export function named(offer: SizeOffer, id: string, name: string, formula: string): Size {
  return { ...offer, id, name, formula, reference: false }
}

/** A size of the sketch that measures the same thing as an offer. */
export function sameSize(sketch: Sketch, offer: SizeOffer): Size | undefined {
  return sketch.sizes.find((s) =>
    Object.entries(offer).every(([key, value]) => s[key as keyof Size] === value),
  )
}

/** A name for a size of a kind that no value or size of the part has yet. */
export function freeName(part: Part, kind: Size['kind']): string {
  const taken = new Set([
    ...part.values.map((v) => v.name),
    ...part.sketches.flatMap((s) => s.sizes.map((size) => size.name)),
  ])
  const { prefix } = SIZE_KINDS[kind]
  let n = 1
  while (taken.has(`${prefix}${n}`)) n++
  return `${prefix}${n}`
}

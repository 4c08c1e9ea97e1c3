import {
  AXIS_ID,
  cubicsIn,
  entityMap,
  isEndSketch,
  isFree,
  isPlain,
  lineEnds,
  middleOf,
  pieceOf,
  restLocator,
  roundOf,
  type Entities,
  type Locate,
  type Size,
  type Sketch,
} from '../../sketch'
import { add, cross, dot, scale, subtract, unit, vec, type Vec } from '../../geometry'
import { measureOf, signOf } from '../../constraints'
import { DIRECTION_TOLERANCE, VERTEX_TOLERANCE } from '../../tolerances'
import type { UnitSettings } from '../../units'
import { alikeOf } from './alike'
import { sizeText, type Asked, type Shape } from './asked'

/** Where a size of a profile stands on the half-section; undefined where what it is of is not there. */
type ShapeOf<S extends Size> = (size: S, entities: Entities, locate: Locate) => Shape | undefined

const OUT = vec(0, 1)

/** Along the axis, square to it, or neither. */
function between(from: Vec, to: Vec): Shape {
  const [x, y] = [Math.abs(to.x - from.x), Math.abs(to.y - from.y)]
  if (y <= DIRECTION_TOLERANCE * (x + y)) return { kind: 'along', from, to, inside: false }
  if (x <= DIRECTION_TOLERANCE * (x + y)) return { kind: 'radial', from, to }
  return { kind: 'slant', from, to }
}

/** The foot of a place on a line, or on the axis. */
function footOn(entities: Entities, locate: Locate, place: Vec, lineId: string): Vec | undefined {
  if (lineId === AXIS_ID) return vec(place.x, 0)
  if (entities.get(lineId)?.kind !== 'line') return undefined
  const [a, b] = lineEnds(entities, locate, lineId)
  const way = unit(subtract(b, a))
  return add(a, scale(way, dot(subtract(place, a), way)))
}

const onCurve: ShapeOf<Extract<Size, { readonly curve: string }>> = (size, entities, locate) => {
  const entity = entities.get(size.curve)
  if (!entity) return undefined
  const piece = isPlain(entity) ? pieceOf(entity, locate) : undefined
  if (piece?.kind === 'arc') return { kind: 'radius', arc: piece }
  return { kind: 'place', at: middleOf(entity, locate), out: OUT }
}

/** Those sizes that may be of a kind. */
type OfKind<S, K> = S extends { readonly kind: infer Own } ? (K extends Own ? S : never) : never

const SHAPES: { readonly [K in Size['kind']]: ShapeOf<OfKind<Size, K>> } = {
  length: ({ line }, entities, locate) => between(...lineEnds(entities, locate, line)),
  axialDistance: ({ a, b }, _, locate) => ({
    ...{ kind: 'along', from: locate(a), to: locate(b), inside: false },
  }),
  radialDistance: ({ a, b }, _, locate) => ({ kind: 'radial', from: locate(a), to: locate(b) }),
  distance: ({ a, b }, _, locate) => between(locate(a), locate(b)),
  diameter: ({ point }, _, locate) => ({ kind: 'across', at: locate(point), inside: false }),
  span: ({ point, about }, entities, locate) => {
    const at = locate(point)
    if (about === AXIS_ID) return { kind: 'across', at, inside: false }
    const foot = footOn(entities, locate, at, about)
    return foot && between(at, add(at, scale(subtract(foot, at), 2)))
  },
  gap: ({ item, to }, entities, locate) => {
    const [one, two] = [entities.get(item), roundOf(entities.get(to))]
    const round = roundOf(one)
    if (round && two) {
      const centre = locate(round.centre)
      const way = unit(subtract(locate(round.rim), centre))
      const radius = Math.hypot(locate(two.rim).x - centre.x, locate(two.rim).y - centre.y)
      return between(locate(round.rim), add(centre, scale(way, radius)))
    }
    if (one?.kind === 'parallel') return { kind: 'place', at: middleOf(one, locate), out: OUT }
    const at = locate(one?.kind === 'line' ? one.from : item)
    const foot = footOn(entities, locate, at, to)
    return foot && between(at, foot)
  },
  radius: onCurve,
  curveDiameter: onCurve,
  arcLength: onCurve,
  greatestDiameter: (size, entities, locate) => extremeOf(size.curve, 1, entities, locate),
  leastDiameter: (size, entities, locate) => extremeOf(size.curve, -1, entities, locate),
  greatestAt: onCurve,
  leastAt: onCurve,
  leastRadius: onCurve,
  angle: ({ line, to, reversed }, entities, locate) => {
    const one = entities.get(line)
    if (one?.kind !== 'line') return undefined
    const [a, b] = lineEnds(entities, locate, line)
    const other =
      to === AXIS_ID ? ([vec(a.x, 0), vec(a.x + 1, 0)] as const) : lineEnds(entities, locate, to)
    const u = reversed ? unit(subtract(a, b)) : unit(subtract(b, a))
    const v = unit(subtract(other[1], other[0]))
    const turn = cross(u, v)
    if (Math.abs(turn) < DIRECTION_TOLERANCE) return { kind: 'place', at: a, out: OUT }
    const at = add(a, scale(u, cross(subtract(other[0], a), v) / turn))
    return { kind: 'angle', at, one: u, other: v }
  },
}

/** Where a free curve is widest or narrowest. */
function extremeOf(
  curve: string,
  sign: 1 | -1,
  entities: Entities,
  locate: Locate,
): Shape | undefined {
  const entity = entities.get(curve)
  if (!entity || !isFree(entity)) return undefined
  const places = cubicsIn(entity, locate).flatMap((cubic) =>
    Array.from({ length: 65 }, (_, i) => cubicPlace(cubic, i / 64)),
  )
  const at = places.reduce((best, p) => (sign * p.y > sign * best.y ? p : best))
  return { kind: 'across', at, inside: false }
}

/** A place of a cubic by its four points (de Casteljau). */
function cubicPlace(points: readonly Vec[], t: number): Vec {
  let row = points
  while (row.length > 1) {
    row = row.slice(1).map((p, i) => {
      const q = row[i] ?? p
      return vec(q.x + (p.x - q.x) * t, q.y + (p.y - q.y) * t)
    })
  }
  return row[0] ?? vec(0, 0)
}

/** How a size's figure begins. */
const BEFORE: Partial<Record<Size['kind'], string>> = {
  greatestDiameter: 'max. ⌀',
  leastDiameter: 'min. ⌀',
  leastRadius: 'min. R',
  greatestAt: 'max. ⌀ at ',
  leastAt: 'min. ⌀ at ',
}

/** Whether it is of an arc about the axis: turned, that is a ball (ISO 129-1:2018, 9.1). */
const isAboutAxis = (shape: Shape): boolean =>
  shape.kind === 'radius' && Math.abs(shape.arc.centre.y) < VERTEX_TOLERANCE

/** The sizes of a profile, as it stands. */
export function sizesOf(
  sketch: Sketch,
  positions: ReadonlyMap<string, Vec>,
  values: ReadonlyMap<string, number>,
  measured: ReadonlyMap<string, number>,
  units: UnitSettings,
  body: string,
): Asked[] {
  const entities = entityMap(sketch)
  const locate = restLocator(sketch, positions)
  return sketch.sizes.flatMap((size): Asked[] => {
    // References stand in parentheses (ISO 129-1:2018, 9.4), as what they measure.
    const value = size.reference ? measured.get(size.id) : values.get(size.id)
    if (value === undefined) return []
    const shapeOf = SHAPES[size.kind] as ShapeOf<Size>
    const shape = shapeOf(size, entities, locate)
    if (!shape) return []
    const id = `size/${sketch.id}/${size.id}`
    // The sign of a diameter stands for what is seen across the axis.
    const isBall = isAboutAxis(shape) && !isEndSketch(sketch)
    const sign =
      BEFORE[size.kind] ?? (shape.kind === 'across' ? '⌀' : `${isBall ? 'S' : ''}${signOf(size)}`)
    const formula = size.reference ? '' : size.formula
    const alike = alikeOf(size, shape, sketch, entities, locate)
    const before = alike.count > 1 ? `${alike.count} × ${sign}` : sign
    const line = sizeText(value, formula, measureOf(size), units, before)
    const shown = size.reference ? { text: `(${line.text})` } : line
    return [
      {
        ...{ id, shows: size.reference ? [] : [id], shape, lines: [shown], value, body },
        ...(alike.places.length > 0 ? { alike: alike.places } : {}),
      },
    ]
  })
}

import type { Vec } from '../../geometry'
import { lineEnds, type Entities, type Locate, type Size, type Sketch } from '../../sketch'
import { DIRECTION_TOLERANCE } from '../../tolerances'
import type { Shape } from './asked'

/** Where a size holds besides the place it is drawn at. */
export interface Alike {
  /** How many stretches it is told of at once: one where it stands by itself. */
  readonly count: number
  /** The ends of the others. */
  readonly places: readonly (readonly [Vec, Vec])[]
}

const ALONE: Alike = { count: 1, places: [] }

/**
 * What repeats and equal lines and arcs make alike: told once with a count (ISO 129-1:2018, 9.3). What is symmetric is
 * seen by its centre line, and is not counted.
 */
export function alikeOf(
  size: Size,
  shape: Shape,
  sketch: Sketch,
  entities: Entities,
  locate: Locate,
): Alike {
  const isLevel = shape.kind === 'along' || shape.kind === 'slant' || shape.kind === 'radial'
  if (!isLevel && shape.kind !== 'radius') return ALONE
  const ends = endsOf(size, entities)
  const likes = ends ? likesOf(ends, size, sketch, entities) : []
  const told = likes.map(([a, b]): Stretch => [locate(a), locate(b)])
  const own: Stretch[] = isLevel ? [[shape.from, shape.to]] : []
  const seen = mirrored([...own, ...told], sketch, entities, locate)
  return { count: 1 + told.length, places: [...told, ...seen] }
}

type Stretch = readonly [Vec, Vec]
/** The points at the ends of a stretch. */
type Ends = readonly [string, string]

/** The points that a length is between, or at the ends of an arc. */
function endsOf(size: Size, entities: Entities): Ends | undefined {
  switch (size.kind) {
    case 'length':
      return curveEnds(size.line, entities)
    case 'radius':
      return curveEnds(size.curve, entities)
    case 'axialDistance':
    case 'distance':
      return [size.a, size.b]
    default:
      return undefined
  }
}

function curveEnds(id: string, entities: Entities): Ends | undefined {
  const entity = entities.get(id)
  return entity?.kind === 'line' || entity?.kind === 'arc' ? [entity.from, entity.to] : undefined
}

/** All stretches that are like one: in repeats, as equal curves, and those like them in turn. */
function likesOf(own: Ends, size: Size, sketch: Sketch, entities: Entities): Ends[] {
  const isCurve = size.kind === 'length' || size.kind === 'radius'
  const keyOf = ([a, b]: Ends): string => (a < b ? `${a} ${b}` : `${b} ${a}`)
  const found = new Map<string, Ends>([[keyOf(own), own]])
  // A map goes on over what is put into it meanwhile.
  for (const one of found.values()) {
    const equal = isCurve ? equalsOf(one, sketch, entities) : []
    for (const like of [...repeatsOf(one, sketch), ...equal]) {
      if (!found.has(keyOf(like))) found.set(keyOf(like), like)
    }
  }
  return [...found.values()].slice(1)
}

/** The likes of a stretch in repeats of its points: within each copy, or from each copy to the next. */
function repeatsOf([p, q]: Ends, { constraints }: Sketch): Ends[] {
  return constraints.flatMap((c): Ends[] => {
    if (c.kind !== 'repeat') return []
    const rows = [c.points, ...c.copies]
    for (const [k, row] of rows.entries()) {
      const [i, j] = [row.indexOf(p), row.indexOf(q)]
      if (i >= 0 && j >= 0) return rows.flatMap((r) => pair(r[i], r[j]))
      const next = rows[k + 1]
      const on = [i, j].find((n) => n >= 0) ?? -1
      if (next && on >= 0 && [p, q].includes(next[on] ?? '')) {
        return rows.slice(1).flatMap((r, n) => pair(rows[n]?.[on], r[on]))
      }
    }
    return []
  })
}

const pair = (a: string | undefined, b: string | undefined): Ends[] =>
  a === undefined || b === undefined ? [] : [[a, b]]

/** The ends of curves that are equal to the one between two points. */
function equalsOf([p, q]: Ends, { constraints }: Sketch, entities: Entities): Ends[] {
  return constraints.flatMap((c): Ends[] => {
    if (c.kind !== 'equal') return []
    const [one, other] = [curveEnds(c.curve, entities), curveEnds(c.to, entities)]
    const isOwn = (ends: Ends | undefined): boolean =>
      ends !== undefined && ends.includes(p) && ends.includes(q)
    if (isOwn(one) && other) return [other]
    return isOwn(other) && one ? [one] : []
  })
}

/** Where a profile is symmetric along the axis: the places of its centre lines. */
export function symmetryAxes(sketch: Sketch, entities: Entities, locate: Locate): number[] {
  const lines = new Set(
    sketch.constraints.flatMap((c) => (c.kind === 'symmetric' ? [c.about] : [])),
  )
  const places = [...lines].flatMap((id) => {
    if (entities.get(id)?.kind !== 'line') return []
    const [a, b] = lineEnds(entities, locate, id)
    return Math.abs(a.x - b.x) <= DIRECTION_TOLERANCE * Math.abs(a.y - b.y) ? [a.x] : []
  })
  return [...new Set(places)]
}

/** Images of stretches about the profile’s centre lines. */
function mirrored(
  all: readonly Stretch[],
  sketch: Sketch,
  entities: Entities,
  locate: Locate,
): (readonly [Vec, Vec])[] {
  const image = ({ x, y }: Vec, at: number): Vec => ({ x: 2 * at - x, y })
  return symmetryAxes(sketch, entities, locate).flatMap((at) =>
    all.flatMap(([p, q]) => {
      const isOver = Math.abs(p.x + q.x - 2 * at) < 1e-6
      // What lies evenly over a centre line tells how far its ends are from it.
      const half: readonly (readonly [Vec, Vec])[] = isOver ? [[p, { x: at, y: p.y }]] : []
      return [[image(p, at), image(q, at)] as const, ...half]
    }),
  )
}

import {
  cross,
  dot,
  bendRead,
  pointAt,
  scale,
  radiusRead,
  subtract,
  add,
  unit,
  type Vec,
} from '@lathica/core/geometry'
import {
  lineEnds,
  pieceOf,
  cubicsIn,
  nearestOf,
  isFree,
  roundOf,
  type Entities,
  type Locate,
  type Size,
  middleOf,
} from '@lathica/core/sketch'

/** The way a size is measured: along the axis, square to it, straight, or in its own way. */
export type Way = 'axial' | 'radial' | 'straight' | 'across' | 'round' | 'angle'

/** What a size measures: two places in mm, and the way from one to the other. */
export interface Measured {
  readonly ends: readonly [Vec, Vec]
  readonly way: Way
}

/** Directions this near to the axis or to square to it count as such, as a slope. */
const STRAIGHT = 1e-6

export function measured(size: Size, entities: Entities, locate: Locate): Measured {
  switch (size.kind) {
    case 'length': {
      const ends = lineEnds(entities, locate, size.line)
      return { ends, way: wayOf(...ends) }
    }
    case 'axialDistance':
      return { ends: [locate(size.a), locate(size.b)], way: 'axial' }
    case 'radialDistance':
      return { ends: [locate(size.a), locate(size.b)], way: 'radial' }
    case 'distance': {
      const ends = [locate(size.a), locate(size.b)] as const
      return { ends, way: 'straight' }
    }
    case 'diameter': {
      const p = locate(size.point)
      return { ends: [p, { x: p.x, y: -p.y }], way: 'across' }
    }
    case 'span': {
      const p = locate(size.point)
      const foot = footOn(lineEnds(entities, locate, size.about), p)
      const image = subtract(scale(foot, 2), p)
      return { ends: [p, image], way: wayOf(p, image) }
    }
    case 'gap':
      return gapEnds(size, entities, locate)
    case 'radius':
    case 'curveDiameter':
    case 'arcLength': {
      const entity = entities.get(size.curve)
      const round = roundOf(entity)
      const centre = round ? locate(round.centre) : { x: 0, y: 0 }
      const middle = entity
        ? entity.kind === 'circle'
          ? pointAt(pieceOf(entity, locate), 0.125)
          : middleOf(entity, locate)
        : centre
      return { ends: [round ? centre : middle, middle], way: 'round' }
    }
    case 'greatestDiameter':
    case 'leastDiameter': {
      const p = extremeOf(size, entities, locate)
      return { ends: [p, { x: p.x, y: -p.y }], way: 'across' }
    }
    case 'greatestAt':
    case 'leastAt':
      return { ends: [{ x: 0, y: 0 }, extremeOf(size, entities, locate)], way: 'axial' }
    case 'leastRadius': {
      const at = readAt(size.curve, entities, locate, bendRead)
      return { ends: [at, at], way: 'round' }
    }
    case 'angle': {
      const [p, q] = lineEnds(entities, locate, size.line)
      const second = entities.has(size.to) ? lineEnds(entities, locate, size.to) : undefined
      const vertex = second ? (meeting([p, q], second) ?? p) : size.reversed ? q : p
      return { ends: [vertex, vertex], way: 'angle' }
    }
  }
}

/** Where a free curve is farthest out or nearest to the axis. */
function extremeOf(
  { kind, curve }: Extract<Size, { curve: string }>,
  entities: Entities,
  locate: Locate,
): Vec {
  const which = kind === 'leastDiameter' || kind === 'leastAt' ? 'least' : 'greatest'
  return readAt(curve, entities, locate, (cubics) => radiusRead(cubics, which))
}

/** Where on a free curve something is read off. */
function readAt(id: string, entities: Entities, locate: Locate, read: typeof bendRead): Vec {
  const curve = entities.get(id)
  return read(curve && isFree(curve) ? cubicsIn(curve, locate) : []).at
}

function gapEnds(size: Size & { kind: 'gap' }, entities: Entities, locate: Locate): Measured {
  const item = entities.get(size.item)
  const [one, two] = [roundOf(item), roundOf(entities.get(size.to))]
  if (item && one && two) {
    const centre = locate(one.centre)
    const from = middleOf(item, locate)
    const radius = Math.hypot(...xy(subtract(locate(two.rim), locate(two.centre))))
    const to = add(centre, scale(unit(subtract(from, centre)), radius))
    return { ends: [from, to], way: 'straight' }
  }
  if (item?.kind === 'parallel') {
    const from = middleOf(item, locate)
    const near = nearestOf(item.along, locate, from)
    const to = near ? pointAt(near.piece, near.t) : from
    return { ends: [from, to], way: 'straight' }
  }
  const from = item ? middleOf(item, locate) : locate(size.item)
  const to = footOn(lineEnds(entities, locate, size.to), from)
  return { ends: [from, to], way: wayOf(from, to) }
}

const xy = ({ x, y }: Vec): [number, number] => [x, y]

function wayOf(p: Vec, q: Vec): Way {
  const [dx, dy] = [Math.abs(q.x - p.x), Math.abs(q.y - p.y)]
  if (dy <= STRAIGHT * Math.max(1, dx)) return 'axial'
  return dx <= STRAIGHT * Math.max(1, dy) ? 'radial' : 'straight'
}

function footOn([a, b]: readonly [Vec, Vec], p: Vec): Vec {
  const u = unit(subtract(b, a))
  return add(a, scale(u, dot(u, subtract(p, a))))
}

/** Where two lines meet when drawn out; undefined when they are parallel. */
function meeting([p, q]: readonly [Vec, Vec], [a, b]: readonly [Vec, Vec]): Vec | undefined {
  const [d, e] = [subtract(q, p), subtract(b, a)]
  const determinant = cross(d, e)
  if (Math.abs(determinant) < 1e-12) return undefined
  return add(p, scale(d, cross(subtract(a, p), e) / determinant))
}

/** How far what a size measures reaches, in mm: of an angle, the line it is of. */
export function reachOf(size: Size, entities: Entities, locate: Locate): number {
  const [p, q] =
    size.kind === 'angle'
      ? lineEnds(entities, locate, size.line)
      : measured(size, entities, locate).ends
  return Math.hypot(q.x - p.x, q.y - p.y)
}

/** The place in mm that a label's place is told from: the middle of what the size measures. */
export function anchorOf(size: Size, entities: Entities, locate: Locate): Vec {
  const { ends } = measured(size, entities, locate)
  return scale(add(...ends), 0.5)
}

/**
 * What constraints and sizes ask for, told anew from what the words mean: residuals by plain
 * trigonometry, derivatives by central differences, rank by orthogonalising rows. It shares
 * nothing with the solver.
 */
import type { Constraint, Entity, Size, Sketch } from '@lathica/core/sketch'
import { lengthOfCubic, readOff, type Control } from './cubics'
import type { Place, Places } from './places'

const AXIS = 'axis'
const ORIGIN = 'origin'

export const placesOf = (sketch: Sketch): Map<string, Place> =>
  new Map(sketch.points.map((p) => [p.id, { x: p.x, y: p.y }]))

const at = (places: Places, id: string): Place =>
  id === ORIGIN ? { x: 0, y: 0 } : (places.get(id) ?? { x: NaN, y: NaN })

const far = (p: Place, q: Place): number => Math.hypot(q.x - p.x, q.y - p.y)

const find = (sketch: Sketch, id: string): Entity | undefined =>
  sketch.entities.find((e) => e.id === id)

function ends(sketch: Sketch, places: Places, id: string): [Place, Place] {
  if (id === AXIS)
    return [
      { x: 0, y: 0 },
      { x: 1, y: 0 },
    ]
  const e = find(sketch, id)
  if (e?.kind !== 'line') throw new Error(`${id} is no line`)
  return [at(places, e.from), at(places, e.to)]
}

function round(sketch: Sketch, places: Places, id: string): { c: Place; r: number } | undefined {
  const e = find(sketch, id)
  if (e?.kind === 'arc')
    return { c: at(places, e.centre), r: far(at(places, e.centre), at(places, e.from)) }
  if (e?.kind === 'circle')
    return { c: at(places, e.centre), r: far(at(places, e.centre), at(places, e.rim)) }
  return undefined
}

/** How far a place stands off the line through two others, signed. */
function off([a, b]: [Place, Place], p: Place): number {
  const l = far(a, b)
  return ((b.x - a.x) * (p.y - a.y) - (b.y - a.y) * (p.x - a.x)) / l
}

const sineOf = ([a, b]: [Place, Place], [c, d]: [Place, Place]): number =>
  ((b.x - a.x) * (d.y - c.y) - (b.y - a.y) * (d.x - c.x)) / (far(a, b) * far(c, d))

const cosineOf = ([a, b]: [Place, Place], [c, d]: [Place, Place]): number =>
  ((b.x - a.x) * (d.x - c.x) + (b.y - a.y) * (d.y - c.y)) / (far(a, b) * far(c, d))

/** What an entity is by its nature: both ends of an arc at one radius, a rim level with its centre. */
export function natureOf(e: Entity, places: Places): number[] {
  if (e.kind === 'circle') return [at(places, e.rim).y - at(places, e.centre).y]
  if (e.kind !== 'arc') return []
  const c = at(places, e.centre)
  return [far(c, at(places, e.from)) - far(c, at(places, e.to))]
}

function sharedEnd(sketch: Sketch, a: string, b: string): string | undefined {
  const endsOf = (e: Entity | undefined): string[] =>
    e && e.kind !== 'circle' ? [e.from, e.to] : []
  return endsOf(find(sketch, a)).find((p) => endsOf(find(sketch, b)).includes(p))
}

/** The curvature of a line, an arc or a cubic at one of its ends, as a vector: from its first two derivatives. */
function bendOf(sketch: Sketch, places: Places, id: string, end: string): Place | undefined {
  const e = find(sketch, id)
  if (e?.kind === 'line') return { x: 0, y: 0 }
  if (e?.kind === 'arc') {
    const [c, p] = [at(places, e.centre), at(places, end)]
    const square = far(c, p) ** 2
    return { x: (c.x - p.x) / square, y: (c.y - p.y) / square }
  }
  if (e?.kind !== 'curve') return undefined
  const row = [e.from, e.fromHandle, e.toHandle, e.to].map((p) => at(places, p))
  const [a, b, c] = e.from === end ? row : [...row].reverse()
  if (!a || !b || !c) return undefined
  const first = { x: 3 * (b.x - a.x), y: 3 * (b.y - a.y) }
  const second = { x: 6 * (a.x - 2 * b.x + c.x), y: 6 * (a.y - 2 * b.y + c.y) }
  const k = (first.x * second.y - first.y * second.x) / Math.hypot(first.x, first.y) ** 4
  return { x: -k * first.y, y: k * first.x }
}

/** Residuals of a constraint, in mm (angles times 10 mm). */
export function constraintResiduals(sketch: Sketch, c: Constraint, places: Places): number[] {
  const p = (id: string): Place => at(places, id)
  const line = (id: string): [Place, Place] => ends(sketch, places, id)
  switch (c.kind) {
    case 'coincident':
      return [p(c.a).x - p(c.b).x, p(c.a).y - p(c.b).y]
    case 'axial': {
      const [a, b] = line(c.line)
      return [b.y - a.y]
    }
    case 'radial': {
      const [a, b] = line(c.line)
      return [b.x - a.x]
    }
    case 'inLine':
      return c.along === 'axial' ? [p(c.a).y - p(c.b).y] : [p(c.a).x - p(c.b).x]
    case 'fixed':
    case 'linked':
      return [p(c.point).x - c.x, p(c.point).y - c.y]
    case 'pointOn': {
      const circle = round(sketch, places, c.curve)
      if (circle) return [far(circle.c, p(c.point)) - circle.r]
      return [off(line(c.curve), p(c.point))]
    }
    case 'parallel':
      return [10 * sineOf(line(c.line), line(c.to))]
    case 'perpendicular':
      return [10 * cosineOf(line(c.line), line(c.to))]
    case 'equal': {
      const size = (id: string): number => {
        const circle = round(sketch, places, id)
        return circle ? circle.r : far(...line(id))
      }
      return [size(c.curve) - size(c.to)]
    }
    case 'concentric': {
      const [a, b] = [round(sketch, places, c.curve), round(sketch, places, c.to)]
      return a && b ? [a.c.x - b.c.x, a.c.y - b.c.y] : []
    }
    case 'tangent': {
      const shared = sharedEnd(sketch, c.curve, c.to)
      // At an end they share, the way to the centre is square to the line: there the distance says nothing.
      if (shared) {
        const [one, two] = [find(sketch, c.curve), find(sketch, c.to)]
        const lineOf = one?.kind === 'line' ? c.curve : c.to
        const arc = one?.kind === 'arc' ? one : two?.kind === 'arc' ? two : undefined
        if (!arc) return []
        return [10 * cosineOf(line(lineOf), [p(arc.centre), p(shared)])]
      }
      const [a, b] = [round(sketch, places, c.curve), round(sketch, places, c.to)]
      if (a && b) {
        const gap = far(a.c, b.c)
        const [outside, inside] = [gap - a.r - b.r, gap - Math.abs(a.r - b.r)]
        return [Math.abs(outside) < Math.abs(inside) ? outside : inside]
      }
      const circle = a ?? b
      return circle ? [Math.abs(off(line(a ? c.to : c.curve), circle.c)) - circle.r] : []
    }
    case 'curvature': {
      const shared = sharedEnd(sketch, c.curve, c.to)
      if (!shared) return []
      const [one, two] = [c.curve, c.to].map((id) => bendOf(sketch, places, id, shared))
      const curve = find(sketch, c.curve)
      if (!one || !two || curve?.kind !== 'curve') return []
      // Across the curve, times the square of 10 mm, as a length.
      const p = at(places, shared)
      const q = at(places, curve.from === shared ? curve.fromHandle : curve.toHandle)
      const across = { x: (p.y - q.y) / far(p, q), y: (q.x - p.x) / far(p, q) }
      return [100 * ((one.x - two.x) * across.x + (one.y - two.y) * across.y)]
    }
    case 'midpoint': {
      const [a, b] = line(c.line)
      return [p(c.point).x - (a.x + b.x) / 2, p(c.point).y - (a.y + b.y) / 2]
    }
    case 'symmetric': {
      const [a, b] = [p(c.a), p(c.b)]
      const middle = { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 }
      if (c.about !== AXIS && !find(sketch, c.about)) {
        return [middle.x - p(c.about).x, middle.y - p(c.about).y]
      }
      const mirror = line(c.about)
      const [m, n] = mirror
      const along = ((n.x - m.x) * (b.x - a.x) + (n.y - m.y) * (b.y - a.y)) / far(m, n)
      return [off(mirror, middle), along]
    }
    case 'repeat': {
      const rows = [c.points, ...c.copies]
      const [first, second] = [rows[0]?.[0] ?? '', rows[1]?.[0] ?? '']
      const pitch = { x: p(second).x - p(first).x, y: p(second).y - p(first).y }
      const way =
        c.along === 'axial'
          ? pitch.y
          : c.along === 'radial'
            ? pitch.x
            : off(line(c.along), p(second)) - off(line(c.along), p(first))
      const steps = c.copies.flatMap((row, k) =>
        row.flatMap((id, j) => {
          const before = p(rows[k]?.[j] ?? '')
          if (k === 0 && j === 0) return []
          return [p(id).x - before.x - pitch.x, p(id).y - before.y - pitch.y]
        }),
      )
      return [way, ...steps]
    }
  }
}

const controlOf = (e: Entity & { kind: 'curve' }, places: Places): Control => [
  at(places, e.from),
  at(places, e.fromHandle),
  at(places, e.toHandle),
  at(places, e.to),
]

/** What a size measures, in mm or radians. */
export function measured(sketch: Sketch, size: Size, places: Places): number {
  const p = (id: string): Place => at(places, id)
  const line = (id: string): [Place, Place] => ends(sketch, places, id)
  switch (size.kind) {
    case 'length':
      return far(...line(size.line))
    case 'distance':
      return far(p(size.a), p(size.b))
    case 'axialDistance':
      return Math.abs(p(size.a).x - p(size.b).x)
    case 'radialDistance':
      return Math.abs(p(size.a).y - p(size.b).y)
    case 'diameter':
      return 2 * Math.abs(p(size.point).y)
    case 'span':
      return 2 * Math.abs(off(line(size.about), p(size.point)))
    case 'gap': {
      const [a, b] = [round(sketch, places, size.item), round(sketch, places, size.to)]
      if (a && b) return Math.abs(a.r - b.r)
      const item = find(sketch, size.item)
      return Math.abs(off(line(size.to), p(item?.kind === 'line' ? item.from : size.item)))
    }
    case 'radius':
      return round(sketch, places, size.curve)?.r ?? NaN
    case 'curveDiameter':
      return 2 * (round(sketch, places, size.curve)?.r ?? NaN)
    case 'arcLength': {
      const e = find(sketch, size.curve)
      if (e?.kind === 'curve') return lengthOfCubic(controlOf(e, places))
      if (e?.kind !== 'arc') return NaN
      const c = p(e.centre)
      const from = Math.atan2(p(e.from).y - c.y, p(e.from).x - c.x)
      const to = Math.atan2(p(e.to).y - c.y, p(e.to).x - c.x)
      const turn = (e.counterClockwise ? to - from : from - to) % (2 * Math.PI)
      return far(c, p(e.from)) * (turn > 0 ? turn : turn + 2 * Math.PI)
    }
    case 'greatestDiameter':
    case 'leastDiameter':
    case 'greatestAt':
    case 'leastAt':
    case 'leastRadius': {
      const e = find(sketch, size.curve)
      return e?.kind === 'curve' ? readOff(controlOf(e, places), size.kind) : NaN
    }
    case 'angle': {
      const [c, s] = [
        cosineOf(line(size.line), line(size.to)),
        sineOf(line(size.line), line(size.to)),
      ]
      return Math.atan2(Math.abs(s), size.reversed ? -c : c)
    }
  }
}

/**
 * On which sides all is measured at a place: the signs of what a residual reads only the size of, and of what
 * turns at the corners between two outline pieces.
 */
export function sidesOf(sketch: Sketch, places: Places): number[] {
  const p = (id: string): Place => at(places, id)
  const line = (id: string): [Place, Place] => ends(sketch, places, id)
  const ofConstraint = (c: Constraint): number[] => {
    switch (c.kind) {
      case 'parallel':
        return [cosineOf(line(c.line), line(c.to))]
      case 'perpendicular':
        return [sineOf(line(c.line), line(c.to))]
      case 'tangent': {
        const [a, b] = [round(sketch, places, c.curve), round(sketch, places, c.to)]
        if (a && b) return [a.r - b.r, far(a.c, b.c) - Math.max(a.r, b.r)]
        const circle = a ?? b
        return circle ? [off(line(a ? c.to : c.curve), circle.c)] : []
      }
      default:
        return []
    }
  }
  const ofSize = (size: Size): number[] => {
    switch (size.kind) {
      case 'axialDistance':
        return [p(size.a).x - p(size.b).x]
      case 'radialDistance':
        return [p(size.a).y - p(size.b).y]
      case 'diameter':
        return [p(size.point).y]
      case 'span':
        return [off(line(size.about), p(size.point))]
      case 'gap': {
        const [a, b] = [round(sketch, places, size.item), round(sketch, places, size.to)]
        if (a && b) return [a.r - b.r]
        const item = find(sketch, size.item)
        return [off(line(size.to), p(item?.kind === 'line' ? item.from : size.item))]
      }
      case 'angle':
        return [sineOf(line(size.line), line(size.to))]
      default:
        return []
    }
  }
  // A line that others make level has its direction from what measures along it.
  const directions = sketch.entities.flatMap((e) => {
    if (e.kind !== 'line') return []
    const [a, b] = line(e.id)
    const level = Math.abs(b.y - a.y) < Math.abs(b.x - a.x)
    return [level ? b.x - a.x : b.y - a.y]
  })
  const corners = sketch.entities.flatMap((one, i) =>
    sketch.entities.slice(i + 1).flatMap((two) => {
      if (one.kind !== 'line' || two.kind !== 'line') return []
      return sharedEnd(sketch, one.id, two.id) ? [sineOf(line(one.id), line(two.id))] : []
    }),
  )
  const arcs = sketch.entities.flatMap((e) =>
    e.kind === 'arc' ? [off([p(e.from), p(e.to)], p(e.centre))] : [],
  )
  const signed = [
    ...sketch.constraints.flatMap(ofConstraint),
    ...sketch.sizes.flatMap(ofSize),
    ...directions,
    ...corners,
    ...arcs,
  ]
  return signed.map(Math.sign)
}

const ANGLE_ARM = 10

/** All residuals of a sketch in mm, with whose they are; '' for what entities are by nature. */
export function residuals(
  sketch: Sketch,
  values: ReadonlyMap<string, number>,
  places: Places,
): { owner: string; off: number }[] {
  return [
    ...sketch.entities.flatMap((e) => natureOf(e, places).map((r) => ({ owner: '', off: r }))),
    ...sketch.constraints.flatMap((c) =>
      constraintResiduals(sketch, c, places).map((r) => ({ owner: c.id, off: r })),
    ),
    ...sketch.sizes
      .filter((s) => values.has(s.id))
      .map((s) => ({
        owner: s.id,
        off:
          (measured(sketch, s, places) - (values.get(s.id) ?? 0)) *
          (s.kind === 'angle' ? ANGLE_ARM : 1),
      })),
  ]
}

/** Rows orthogonal to one another, to which further rows are added one by one. */
export interface Basis {
  /** How much of a row, of length 1, is not in what is there yet; the row is added when that is enough. */
  readonly add: (row: Float64Array, least: number) => number
  readonly rank: () => number
  readonly mark: () => number
  readonly back: (to: number) => void
}

export function emptyBasis(): Basis {
  const rows: Float64Array[] = []
  return {
    add: (given, least) => {
      const row = given.slice()
      const size = Math.hypot(...row)
      if (size < 1e-3) return 0
      for (let i = 0; i < row.length; i++) row[i] = (row[i] ?? 0) / size
      for (let twice = 0; twice < 2; twice++) {
        for (const other of rows) {
          let dot = 0
          for (let i = 0; i < row.length; i++) dot += (row[i] ?? 0) * (other[i] ?? 0)
          for (let i = 0; i < row.length; i++) row[i] = (row[i] ?? 0) - dot * (other[i] ?? 0)
        }
      }
      const left = Math.hypot(...row)
      if (left >= least) rows.push(row.map((v) => v / left))
      return left
    },
    rank: () => rows.length,
    mark: () => rows.length,
    back: (to) => {
      rows.length = to
    },
  }
}

/** Derivatives of residuals by all points' coordinates, by central differences. */
export function gradients(
  ids: readonly string[],
  places: Places,
  residualsAt: (places: Places) => number[],
): Float64Array[] {
  const moved = new Map([...places].map(([id, p]) => [id, { ...p }]))
  const h = 1e-5
  const columns = ids.flatMap((id) => {
    const p = moved.get(id)
    if (!p) return []
    return (['x', 'y'] as const).map((way) => {
      const kept = p[way]
      p[way] = kept + h
      const more = residualsAt(moved)
      p[way] = kept - h
      const less = residualsAt(moved)
      p[way] = kept
      return more.map((m, i) => (m - (less[i] ?? 0)) / (2 * h))
    })
  })
  return (columns[0] ?? []).map((_, row) => Float64Array.from(columns, (c) => c[row] ?? 0))
}

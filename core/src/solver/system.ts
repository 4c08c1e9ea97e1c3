import { VERTEX_TOLERANCE } from '../tolerances'
import { AXIS_ID, ORIGIN_ID, entityMap, locator, signedAngle, type Sketch } from '../sketch'
import {
  angleEquation,
  equalLengthEquation,
  lengthEquation,
  pointOnLineEquation,
  symmetryEquations,
  weightedEquation,
  type Equation,
} from './equations'
import { createLinearGraph, type Circle, type LinearGraph } from './linearGraph'

/** Values of the driving sizes by size id, in mm and radians. */
export type SizeValues = ReadonlyMap<string, number>

/**
 * A sketch as numbers: coordinates merged into unknowns, and equations between what is left.
 * Coordinate 2·i is x and 2·i + 1 is y of point i; the last point is the origin, which stands still.
 */
export interface System {
  readonly pointIds: readonly string[]
  /** Where the points stand at the start, 2 per point, in mm. */
  readonly start: Float64Array
  /** For each coordinate its unknown, or −1 when it is held by ties alone. */
  readonly unknownOf: Int32Array
  /** For each coordinate its value less its unknown's, or its held value, in mm. */
  readonly offsetOf: Float64Array
  readonly unknowns: number
  readonly equations: readonly Equation[]
  /** Ties that close a circle with earlier ones: what says the same, or disagrees. */
  readonly circles: readonly Circle[]
  /** The ties that hold two coordinates together. */
  readonly reasonsBetween: (a: number, b: number) => string[]
  /** The extent of the sketch in mm, by which steps and tolerances are scaled. */
  readonly extent: number
}

/**
 * Builds the system of a sketch.
 * @param values driving sizes by id; sizes that are absent are not applied
 * @param keep which constraints and sizes to take; all when left out
 */
export function buildSystem(
  sketch: Sketch,
  values: SizeValues,
  keep: (id: string) => boolean = () => true,
): System {
  const pointIds = [...sketch.points.map((p) => p.id), ORIGIN_ID]
  const indexOf = new Map(pointIds.map((id, i) => [id, i]))
  const lines = entityMap(sketch)
  const count = pointIds.length
  const start = new Float64Array(2 * count)
  sketch.points.forEach((p, i) => {
    start[2 * i] = p.x
    start[2 * i + 1] = p.y
  })
  const extent = extentOf(start)
  const graph = createLinearGraph(2 * count)
  const circles: Circle[] = []
  const equations: Equation[] = []
  const index = (id: string): number => indexOf.get(id) ?? count - 1
  const x = (i: number): number => 2 * i
  const y = (i: number): number => 2 * i + 1
  const coordinate = (c: number): number => start[c] ?? 0
  const groundX = x(count - 1)
  const groundY = y(count - 1)
  // Both coordinates of the origin are one held class, so that every held value hangs on one root.
  graph.tie(groundX, groundY, 0, '')
  const tie: Tie = (a, b, difference, reason, support) => {
    const circle = graph.tie(a, b, difference, reason, support)
    if (circle) circles.push(circle)
  }
  const locate = locator(sketch)
  const NOWHERE = [0, 0] as const
  const ends = (id: string): readonly [number, number] | undefined => {
    const line = lines.get(id)
    return line && [index(line.from), index(line.to)]
  }
  /** The difference keeps its sign from where the points stand. */
  const signed = (a: number, b: number, size: number): number =>
    coordinate(b) < coordinate(a) ? -size : size

  for (const c of sketch.constraints) {
    if (!keep(c.id)) continue
    switch (c.kind) {
      case 'coincident': {
        const [a, b] = [index(c.a), index(c.b)]
        tie(x(a), x(b), 0, c.id)
        tie(y(a), y(b), 0, c.id)
        break
      }
      case 'axial':
      case 'radial': {
        const [a, b] = ends(c.line) ?? NOWHERE
        if (c.kind === 'axial') tie(y(a), y(b), 0, c.id)
        else tie(x(a), x(b), 0, c.id)
        break
      }
      case 'fixed': {
        const p = index(c.point)
        const closed = [
          graph.tie(groundX, x(p), c.x, c.id),
          graph.tie(groundY, y(p), c.y, c.id),
        ].flatMap((circle) => circle ?? [])
        // A point that is held one way already may still be fixed the other way.
        const partly = closed.length === 1 && closed.every((k) => k.misfit <= VERTEX_TOLERANCE)
        if (!partly) circles.push(...closed)
        break
      }
      case 'pointOnLine':
        if (c.line === AXIS_ID) tie(groundY, y(index(c.point)), 0, c.id)
        break
      case 'inLine': {
        const [a, b] = [index(c.a), index(c.b)]
        if (c.along === 'axial') tie(y(a), y(b), 0, c.id)
        else tie(x(a), x(b), 0, c.id)
        break
      }
      case 'parallel':
      case 'perpendicular': {
        const [first, second] = [ends(c.line) ?? NOWHERE, ends(c.to)]
        const now = signedAngle({ ...c, reversed: false }, lines, locate)
        equations.push(angleEquation(c.id, first, second, nearestTurn(now, c.kind), extent, false))
        break
      }
      case 'equal':
        equations.push(equalLengthEquation(c.id, ends(c.line) ?? NOWHERE, ends(c.to) ?? NOWHERE))
        break
      case 'midpoint': {
        const [a, b] = ends(c.line) ?? NOWHERE
        const p = index(c.point)
        for (const axis of [0, 1]) {
          const terms = [p, a, b].map((i, k) => [2 * i + axis, k === 0 ? 2 : -1] as const)
          equations.push(weightedEquation(c.id, terms))
        }
        break
      }
      case 'symmetric': {
        const [a, b] = [index(c.a), index(c.b)]
        const about = ends(c.about)
        if (about) equations.push(...symmetryEquations(c.id, [a, b], about))
        else {
          tie(x(a), x(b), 0, c.id)
          equations.push(
            weightedEquation(c.id, [
              [y(a), 1],
              [y(b), 1],
            ]),
          )
        }
        break
      }
    }
  }

  const lengths: { owner: string; a: number; b: number; size: number }[] = []
  for (const size of sketch.sizes) {
    const target = values.get(size.id)
    if (size.reference || target === undefined || !keep(size.id)) continue
    switch (size.kind) {
      case 'length': {
        const [a, b] = ends(size.line) ?? NOWHERE
        lengths.push({ owner: size.id, a, b, size: target })
        break
      }
      case 'axialDistance': {
        const [a, b] = [x(index(size.a)), x(index(size.b))]
        tie(a, b, signed(a, b, target), size.id)
        break
      }
      case 'diameter': {
        const c = y(index(size.point))
        tie(groundY, c, coordinate(c) < 0 ? -target / 2 : target / 2, size.id)
        break
      }
      case 'angle': {
        const first = ends(size.line) ?? NOWHERE
        const second = ends(size.to)
        const now = signedAngle(size, lines, locate)
        const turned: readonly [number, number] = size.reversed ? [first[1], first[0]] : first
        const angle = now < 0 ? -target : target
        equations.push(angleEquation(size.id, turned, second, angle, extent))
        break
      }
    }
  }

  const onLines = sketch.constraints.flatMap((c) => {
    const line = c.kind === 'pointOnLine' && keep(c.id) ? ends(c.line) : undefined
    return c.kind === 'pointOnLine' && line ? [{ owner: c.id, p: index(c.point), line }] : []
  })
  const linear = reduceToTies(lengths, onLines, graph, tie, signed)
  for (const l of lengths) {
    if (!linear.has(l.owner)) equations.push(lengthEquation(l.owner, l.a, l.b, l.size))
  }
  for (const c of onLines) {
    if (!linear.has(c.owner)) equations.push(pointOnLineEquation(c.owner, c.p, ...c.line))
  }

  const held = graph.rootOf(groundX)
  const shift = graph.offsetOf(groundX)
  const unknownOf = new Int32Array(2 * count)
  const offsetOf = new Float64Array(2 * count)
  const numbers = new Map<number, number>()
  for (let c = 0; c < 2 * count; c++) {
    const root = graph.rootOf(c)
    if (root === held) {
      unknownOf[c] = -1
      offsetOf[c] = graph.offsetOf(c) - shift
      continue
    }
    const known = numbers.get(root) ?? numbers.size
    numbers.set(root, known)
    unknownOf[c] = known
    offsetOf[c] = graph.offsetOf(c)
  }
  return {
    pointIds,
    start,
    unknownOf,
    offsetOf,
    unknowns: numbers.size,
    equations,
    circles,
    reasonsBetween: graph.reasonsBetween,
    extent,
  }
}

/** The angle that makes lines parallel or square and is nearest to the one they have, in radians. */
function nearestTurn(now: number, kind: 'parallel' | 'perpendicular'): number {
  const quarter = Math.PI / 2
  if (kind === 'perpendicular') return now < 0 ? -quarter : quarter
  return Math.abs(now) <= quarter ? 0 : Math.PI
}

type Tie = (...args: Parameters<LinearGraph['tie']>) => void

/**
 * Lengths of lines that run axially or radially by other ties, and points on such lines, are ties
 * themselves. Each may make further lines straight, so this goes on until nothing changes.
 * @returns the owners that became ties
 */
function reduceToTies(
  lengths: readonly { owner: string; a: number; b: number; size: number }[],
  onLines: readonly { owner: string; p: number; line: readonly [number, number] }[],
  graph: LinearGraph,
  tie: Tie,
  signed: (a: number, b: number, size: number) => number,
): ReadonlySet<string> {
  const done = new Set<string>()
  const together = (a: number, b: number): boolean =>
    graph.rootOf(a) === graph.rootOf(b) && Math.abs(graph.offsetOf(a) - graph.offsetOf(b)) < 1e-12
  for (let before = -1; before !== done.size;) {
    before = done.size
    for (const { owner, a, b, size } of lengths) {
      if (done.has(owner)) continue
      for (const axis of [0, 1]) {
        const [along, across] = [axis, 1 - axis]
        if (done.has(owner) || !together(2 * a + across, 2 * b + across)) continue
        if (together(2 * a + along, 2 * b + along)) continue
        const difference = signed(2 * a + along, 2 * b + along, size)
        const support = [2 * a + across, 2 * b + across] as const
        tie(2 * a + along, 2 * b + along, difference, owner, support)
        done.add(owner)
      }
    }
    for (const { owner, p, line } of onLines) {
      const [a, b] = line
      for (const across of [0, 1]) {
        if (done.has(owner) || !together(2 * a + across, 2 * b + across)) continue
        if (together(2 * a + 1 - across, 2 * b + 1 - across)) continue
        tie(2 * a + across, 2 * p + across, 0, owner, [2 * a + across, 2 * b + across])
        done.add(owner)
      }
    }
  }
  return done
}

function extentOf(coordinates: Float64Array): number {
  let extent = 0
  for (const c of coordinates) extent = Math.max(extent, Math.abs(c))
  return extent > 0 ? extent : 1
}

/** The unknowns' values where the coordinates stand: the mean over each class, in mm. */
export function initialUnknowns(system: System): Float64Array {
  const sums = new Float64Array(system.unknowns)
  const counts = new Float64Array(system.unknowns)
  system.unknownOf.forEach((u, c) => {
    if (u < 0) return
    sums[u] = (sums[u] ?? 0) + (system.start[c] ?? 0) - (system.offsetOf[c] ?? 0)
    counts[u] = (counts[u] ?? 0) + 1
  })
  return sums.map((s, u) => s / (counts[u] ?? 1))
}

/** Writes every coordinate that follows from the unknowns. */
export function writeCoordinates(
  system: System,
  unknowns: Float64Array,
  coordinates: Float64Array,
): void {
  const { unknownOf, offsetOf } = system
  for (let c = 0; c < coordinates.length; c++) {
    const u = unknownOf[c] ?? -1
    coordinates[c] = (offsetOf[c] ?? 0) + (u < 0 ? 0 : (unknowns[u] ?? 0))
  }
}

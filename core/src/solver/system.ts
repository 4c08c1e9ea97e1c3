import { VERTEX_TOLERANCE } from '../tolerances'
import { AXIS_ID, ORIGIN_ID, entityMap, locator, pointsOf, type Size, type Sketch } from '../sketch'
import { arcByNature, readConstraint, readSize, sizedArc } from './demands'
import { createLinearGraph, type Circle } from './linearGraph'
import { createTies, reduceDemands } from './reduce'
import type { Equation } from './equations'
import type { Demand, Setting } from './relations'

/** Values of the driving sizes by size id, in mm and radians. */
export type SizeValues = ReadonlyMap<string, number>

/**
 * A sketch as numbers: coordinates merged into unknowns, and equations between what is left.
 * Coordinate 2·i is x and 2·i + 1 is y of point i; the last two points stand still: the origin and
 * a point of the axis 1 mm from it, between which the axis is a line like others.
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
  const pointIds = [...sketch.points.map((p) => p.id), ORIGIN_ID, AXIS_ID]
  const indexOf = new Map(pointIds.map((id, i) => [id, i]))
  const entities = entityMap(sketch)
  const count = pointIds.length
  const [origin, onAxis] = [count - 2, count - 1]
  const start = new Float64Array(2 * count)
  sketch.points.forEach((p, i) => {
    start[2 * i] = p.x
    start[2 * i + 1] = p.y
  })
  const extent = extentOf(start)
  start[2 * onAxis] = 1
  const graph = createLinearGraph(2 * count)
  const [groundX, groundY] = [2 * origin, 2 * origin + 1]
  // What is held is one class, so that every held value hangs on one root.
  graph.tie(groundX, groundY, 0, '')
  graph.tie(groundX, 2 * onAxis, 1, '')
  graph.tie(groundY, 2 * onAxis + 1, 0, '')
  const { ties, circles } = createTies(graph, start, [groundX, groundY], VERTEX_TOLERANCE)
  const index = (id: string): number => indexOf.get(id) ?? origin
  const setting: Setting = {
    entities,
    locate: locator(sketch),
    index,
    line: (id) => {
      const found = entities.get(id)
      return found?.kind === 'line' ? [index(found.from), index(found.to)] : [origin, onAxis]
    },
    ties,
    extent,
  }
  const equations = reduceDemands(demandsOf(sketch, values, keep, setting), ties)

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

/** All demands of a sketch: what arcs are by nature first, so that others are found at odds with it. */
function demandsOf(
  sketch: Sketch,
  values: SizeValues,
  keep: (id: string) => boolean,
  setting: Setting,
): Demand[] {
  const { ties, index, entities } = setting
  const constraints = sketch.constraints.filter((c) => keep(c.id))
  const sizes = sketch.sizes.filter((s) => !s.reference && values.has(s.id) && keep(s.id))
  for (const e of sketch.entities) {
    if (e.kind === 'circle') ties.tie(2 * index(e.centre) + 1, 2 * index(e.rim) + 1, 0, '')
  }
  // Copies of an arc are round because the arc is.
  const copied = new Set<string>()
  for (const c of constraints) {
    if (c.kind !== 'repeat') continue
    for (const copy of c.copies) {
      const points = new Set(copy)
      for (const e of sketch.entities) {
        if (e.kind === 'arc' && pointsOf(e).every((p) => points.has(p))) copied.add(e.id)
      }
    }
  }
  const radii = new Map<string, Size>()
  for (const size of sizes) {
    if (size.kind !== 'radius' && size.kind !== 'curveDiameter') continue
    const arc = entities.get(size.curve)
    if (arc?.kind === 'arc' && !copied.has(arc.id) && !radii.has(arc.id)) radii.set(arc.id, size)
  }
  const demands: Demand[] = []
  for (const e of sketch.entities) {
    if (!copied.has(e.id) && !radii.has(e.id)) demands.push(...arcByNature(setting, e))
  }
  for (const c of constraints) demands.push(...readConstraint(setting, c))
  for (const size of sizes) {
    const target = values.get(size.id) ?? 0
    const arc = 'curve' in size ? entities.get(size.curve) : undefined
    if (arc && radii.get(arc.id) === size) {
      const radius = size.kind === 'radius' ? target : target / 2
      demands.push(...sizedArc(setting, size.id, arc, radius))
    } else demands.push(...readSize(setting, size, target))
  }
  return demands
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

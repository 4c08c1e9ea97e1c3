import { VERTEX_TOLERANCE } from '../tolerances'
import {
  AXIS_ID,
  ORIGIN_ID,
  entityMap,
  locator,
  pointsOf,
  type Constraint,
  type Entity,
  type Size,
  type Sketch,
} from '../sketch'
import { byNature, constraintKind, readConstraint, readSize, sizedArc } from '../constraints'
import {
  coordinate,
  createLinearGraph,
  createTies,
  reduceDemands,
  sumEquation,
  type Circle,
  type Demand,
  type Equation,
  type Setting,
  type Ties,
} from '../equations'

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
  /** All that is asked for, told without merging: an equation for every tie too. */
  readonly unmerged: () => readonly Equation[]
  /** The equations of a driving size at another value, in the order of those of its own in {@link unmerged}. */
  readonly sizedAt: (id: string, value: number) => readonly Equation[]
  /** Whose measures have sides. */
  readonly sides: ReadonlyMap<string, Side>
  /** Pairs of points between which something is drawn. */
  readonly spans: readonly (readonly [number, number])[]
  /** Ties that close a circle with earlier ones: what says the same, or disagrees. */
  readonly circles: readonly Circle[]
  /** The ties that hold two coordinates together. */
  readonly reasonsBetween: (a: number, b: number) => string[]
  /** The extent of the sketch in mm, by which steps and tolerances are scaled. */
  readonly extent: number
}

/** The side on which something is measured. */
export interface Side {
  /** 1 where the measure is not negative, −1 where it is. */
  readonly sign: 1 | -1
  /** How far the measure is at the start from its target on the other side, in mm. */
  readonly across: number
}

/**
 * Builds the system of a sketch.
 * @param values driving sizes by id; sizes that are absent are not applied
 * @param turned owners of what is to be measured on the other side than that where the points stand
 */
export function buildSystem(
  sketch: Sketch,
  values: SizeValues,
  turned: ReadonlySet<string> = NONE,
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
  const ground = [groundX, groundY] as const
  const { ties, circles } = createTies(graph, start, ground, VERTEX_TOLERANCE)
  const told: Equation[] = []
  const sides = new Map<string, Side>()
  const index = (id: string): number => indexOf.get(id) ?? origin
  const setting: Setting = {
    entities,
    locate: locator(sketch),
    index,
    line: (id) => {
      const found = entities.get(id)
      return found?.kind === 'line' ? [index(found.from), index(found.to)] : [origin, onAxis]
    },
    ties: noting(ties, ground, told),
    side: (owner, now, target, arm = 1) => {
      const sign = now < 0 !== turned.has(owner) ? -1 : 1
      const across = (Math.abs(now) + target) * arm
      if (across < (sides.get(owner)?.across ?? Infinity)) sides.set(owner, { sign, across })
      return sign
    },
    extent,
  }
  const demands = demandsOf(sketch, values, setting)
  const equations = reduceDemands(demands, ties)
  let sized: { byId: ReadonlyMap<string, Size>; radii: ReadonlyMap<string, Size> } | undefined
  const sizedAt = (id: string, value: number): readonly Equation[] => {
    sized ??= {
      byId: new Map(sketch.sizes.map((s) => [s.id, s])),
      radii: radiiOf(sketch, values, entities),
    }
    const size = sized.byId.get(id)
    if (!size) return []
    const noted: Equation[] = []
    const alone: Setting = { ...setting, ties: onlyNoting(ties, ground, noted) }
    const asked = demandsOfSize(alone, size, value, sized.radii)
    return [...noted, ...asked.flatMap(equationsOf)]
  }

  // Asked for several times, and made but once.
  let unmerged: readonly Equation[] | undefined
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
    sizedAt,
    unmerged: () => (unmerged ??= [...told, ...demands.flatMap(equationsOf)]),
    sides,
    spans: sketch.entities.flatMap((e) =>
      spansOf(e).map(([a, b]) => [index(a), index(b)] as const),
    ),
    circles,
    reasonsBetween: graph.reasonsBetween,
    extent,
  }
}

const NONE: ReadonlySet<string> = new Set()

/** All that a demand asks for, told without any ties. */
const equationsOf = (d: Demand): readonly Equation[] => ('reduce' in d ? d.equations() : [d])

/** Points of an entity that make nothing of it when they fall together. */
function spansOf(e: Entity): readonly (readonly [string, string])[] {
  switch (e.kind) {
    case 'line':
      return [[e.from, e.to]]
    case 'circle':
      return [[e.centre, e.rim]]
    case 'arc':
      return [
        [e.centre, e.from],
        [e.centre, e.to],
        [e.from, e.to],
      ]
    case 'curve':
      return [
        [e.from, e.to],
        [e.from, e.fromHandle],
        [e.to, e.toHandle],
      ]
    case 'parallel':
      return [[e.from, e.to]]
    case 'spline': {
      const places = [e.from, ...e.by, e.to]
      return places.slice(1).map((p, i) => [places[i] ?? e.from, p] as const)
    }
  }
}

/** Ties that are noted as equations as well. */
function noting(ties: Ties, ground: readonly [number, number], told: Equation[]): Ties {
  const noted = onlyNoting(ties, ground, told)
  return {
    ...ties,
    tie: (a, b, difference, reason, support) => {
      noted.tie(a, b, difference, reason)
      ties.tie(a, b, difference, reason, support)
    },
    hold: (point, place, reason) => {
      noted.hold(point, place, reason)
      ties.hold(point, place, reason)
    },
  }
}

/** Ties that are noted as equations and tie nothing. */
function onlyNoting(ties: Ties, ground: readonly [number, number], told: Equation[]): Ties {
  const note = (owner: string, a: number, b: number, difference: number): void => {
    const terms = [[1, coordinate(b)] as const, [-1, coordinate(a)] as const]
    told.push(sumEquation(owner, terms, difference))
  }
  return {
    ...ties,
    tie: (a, b, difference, reason) => {
      note(reason, a, b, difference)
    },
    hold: (point, place, reason) => {
      note(reason, ground[0], 2 * point, place.x)
      note(reason, ground[1], 2 * point + 1, place.y)
    },
  }
}

/** Arcs that are copies of others: they are round because those are. */
function copiedArcs({ constraints, entities }: Sketch): ReadonlySet<string> {
  const copied = new Set<string>()
  for (const c of constraints) {
    if (c.kind !== 'repeat') continue
    for (const copy of c.copies) {
      const points = new Set(copy)
      for (const e of entities) {
        if ((e.kind === 'arc' || e.kind === 'parallel') && pointsOf(e).every((p) => points.has(p)))
          copied.add(e.id)
      }
    }
  }
  return copied
}

/** For each arc with a radius or diameter the size that makes it round. */
function radiiOf(
  sketch: Sketch,
  values: SizeValues,
  entities: ReadonlyMap<string, Entity>,
): ReadonlyMap<string, Size> {
  const copied = copiedArcs(sketch)
  const radii = new Map<string, Size>()
  for (const size of sketch.sizes) {
    if (size.reference || !values.has(size.id)) continue
    if (size.kind !== 'radius' && size.kind !== 'curveDiameter') continue
    const arc = entities.get(size.curve)
    if (arc?.kind === 'arc' && !copied.has(arc.id) && !radii.has(arc.id)) radii.set(arc.id, size)
  }
  return radii
}

function demandsOfSize(
  setting: Setting,
  size: Size,
  target: number,
  radii: ReadonlyMap<string, Size>,
): readonly Demand[] {
  const arc = 'curve' in size ? setting.entities.get(size.curve) : undefined
  if (!arc || radii.get(arc.id) !== size) return readSize(setting, size, target)
  return sizedArc(setting, size.id, arc, size.kind === 'radius' ? target : target / 2)
}

/** All demands of a sketch: what arcs are by nature first, so that others are found at odds with it. */
function demandsOf(sketch: Sketch, values: SizeValues, setting: Setting): Demand[] {
  const { ties, index, entities } = setting
  const { constraints } = sketch
  const sizes = sketch.sizes.filter((s) => !s.reference && values.has(s.id))
  for (const e of sketch.entities) {
    if (e.kind === 'circle') ties.tie(2 * index(e.centre) + 1, 2 * index(e.rim) + 1, 0, '')
  }
  const [copied, radii] = [copiedArcs(sketch), radiiOf(sketch, values, entities)]
  const demands: Demand[] = []
  for (const e of sketch.entities) {
    if (!copied.has(e.id) && !radii.has(e.id)) demands.push(...byNature(setting, e))
  }
  // What makes points one is read first: whether two curves share an end must not hang on the order.
  const joins = (c: Constraint): boolean => constraintKind(c).joins ?? false
  for (const c of constraints) if (joins(c)) demands.push(...readConstraint(setting, c))
  for (const c of constraints) if (!joins(c)) demands.push(...readConstraint(setting, c))
  for (const size of sizes) {
    demands.push(...demandsOfSize(setting, size, values.get(size.id) ?? 0, radii))
  }
  return demands
}

function extentOf(coordinates: Float64Array): number {
  let extent = 0
  for (const c of coordinates) extent = Math.max(extent, Math.abs(c))
  return extent > 0 ? extent : 1
}

/** The unknowns' values where coordinates stand, those of the start if no others: the mean over each class, in mm. */
export function initialUnknowns(system: System, at = system.start): Float64Array {
  const sums = new Float64Array(system.unknowns)
  const counts = new Float64Array(system.unknowns)
  system.unknownOf.forEach((u, c) => {
    if (u < 0) return
    sums[u] = (sums[u] ?? 0) + (at[c] ?? 0) - (system.offsetOf[c] ?? 0)
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

/**
 * For each unknown how large what is drawn there is, in mm: the shortest span from any of its points
 * to another that something is drawn to.
 */
export function localExtents(system: System, unknowns: Float64Array): Float64Array {
  const coordinates = new Float64Array(system.start.length)
  writeCoordinates(system, unknowns, coordinates)
  const tiny = VERTEX_TOLERANCE * system.extent
  const ofPoint = new Float64Array(system.pointIds.length).fill(system.extent / 10)
  for (const [a, b] of system.spans) {
    const [dx, dy] = [0, 1].map(
      (k) => (coordinates[2 * b + k] ?? 0) - (coordinates[2 * a + k] ?? 0),
    )
    const length = Math.hypot(dx ?? 0, dy ?? 0)
    if (length < tiny) continue
    for (const p of [a, b]) ofPoint[p] = Math.min(ofPoint[p] ?? length, length)
  }
  const reach = new Float64Array(system.unknowns).fill(system.extent / 10)
  system.unknownOf.forEach((u, c) => {
    if (u >= 0) reach[u] = Math.min(reach[u] ?? Infinity, ofPoint[c >> 1] ?? Infinity)
  })
  return reach
}

/** The same system with every tie as an equation and every coordinate an unknown of its own. */
export function unmergedSystem(system: System): System {
  const count = system.start.length
  const ground = count - 4
  return {
    ...system,
    unknownOf: Int32Array.from({ length: count }, (_, c) => (c < ground ? c : -1)),
    offsetOf: Float64Array.from({ length: count }, (_, c) =>
      c < ground ? 0 : (system.start[c] ?? 0),
    ),
    unknowns: ground,
    equations: system.unmerged(),
    circles: [],
  }
}

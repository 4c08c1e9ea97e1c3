import { VERTEX_TOLERANCE } from '../../tolerances'
import { evaluateFormula } from '../../formula'
import { fail, succeed, type Result } from '../../result'
import { lastFor } from '../../once'
import {
  add,
  cross,
  dot,
  fittedTo,
  nearestOn,
  parallelRun,
  pointAt,
  scale,
  tangentAt,
  type Fitted,
  type Piece,
  type Vec,
} from '../../geometry'
import {
  AXIS_ID,
  chainOf,
  isFree,
  locator,
  piecesOf,
  type ChainLink,
  type Entity,
  type Sketch,
} from '../../sketch'
import { valuesOf, type Part } from '../../part'
import { placeDraft, type Draft, type DraftSize } from './draft'
import type { NewConstraint } from '../../constraints'
import { flipped, meetingNear, roomBeside, runBetween, tooTight } from './curves/beside'
import { curveEnd } from './curves/ends'
import { MOST_PLACES } from './curves/shape'
import type { End } from './ends'
import type { Command } from '../command'

/** How a chain beside a chain is to be drawn. */
export interface Beside {
  readonly sketch: string
  /** The lines, arcs and curves it goes beside. */
  readonly ids: readonly string[]
  /** The distance, as it is typed. */
  readonly formula: string
  /** A place on the side where it goes. */
  readonly side: Vec
  /**
   * How many points each free curve gets. Where left out, what lies beside a free curve is told by that and follows it;
   * where it meets a corner, it gets as many points as the curve.
   */
  readonly count?: number
}

/**
 * Draws a chain beside a chain: lines parallel, arcs concentric, all at one distance, which is one size that the
 * others read. Beside a free curve goes one of its own, fitted to what lies there.
 */
export function offsetChain(beside: Beside): Command {
  return {
    label: 'offset',
    run: (part) => {
      const plan = planIn(part, beside)
      if (!plan.ok) return plan
      const placed = placeDraft(part, beside.sketch, draftOf(plan.value, beside.formula))
      return placed.ok ? succeed(placed.value.part) : placed
    },
  }
}

/** The free curves of a chain beside a chain, with what they are fitted to; none where it has none, or is refused. */
export function besideFits(part: Part, beside: Beside): readonly CurveBeside[] {
  const plan = planIn(part, beside)
  return plan.ok ? [...plan.value.curves.values()] : []
}

/** A free curve beside another. */
export interface CurveBeside {
  /** What lies there exactly. */
  readonly exact: readonly Piece[]
  readonly fitted: Fitted
}

/** A chain that is to be drawn beside a chain. */
interface Plan {
  readonly sketch: Sketch
  readonly links: readonly ChainLink[]
  /** Where the new points stand, by the points of the chain that they lie beside. */
  readonly places: ReadonlyMap<string, Vec>
  /** Points where two links go on from one another without a corner. */
  readonly smooth: ReadonlySet<string>
  /** The curves of their own beside free ones, by the ids of those; the others are followed exactly. */
  readonly curves: ReadonlyMap<string, CurveBeside>
}

/** Shown, told and taken, it is one plan. */
const planIn = lastFor((part: Part, beside: Beside): Result<Plan> => {
  const sketch = part.sketches.find((s) => s.id === beside.sketch)
  if (!sketch) return fail('sketch.gone', 'This profile is gone.', 'Choose another profile.')
  const links = chainOf(sketch, beside.ids)
  if (!links) {
    const mend = 'Pick lines, arcs and curves that follow one another end to end.'
    return fail('offset.chain', 'What is picked is not one chain.', mend)
  }
  if (links.some(({ entity }) => entity.kind === 'parallel')) {
    const mend = 'Go beside the curve itself, with a greater distance.'
    return fail('offset.parallel', 'This lies beside a curve already.', mend)
  }
  const value = distanceOf(part, beside.formula)
  if (!value.ok) return value
  const { count } = beside
  if (count !== undefined && !(Number.isInteger(count) && count >= 2 && count <= MOST_PLACES)) {
    const mend = `Type a whole number from 2 to ${MOST_PLACES}.`
    return fail('offset.count', 'A free curve has 2 points or more.', mend)
  }
  const locate = locator(sketch)
  const runs = links.map(({ entity, from }) => {
    const pieces = piecesOf(entity, locate)
    return entity.from === from ? pieces : flipped(pieces)
  })
  if (runs.some((run) => run.length === 0)) {
    return fail('curve.zero', 'This curve has no length.', 'Move its points apart.')
  }
  const side = sideOf(runs.flat(), beside.side)
  const room = roomBeside(
    links.flatMap(({ entity }, i) => (isFree(entity) ? (runs[i] ?? []) : [])),
    side,
  )
  if (value.value >= room) {
    return { ok: false, problem: tooTight(room, part.units) }
  }
  return succeed(planOf(sketch, links, runs, side * value.value, count))
})

function distanceOf(part: Part, formula: string): Result<number> {
  const lookup = valuesOf(part).table.lookup
  const value = evaluateFormula(formula, { want: 'length', units: part.units, lookup })
  if (!value.ok || value.value > 0) return value
  return fail('offset.zero', 'The distance has to be greater than zero.', 'Type a length.')
}

function planOf(
  sketch: Sketch,
  links: readonly ChainLink[],
  runs: readonly (readonly Piece[])[],
  by: number,
  count: number | undefined,
): Plan {
  const locate = locator(sketch)
  const beside = runs.map((run) => parallelRun(run, by))
  const smooth = new Set<string>()
  const places = new Map<string, Vec>()
  const isClosed = links.length > 1 && links.at(-1)?.to === links[0]?.from
  links.forEach(({ entity, from, to }, i) => {
    const before = i > 0 ? i - 1 : isClosed ? links.length - 1 : undefined
    if (before === undefined) places.set(from, leftEnd(runs[i], locate(from), 0, by))
    else {
      const two = [links[before]?.entity, entity]
      const hasFree = two.some((e) => e !== undefined && isFree(e))
      const [one, other] = [normalAt(runs[before], 1), normalAt(runs[i], 0)]
      if (Math.abs(cross(one, other)) < SMOOTH && dot(one, other) > 0) smooth.add(from)
      const mitre = mitred(locate(from), one, other, by)
      const meet =
        hasFree && !smooth.has(from)
          ? meetingNear(beside[before] ?? [], beside[i] ?? [], mitre)
          : undefined
      places.set(from, meet ?? mitre)
    }
    if (i === links.length - 1 && !isClosed) places.set(to, leftEnd(runs[i], locate(to), 1, by))
  })
  const curves = new Map<string, CurveBeside>()
  /** Points where one link meets the next. */
  const meeting = new Set(
    [...links.slice(1), ...(isClosed ? links.slice(0, 1) : [])].map((l) => l.from),
  )
  links.forEach(({ entity, from, to }, i) => {
    const [start, end] = [places.get(from), places.get(to)]
    if (!isFree(entity) || !start || !end) return
    const isCorner = (p: string): boolean => !smooth.has(p) && meeting.has(p)
    if (count === undefined && !isCorner(from) && !isCorner(to)) return
    const exact = runBetween(beside[i] ?? [], start, end)
    const own = entity.kind === 'spline' ? entity.by.length + 2 : USUAL_COUNT
    const fitted = fittedTo(exact, 'through', count ?? own)
    if (fitted) curves.set(entity.id, { exact, fitted })
  })
  return { sketch, links, places, smooth, curves }
}

/** The sine of the greatest angle at which two links still go on from one another without a corner. */
const SMOOTH = 1e-6

/** As many points gets a curve beside one with two handles. */
const USUAL_COUNT = 5

/** The left normal at the start (0) or end (1) of a run. */
function normalAt(run: readonly Piece[] | undefined, end: 0 | 1): Vec {
  const piece = end === 0 ? run?.[0] : run?.at(-1)
  const way = piece ? tangentAt(piece, end) : { x: 1, y: 0 }
  return { x: -way.y, y: way.x }
}

const leftEnd = (run: readonly Piece[] | undefined, p: Vec, end: 0 | 1, by: number): Vec =>
  add(p, scale(normalAt(run, end), by))

function draftOf({ sketch, links, places, smooth, curves }: Plan, formula: string): Draft {
  const locate = locator(sketch)
  const points: Record<string, End> = {}
  for (const [p, at] of places) {
    const isOnAxis = sketch.plane === 'half' && Math.abs(at.y) <= VERTEX_TOLERANCE
    points[`~${p}`] = isOnAxis ? { at: { x: at.x, y: 0 }, on: [AXIS_ID] } : { at }
  }
  const entities = links.map(({ entity, from, to }): Entity => {
    const ends = { id: `~${entity.id}`, from: `~${from}`, to: `~${to}`, role: entity.role }
    const curve = curves.get(entity.id)
    if (curve) {
      const { spline } = curve.fitted
      const named = (key: string, at: Vec | undefined): string => {
        if (!at) return ''
        points[`~${entity.id}.${key}`] = { at }
        return `~${entity.id}.${key}`
      }
      return {
        ...ends,
        ...{ kind: 'spline', way: 'through', spans: spline.spans },
        by: spline.places.slice(1, -1).map((at, i) => named(String(i), at)),
        fromHandle: named('from', spline.ends[0]),
        toHandle: named('to', spline.ends[1]),
      }
    }
    if (isFree(entity)) {
      const own = { from: `~${entity.from}`, to: `~${entity.to}` }
      return { ...ends, ...own, kind: 'parallel', of: entity.id, along: entity }
    }
    if (entity.kind !== 'arc') return { ...ends, kind: 'line' }
    points[`~${entity.centre}`] ??= { at: locate(entity.centre) }
    const forward = entity.from === from
    const counterClockwise = forward ? entity.counterClockwise : !entity.counterClockwise
    return { ...ends, kind: 'arc', centre: `~${entity.centre}`, counterClockwise }
  })
  const plain = links.filter(({ entity }) => !isFree(entity))
  const ties = plain.map(({ entity }): NewConstraint =>
    entity.kind === 'line'
      ? { kind: 'parallel', line: `~${entity.id}`, to: entity.id }
      : { kind: 'concentric', curve: `~${entity.id}`, to: entity.id },
  )
  // What lies exactly beside curves is as far from them as from the lines and arcs they go on from.
  const alone = links.slice(0, 1).filter(({ entity }) => isFree(entity) && !curves.has(entity.id))
  const sizes = (plain.length > 0 ? plain : alone).map(({ entity }, i): DraftSize => ({
    offer: { kind: 'gap', item: `~${entity.id}`, to: entity.id },
    formula: i === 0 ? formula : 'offset_first',
    formerName: i === 0 ? 'offset_first' : `offset_${i}`,
  }))
  return {
    ...{ points, entities, sizes },
    ties: [...ties, ...curveTies(sketch, links, smooth, curves), ...squareEnds(sketch, links)],
  }
}

/** New curves go on smoothly where those they lie beside do, and leave the axis squarely where those do. */
function curveTies(
  sketch: Sketch,
  links: readonly ChainLink[],
  smooth: ReadonlySet<string>,
  curves: Plan['curves'],
): NewConstraint[] {
  return links.flatMap(({ entity, from, to }, i): NewConstraint[] => {
    const before = links[i - 1] ?? links.at(-1)
    const isOwn = (e: Entity): boolean => !isFree(e) || curves.has(e.id)
    const two = before ? [entity, before.entity] : []
    const goesOn = before && smooth.has(from) && two.some(isFree) && two.every(isOwn)
    const tangent: NewConstraint[] = goesOn
      ? [{ kind: 'tangent', curve: `~${entity.id}`, to: `~${before.entity.id}` }]
      : []
    if (entity.kind !== 'spline' || !curves.has(entity.id)) return tangent
    const square = [from, to].flatMap((end, k): NewConstraint[] =>
      curveEnd(sketch, entity, end) === 'square'
        ? [
            {
              ...{ kind: 'inLine', a: `~${end}`, along: 'radial' },
              b: `~${entity.id}.${k === 0 ? 'from' : 'to'}`,
            },
          ]
        : [],
    )
    return [...tangent, ...square]
  })
}

/** Loose ends stand level with those of the chain they go beside, where its lines are straight. */
function squareEnds(sketch: Sketch, links: readonly ChainLink[]): NewConstraint[] {
  const [first, last] = [links[0], links.at(-1)]
  if (!first || !last || (links.length > 1 && last.to === first.from)) return []
  const locate = locator(sketch)
  return ([[first, first.from] as const, [last, last.to] as const] as const).flatMap(
    ([{ entity }, end]): NewConstraint[] => {
      if (entity.kind !== 'line') return []
      const [a, b] = [locate(entity.from), locate(entity.to)]
      const d = { x: Math.abs(b.x - a.x), y: Math.abs(b.y - a.y) }
      if (d.y < VERTEX_TOLERANCE) return [{ kind: 'inLine', a: `~${end}`, b: end, along: 'radial' }]
      return d.x < VERTEX_TOLERANCE
        ? [{ kind: 'inLine', a: `~${end}`, b: end, along: 'axial' }]
        : []
    },
  )
}

/** +1 when a place lies to the left of the nearest piece, else −1. */
function sideOf(pieces: readonly Piece[], place: Vec): number {
  const offs = pieces.map((piece) => ({ piece, ...nearestOn(piece, place) }))
  const [nearest] = offs.sort((a, b) => a.distance - b.distance)
  if (!nearest) return 1
  // Past an end its direction tells little: a little within it tells the side.
  const t = Math.min(0.98, Math.max(0.02, nearest.t))
  const at = pointAt(nearest.piece, t)
  const off = { x: place.x - at.x, y: place.y - at.y }
  return cross(tangentAt(nearest.piece, t), off) >= 0 ? 1 : -1
}

/** A corner moved along the mitre of its two normals. */
function mitred(p: Vec, one: Vec, two: Vec, by: number): Vec {
  // Where the chain turns back on itself the mitre would run away: it is cut off there.
  const share = Math.max(0.2, (1 + dot(one, two)) / 2)
  return add(p, scale(add(one, two), by / 2 / share))
}

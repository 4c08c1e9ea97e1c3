import { attempt, attemptUnmerged, placesAt, type Attempt } from './attempt'
import { ownersTogether } from './components'
import { gradientFor } from '../equations'
import { withPositions } from './positions'
import { createRandom } from './random'
import { restrictedTo } from './restricted'
import { FAR, toleranceOf } from './settle'
import { buildSystem, unmergedSystem, type SizeValues, type System } from './system'
import { isSpent, type Work } from './work'
import type { Vec } from '../geometry'
import type { Sketch } from '../sketch'

type Places = ReadonlyMap<string, Vec>

/** How a sketch is looked at. */
interface Search {
  /** Whether more than a few typed values are off at the start, so that sides can hardly be told. */
  readonly loose: boolean
  /** The most starts for what fails. */
  readonly most?: number
  /** Whether any place will do, not the nearest alone. */
  readonly any?: boolean
  /** What is left to do in looking. */
  readonly work: Work
}

/**
 * Tries what fails, or what lies farther off than it seemed to, from other starts near by, with the sides
 * that measures have there. How far those lie from the given start is taken from how far everything is off on average:
 * where all holds but one typed value, they are close to it, and no side that can be told
 * changes. Of several places found the nearest to the given start counts. Each part of a sketch that
 * hangs together is looked at by itself.
 */
export function fromOtherStarts(
  sketch: Sketch,
  values: SizeValues,
  first: Attempt,
  search: Search,
): Attempt {
  const { solved, failing, settled, system } = first
  const farther = [...settled.farther].flatMap(([id, times]) => (times > FAR ? [id] : []))
  const everywhere = search.loose && !search.any && sketch.points.length <= LARGEST_SOUGHT
  if (solved && !everywhere && farther.length === 0) return first
  const ended = placesAt(system, settled.coordinates)
  const wanting = new Set([...failing, ...farther])
  const failed = new Set(failing)
  const places = new Map(ended)
  let moved = false
  for (const group of ownersTogether(unmergedSystem(system))) {
    const fails = has(group, failed)
    if (!has(group, wanting) && !(everywhere && hasEquations(group, settled.farther))) continue
    const part = restrictedTo(sketch, group)
    const found = fails ? inFailing(part, values, search) : nearerThan(part, values, search, ended)
    if (!found && fails) return first
    found?.forEach((at, id) => places.set(id, at))
    moved ||= found !== undefined
  }
  if (!moved) return first
  const result = attempt(withPositions(sketch, places), values, {
    detours: true,
    near: first.begun.start,
  })
  return result.solved ? { ...result, begun: first.begun } : first
}

const has = (group: ReadonlySet<string>, wanted: ReadonlySet<string>): boolean => {
  for (const id of wanted) if (group.has(id)) return true
  return false
}

/** Whether some of a group is more than ties: those have one place on the sides where they are. */
const hasEquations = (
  group: ReadonlySet<string>,
  farther: ReadonlyMap<string, number>,
): boolean => {
  for (const id of group) if (farther.has(id)) return true
  return false
}

/** How many other starts near by are tried before a sketch is told not to solve. */
const MOST_STARTS = 240
/** How many are tried where a place was found already, but a far one, or where most holds at the start. */
const FEW_STARTS = 8
/** How many are tried for a nearer place where little holds at the start. */
const NEARER_STARTS = 24
/** So many in a row that find nothing nearer are enough. */
const PATIENCE = 6
/** In sketches of more points than this a nearer place is looked for only where the one found seems too far. */
const LARGEST_SOUGHT = 120
/** Where more than this share of all that is asked is off at the start, it is no edit of what held. */
const LOOSE = 0.3
/** So many places found are enough to choose the nearest of. */
const ENOUGH_FOUND = 3
/** How far other starts lie from the given one, as shares of what is off there on average. */
const SHARES = [1, 2, 0.5, 1, 3]

/** The nearest of a few places where a part that fails from its start holds. */
function inFailing(part: Sketch, values: SizeValues, search: Search): Places | undefined {
  const { near, origin } = startsNear(part, values, search)
  const most = search.most ?? (search.loose ? MOST_STARTS : FEW_STARTS)
  const enough = search.any ? 1 : ENOUGH_FOUND
  let nearest: Places | undefined
  let least = Infinity
  let found = 0
  let best: { readonly at: Sketch; readonly off: ReadonlySet<string>; short: number } | undefined
  for (let k = 0; k < most && found < enough && !isSpent(search.work); k++) {
    // Every fourth start lies near the place that came nearest to holding so far, without what did not hold there.
    const from = k % 4 === 3 && best ? near(best.at, k, best.off) : near(part, k)
    const tried = tryFrom(from, part, values, { turn: k, origin, work: search.work })
    if (!tried.solved) {
      const short = shortOf(tried)
      if (short < (best?.short ?? Infinity)) {
        const at = withPositions(part, placesAt(tried.system, tried.settled.coordinates))
        best = { at, off: new Set(tried.failing), short }
      }
      continue
    }
    found++
    const far = distanceFrom(part, tried.positions)
    if (far < least) [nearest, least] = [tried.positions, far]
  }
  return nearest
}

/** A place nearer to a part's start than the one where it ended, if one is found. */
function nearerThan(
  part: Sketch,
  values: SizeValues,
  search: Search,
  ended: Places,
): Places | undefined {
  const { near, origin } = startsNear(part, values, search)
  const most = search.loose ? NEARER_STARTS : FEW_STARTS
  let nearest: Places | undefined
  let least = distanceFrom(part, ended) * (1 - 1e-6)
  for (let k = 0, inVain = 0; k < most && inVain < PATIENCE; k++, inVain++) {
    if (isSpent(search.work)) break
    const tried = tryFrom(near(part, k), part, values, { turn: k, origin, work: search.work })
    if (!tried.solved) continue
    const far = distanceFrom(part, tried.positions)
    if (far < least) [nearest, least, inVain] = [tried.positions, far, 0]
  }
  if (!search.loose) return nearest
  const { work } = search
  return turnedNearer(part, values, nearest ?? ended, { near: origin, work }) ?? nearest
}

/**
 * A place nearer to a part's start than another, found by turning one measure after the other to its other side:
 * those first that are least far from there.
 */
function turnedNearer(
  part: Sketch,
  values: SizeValues,
  found: Places,
  effort: { readonly near: Float64Array; readonly work: Work },
): Places | undefined {
  const { sides } = buildSystem(part, values)
  const there = buildSystem(withPositions(part, found), values).sides
  let turned: ReadonlySet<string> = new Set(
    [...there].flatMap(([owner, { sign }]) => (sign === sides.get(owner)?.sign ? [] : [owner])),
  )
  let nearest: Places | undefined
  let least = distanceFrom(part, found) * (1 - 1e-6)
  const order = [...sides].sort(([, a], [, b]) => a.across - b.across)
  let left = MOST_TURNS
  for (let changed = true; changed && left > 0;) {
    changed = false
    for (const [owner, { across }] of order) {
      if (across > TURN_REACH * least || left-- <= 0 || isSpent(effort.work)) break
      const other = new Set(turned)
      if (!other.delete(owner)) other.add(owner)
      const tried = attempt(part, values, { ...effort, detours: false, turned: other })
      if (!tried.solved) continue
      const far = distanceFrom(part, tried.positions)
      if (far >= least) continue
      ;[nearest, least, turned, changed] = [tried.positions, far * (1 - 1e-6), other, true]
    }
  }
  return nearest
}

/** So many measures are turned to their other side, one after the other, to look for a nearer place. */
const MOST_TURNS = 60
/** What would have to move farther than this many times the distance found is not turned. */
const TURN_REACH = 1.5

/**
 * Solves a part from a start near its own, and goes from there as near to its own as can be. Ways of solving take
 * turns: a tie says nothing of the side its points are on before it holds.
 */
function tryFrom(
  start: Sketch,
  part: Sketch,
  values: SizeValues,
  { turn, origin, work }: { readonly turn: number; readonly origin: Float64Array; work: Work },
): Attempt {
  const found = (turn % 2 === 0 ? attemptUnmerged : attempt)(start, values, {
    detours: false,
    work,
  })
  if (!found.solved) return found
  const at = withPositions(part, found.positions)
  const nearer = attempt(at, values, { detours: false, near: origin, work })
  return nearer.solved ? nearer : found
}

/**
 * Starts near that of a part, by as much as it is off there on average. Where little holds, every third is led first
 * to where all holds that has no sides, so that those are read there; every third other to where half holds. After
 * an edit of what held none is: a side that can be told stays.
 */
function startsNear(
  part: Sketch,
  values: SizeValues,
  { loose, work }: Search,
): {
  readonly near: (base: Sketch, turn: number, without?: ReadonlySet<string>) => Sketch
  /** The coordinates of the part's own start, in mm. */
  readonly origin: Float64Array
} {
  const system = buildSystem(part, values)
  const usual = Math.max(usualMisfit(system), 1e-3 * system.extent)
  const random = createRandom(0x57a7)
  const near = (base: Sketch, turn: number, without?: ReadonlySet<string>): Sketch => {
    const reach = loose && turn === 0 ? 0 : 2 * usual * (SHARES[turn % SHARES.length] ?? 1)
    const points = base.points.map((p) => ({
      ...p,
      x: p.x + (random() - 0.5) * reach,
      y: p.y + (random() - 0.5) * reach,
    }))
    if (!loose || (turn % 3 === 2 && !without)) return { ...part, points }
    const counts = ({ id }: { readonly id: string }): boolean =>
      without ? !without.has(id) : turn % 3 === 0 ? !system.sides.has(id) : random() < 0.5
    const some = {
      ...part,
      points,
      constraints: part.constraints.filter(counts),
      sizes: part.sizes.filter(counts),
    }
    const { system: begun, settled } = attemptUnmerged(some, values, { detours: false, work })
    return withPositions({ ...part, points }, placesAt(begun, settled.coordinates))
  }
  return { near, origin: system.start }
}

/** Whether more than a few typed values are off where the points stand at the start. */
export function isLoose(system: System): boolean {
  const equations = system.unmerged()
  const gradient = gradientFor(equations)
  const tolerance = 100 * toleranceOf(system)
  const off = equations.filter((e) => Math.abs(e.evaluate(system.start, gradient)) > tolerance)
  return off.length > LOOSE * equations.length
}

/** How far points are from what is asked, on average, where they stand at the start: in mm. */
function usualMisfit(system: System): number {
  let sum = 0
  const equations = system.unmerged()
  const gradient = gradientFor(equations)
  for (const e of equations) {
    const residual = Math.abs(e.evaluate(system.start, gradient))
    let slope = 0
    for (let k = 0; k < e.coordinates.length; k++) slope = Math.hypot(slope, gradient[k] ?? 0)
    sum += Math.min(residual / (slope || 1), system.extent)
  }
  return sum / Math.max(1, equations.length)
}

/** By how much what does not hold is off where an attempt ended, in mm. */
function shortOf({ settled }: Attempt): number {
  const gradient = gradientFor(settled.off)
  return Math.hypot(...settled.off.map((e) => e.evaluate(settled.coordinates, gradient)))
}

/** How far a sketch's points are from where they stand in it: the root of the sum of squares, in mm. */
export function distanceFrom({ points }: Sketch, positions: ReadonlyMap<string, Vec>): number {
  let sum = 0
  for (const p of points) {
    const to = positions.get(p.id) ?? p
    sum += (to.x - p.x) ** 2 + (to.y - p.y) ** 2
  }
  return Math.sqrt(sum)
}

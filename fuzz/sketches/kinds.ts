import type { Size, Sketch } from '@lathica/core/sketch'
import { solve } from '@lathica/core/solver'
import type { Kind } from '../kind'
import { randomFrom, type Random } from '../random'
import { collapsed, displaced, wellPosed } from './make'
import { placeWhereHolds } from './search'
import { measured, placesOf, residuals, sidesOf } from './oracle'
import type { Place, Places } from './places'
import { freedomsAt, smallerSketches, type Asked } from './smaller'

/** A sketch to solve, as plain data. */
interface Given extends Asked {
  readonly freedoms: number
  /** Where all holds, by point: the place it was displaced from. */
  readonly intended: readonly (readonly [string, Place])[]
  /** Whether it must be found, or only must not be told wrong. */
  readonly must: boolean
}

/** How far a residual may be from nought where all is told to hold, in mm. */
const HOLDS = 1e-6

const solved = new WeakMap<Given, ReturnType<typeof solve>>()

function solutionOf(given: Given): ReturnType<typeof solve> {
  const known = solved.get(given)
  if (known) return known
  const found = solve(given.sketch, new Map(given.values))
  solved.set(given, found)
  return found
}

function faultOf(given: Given): string | undefined {
  const { sketch, values, freedoms, must } = given
  const wanted = new Map(values)
  let solution: ReturnType<typeof solve>
  try {
    solution = solutionOf(given)
  } catch (error) {
    return `threw: ${String(error)}`
  }
  if (!solution.solved) return must ? 'is told not to solve' : undefined
  const worst = residuals(sketch, wanted, solution.positions).reduce((a, b) =>
    Math.abs(b.off) > Math.abs(a.off) || Number.isNaN(b.off) ? b : a,
  )
  if (!(Math.abs(worst.off) <= HOLDS)) return `solved, but ${worst.owner} is off by ${worst.off}`
  // A place where lines have no length is no generic one, and its freedoms are not those of the intended.
  if (collapsed(sketch, solution.positions)) return undefined
  if (solution.freedoms !== freedoms) return `${solution.freedoms} freedoms instead of ${freedoms}`
  return solution.disagreements.length > 0 ? 'independent, but told redundant' : undefined
}

/** What comes out other than meant without being wrong. */
function countsOf(given: Given): string[] {
  const { sketch, intended } = given
  const { solved: holds, positions } = solutionOf(given)
  if (!holds) return ['told not to solve']
  const off = (places: Places): number =>
    Math.hypot(
      ...sketch.points.map((p) => {
        const q = places.get(p.id) ?? p
        return Math.hypot(q.x - p.x, q.y - p.y)
      }),
    )
  const there = new Map(intended)
  const [found, meant] = [off(positions), off(there)]
  if (found <= 1.001 * meant) return []
  const sides = sidesOf(sketch, there)
  const kept = sidesOf(sketch, placesOf(sketch)).every((side, i) => side === sides[i])
  const counts = [kept ? 'farther, where all sides stay' : 'farther, where some side has to turn']
  return found > 1.5 * meant ? ['more than half as far again as was meant', ...counts] : counts
}

/** Sketches whose constraints and sizes are independent, with points displaced by a share of the extent. */
const wellPosedAt = (name: string, share: number, must: boolean): Kind<Given> => ({
  name,
  batch: 20,
  make: (random: Random) => {
    const made = wellPosed(random, 3 + random.below(12))
    const { values, freedoms } = made
    const sketch = displaced(made, share, random)
    return { sketch, values: [...values], freedoms, intended: [...made.intended], must }
  },
  fault: faultOf,
  counts: countsOf,
  *smaller({ sketch, values, intended, must: asked }) {
    const places = new Map(intended)
    for (const less of smallerSketches({ sketch, values })) {
      if (less.sketch.points.length === 0 || collapsed(less.sketch, places)) continue
      // What is independent stays so when some of it is left out.
      yield { ...less, freedoms: freedomsAt(less.sketch, places), intended, must: asked }
    }
  },
})

export const sketchesNear = wellPosedAt('sketches, points off by 2 %', 0.02, true)
export const sketchesFar = wellPosedAt('sketches, points off by 10 %', 0.1, false)
export const sketchesFarther = wellPosedAt('sketches, points off by 30 %', 0.3, false)

/** A sketch that holds where it stands, but for one size too many that asks for something else. */
export const contradictions: Kind<Asked> = {
  name: 'contradictions',
  batch: 10,
  make: (random) => {
    for (;;) {
      const made = wellPosed(random, 3 + random.below(8), true)
      if (!made.spare) continue
      const { spare } = made
      const value = measured(made.sketch, spare, placesOf(made.sketch)) * random.between(1.1, 1.6)
      return {
        sketch: { ...made.sketch, sizes: [...made.sketch.sizes, spare] },
        values: [...made.values, [spare.id, value]],
      }
    }
  },
  fault: ({ sketch, values }) => {
    const wanted = new Map(values)
    const solution = solve(sketch, wanted)
    if (solution.solved) {
      const worst = Math.max(
        ...residuals(sketch, wanted, solution.positions).map((r) => Math.abs(r.off)),
      )
      return worst > HOLDS ? `solved, but off by ${worst}` : undefined
    }
    const conflicts = solution.disagreements.filter((d) => d.kind === 'conflict')
    if (conflicts.length === 0) return 'refused without a reason'
    for (const { members } of conflicts) {
      const only = (ids: readonly string[]): Sketch => ({
        ...sketch,
        constraints: sketch.constraints.filter((c) => ids.includes(c.id)),
        sizes: sketch.sizes.filter((s: Size) => ids.includes(s.id)),
      })
      const chosen = new Map(values.filter(([id]) => members.includes(id)))
      const alone = solve(only(members), chosen)
      if (alone.solved && !collapsed(sketch, alone.positions)) {
        return `${members.join(' ')} hold by themselves`
      }
      const needless = members.find((m) => {
        const rest = only(members.filter((o) => o !== m))
        const wished = new Map(values.filter(([id]) => rest.sizes.some((s) => s.id === id)))
        return !solve(rest, wished).solved && !placeWhereHolds(rest, wished, randomFrom(1))
      })
      if (needless !== undefined) return `${needless} is not needed for ${members.join(' ')}`
    }
    return undefined
  },
  smaller: smallerSketches,
}

/**
 * Sketches with what no one means: points upon one another, entities without length, sizes of nought, arcs of no
 * radius, all at one place. Nothing is asked of the answer but that it comes, is finite, and holds where it says so.
 */
export const degenerate: Kind<Asked> = {
  name: 'degenerate sketches',
  batch: 10,
  make: (random) => {
    const { sketch, values } = wellPosed(random, 2 + random.below(9))
    const together = random.chance(0.2)
    const points = sketch.points.map((p) => {
      const other = random.pick(sketch.points)
      if (together) return { ...p, x: 3, y: 4 }
      return random.chance(0.3) ? { ...p, x: other.x, y: other.y } : p
    })
    const angles = new Set(sketch.sizes.flatMap((s) => (s.kind === 'angle' ? [s.id] : [])))
    const sizes = [...values].map(([id, v]): [string, number] => {
      if (!random.chance(0.2)) return [id, v]
      // No angle goes round more than once.
      return [id, random.pick(angles.has(id) ? [0, 1e-9, Math.PI] : [0, 1e-9, 1e6])]
    })
    return { sketch: { ...sketch, points }, values: sizes }
  },
  fault: ({ sketch, values }) => {
    const wanted = new Map(values)
    try {
      const { solved: holds, positions, disagreements } = solve(sketch, wanted)
      if ([...positions.values()].some((p) => !Number.isFinite(p.x + p.y))) return 'no number'
      if (!holds) {
        return disagreements.some((d) => d.kind === 'conflict')
          ? undefined
          : 'refused without a reason'
      }
      // Where a line has no length, what it measures has no meaning to a plain reading.
      if (collapsed(sketch, positions)) return undefined
      // What is a kilometre long holds to as many digits as what is a metre long.
      const large = Math.max(1, ...values.map(([, v]) => v / 1000))
      const worst = residuals(sketch, wanted, positions).find(
        (r) => !(Math.abs(r.off) <= HOLDS * large),
      )
      return worst && `solved, but ${worst.owner} is off by ${worst.off}`
    } catch (error) {
      return `threw: ${String(error)}`
    }
  },
  smaller: smallerSketches,
}

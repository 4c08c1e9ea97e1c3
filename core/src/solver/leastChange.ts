import { SOLVE_GOAL, SOLVE_TOLERANCE } from '../tolerances'
import { createSkyline, type Skyline } from './skyline'
import { gradientFor, type Equation } from '../equations'
import type { System } from './system'
import { isSpent, type Work } from './work'

/** More rounds than this are never taken; a solvable block needs a handful. */
const MOST_ROUNDS = 200
/** After so many rounds that gained little all in all, a search is stuck in a hollow that is no solution. */
const PATIENCE = 12

/** How many multiplications reading one derivative is worth, about. */
const READING = 20
/** How many rounds making a block ready is worth, about. */
const PREPARING = 5

/** More than this is not gained by going nearer to where one came from. */
const MOST_APPROACHES = 10

/** A block made ready: its pattern is known, and solving it allocates nothing. */
export interface BlockSolver {
  /**
   * Moves the block's unknowns, as little as may be, until its equations hold.
   * @param unknowns all unknowns in mm; the block's own are changed
   * @param stiffness per unknown, how strongly it resists; 1 is usual
   * @param goals per equation what its residual is to be, in mm; nought when left out
   * @returns whether every equation holds to the solve tolerance
   */
  solve(unknowns: Float64Array, stiffness?: Float64Array, goals?: Float64Array): boolean
  /** How far the equations seem to be from where the unknowns stand: the length of one weighted step, in mm. */
  outlook(unknowns: Float64Array, stiffness: Float64Array): number
  /** The residual of every equation where the unknowns stand, in mm, as a copy. */
  residuals(unknowns: Float64Array): Float64Array
  /**
   * Goes from where the equations hold to the nearest such place to an origin, along what can move.
   * @returns whether it came nearer; the equations still hold
   */
  approach(unknowns: Float64Array, origin: Float64Array, stiffness: Float64Array): boolean
}

/**
 * Damped Gauss–Newton in its least-change form: each round takes the smallest weighted step that
 * meets the linearised equations, δ = −W⁻¹Jᵀ(JW⁻¹Jᵀ + μI)⁻¹r, with damping μ raised where a step
 * fails (Nocedal & Wright, Numerical Optimization, ch. 10). The same form serves blocks with and
 * without freedoms.
 * @param coordinates all coordinates in mm; written as the unknowns move
 * @param work what is left to do; once it is spent nothing is solved any more
 */
export function prepareBlock(
  system: System,
  equations: readonly Equation[],
  blockUnknowns: readonly number[],
  coordinates: Float64Array,
  work?: Work,
): BlockSolver {
  const localOf = new Map(blockUnknowns.map((u, i) => [u, i]))
  const { entryOf, begins, columns, readers, touched } = pattern(system, equations, localOf)
  const neighbours = equations.map(() => new Set<number>())
  for (const column of readers) {
    for (const a of column) for (const b of column) if (a !== b) neighbours[a.row]?.add(b.row)
  }
  const matrix = createSkyline(neighbours)
  const products = productsOf(readers, matrix)
  const count = equations.length
  const width = blockUnknowns.length
  const residual = new Float64Array(count)
  const jacobian = new Float64Array(columns.length)
  const gradient = gradientFor(equations)
  const z = new Float64Array(count)
  const step = new Float64Array(width)
  const saved = new Float64Array(width)
  const tolerance = SOLVE_TOLERANCE * Math.max(1, system.extent / 1000)
  const goal = SOLVE_GOAL * Math.max(1, system.extent / 1000)

  const writeTouched = (unknowns: Float64Array): void => {
    for (const c of touched) {
      const u = system.unknownOf[c] ?? -1
      coordinates[c] = (system.offsetOf[c] ?? 0) + (u < 0 ? 0 : (unknowns[u] ?? 0))
    }
  }

  /** Residuals and Jacobian where the unknowns stand; returns the largest residual by size. */
  const evaluate = (unknowns: Float64Array, goals?: Float64Array): number => {
    writeTouched(unknowns)
    let largest = 0
    let slot = 0
    jacobian.fill(0)
    for (let e = 0; e < count; e++) {
      const r = (equations[e]?.evaluate(coordinates, gradient) ?? 0) - (goals?.[e] ?? 0)
      residual[e] = r
      largest = Math.max(largest, Math.abs(r))
      const read = equations[e]?.coordinates.length ?? 0
      for (let k = 0; k < read; k++, slot++) {
        const entry = entryOf[slot] ?? -1
        if (entry >= 0) jacobian[entry] = (jacobian[entry] ?? 0) + (gradient[k] ?? 0)
      }
    }
    return Number.isNaN(largest) ? Infinity : largest
  }

  const sumOfSquares = (): number => {
    let sum = 0
    for (let e = 0; e < count; e++) sum += (residual[e] ?? 0) ** 2
    return sum
  }

  const assemble = (stiffness: Float64Array | undefined, damping: number): void => {
    const { values, placeOf, slotOf } = matrix
    const { ends, first, second, into } = products
    matrix.clear()
    let p = 0
    for (let column = 0; column < width; column++) {
      const softness = 1 / (stiffness?.[blockUnknowns[column] ?? 0] ?? 1)
      for (const end = ends[column] ?? 0; p < end; p++) {
        const product = (jacobian[first[p] ?? 0] ?? 0) * (jacobian[second[p] ?? 0] ?? 0) * softness
        const slot = into[p] ?? 0
        values[slot] = (values[slot] ?? 0) + product
      }
    }
    for (let e = 0; e < count; e++) {
      const place = placeOf[e] ?? 0
      const slot = slotOf(place, place)
      values[slot] = (values[slot] ?? 0) + damping
    }
  }

  /** What a round takes: factoring, the products, and reading the equations at several times each. */
  const roundCost = matrix.cost + products.into.length + READING * columns.length
  if (work) work.left -= PREPARING * roundCost

  const computeStep = (stiffness: Float64Array | undefined, damping: number): boolean => {
    if (work) work.left -= roundCost
    assemble(stiffness, damping)
    if (!matrix.factor()) return false
    for (let e = 0; e < count; e++) z[matrix.placeOf[e] ?? 0] = residual[e] ?? 0
    matrix.solve(z)
    step.fill(0)
    for (let e = 0; e < count; e++) {
      const factor = z[matrix.placeOf[e] ?? 0] ?? 0
      const end = begins[e + 1] ?? 0
      for (let k = begins[e] ?? 0; k < end; k++) {
        const column = columns[k] ?? 0
        step[column] = (step[column] ?? 0) - (jacobian[k] ?? 0) * factor
      }
    }
    let longest = 0
    for (let column = 0; column < width; column++) {
      const softness = 1 / (stiffness?.[blockUnknowns[column] ?? 0] ?? 1)
      step[column] = (step[column] ?? 0) * softness
      longest = Math.max(longest, Math.abs(step[column] ?? 0))
    }
    const reach = system.extent / 2
    if (longest > reach)
      for (let i = 0; i < width; i++) step[i] = ((step[i] ?? 0) * reach) / longest
    return Number.isFinite(longest)
  }

  const solve = (
    unknowns: Float64Array,
    stiffness?: Float64Array,
    goals?: Float64Array,
  ): boolean => {
    let largest = evaluate(unknowns, goals)
    let damping = 0
    let mark = Infinity
    for (let round = 0; round < MOST_ROUNDS && largest > goal; round++) {
      if (isSpent(work)) break
      const before = sumOfSquares()
      if (round % PATIENCE === 0) {
        if (before > 0.9 * mark && largest > tolerance) break
        mark = before
      }
      blockUnknowns.forEach((u, i) => (saved[i] = unknowns[u] ?? 0))
      const usable = computeStep(stiffness, damping)
      if (usable) {
        blockUnknowns.forEach((u, i) => (unknowns[u] = (saved[i] ?? 0) + (step[i] ?? 0)))
        largest = evaluate(unknowns, goals)
        if (largest < Infinity && sumOfSquares() < before) {
          damping = damping < 1e-12 ? 0 : damping / 10
          continue
        }
        blockUnknowns.forEach((u, i) => (unknowns[u] = saved[i] ?? 0))
        largest = evaluate(unknowns, goals)
      }
      if (largest <= tolerance || damping > 1e8) break
      damping = Math.max(damping * 10, 1e-6)
    }
    writeTouched(unknowns)
    return largest <= tolerance
  }

  /** How far the unknowns of the block are from an origin, as a weighted sum of squares. */
  const farFrom = (origin: Float64Array, unknowns: Float64Array, weights: Float64Array): number => {
    let sum = 0
    for (const u of blockUnknowns) {
      const by = (unknowns[u] ?? 0) - (origin[u] ?? 0)
      sum += (weights[u] ?? 1) * by * by
    }
    return sum
  }

  const approach: BlockSolver['approach'] = (unknowns, origin, stiffness) => {
    let far = farFrom(origin, unknowns, stiffness)
    const before = far
    const here = new Float64Array(width)
    for (let round = 0; round < MOST_APPROACHES; round++) {
      evaluate(unknowns)
      blockUnknowns.forEach((u, i) => (here[i] = unknowns[u] ?? 0))
      // The nearest place to the origin on what the equations look like from here.
      for (let e = 0; e < count; e++) {
        const end = begins[e + 1] ?? 0
        for (let k = begins[e] ?? 0; k < end; k++) {
          const column = columns[k] ?? 0
          const back = (origin[blockUnknowns[column] ?? 0] ?? 0) - (here[column] ?? 0)
          residual[e] = (residual[e] ?? 0) + (jacobian[k] ?? 0) * back
        }
      }
      if (!computeStep(stiffness, 0)) break
      const target = blockUnknowns.map((u, i) => (origin[u] ?? 0) + (step[i] ?? 0))
      let nearer = false
      for (let share = 1; share > 0.1 && !nearer; share /= 2) {
        blockUnknowns.forEach((u, i) => {
          unknowns[u] = (here[i] ?? 0) + share * ((target[i] ?? 0) - (here[i] ?? 0))
        })
        if (!solve(unknowns, stiffness)) continue
        const now = farFrom(origin, unknowns, stiffness)
        nearer = now < far * (1 - 1e-4)
        if (nearer) far = now
      }
      if (nearer) continue
      blockUnknowns.forEach((u, i) => (unknowns[u] = here[i] ?? 0))
      break
    }
    writeTouched(unknowns)
    return far < before
  }

  const outlook: BlockSolver['outlook'] = (unknowns, stiffness) => {
    evaluate(unknowns)
    if (!computeStep(stiffness, 1e-9)) return Infinity
    let sum = 0
    blockUnknowns.forEach((u, i) => (sum += (stiffness[u] ?? 1) * (step[i] ?? 0) ** 2))
    return Math.sqrt(sum)
  }

  const residuals = (unknowns: Float64Array): Float64Array => {
    evaluate(unknowns)
    return residual.slice()
  }

  return { solve, outlook, residuals, approach }
}

/** An equation that reads a column, and where its derivative is among all. */
interface Reader {
  readonly row: number
  readonly entry: number
}

/** Which derivatives there are: those of an equation lie together, in the order of the equations. */
interface Pattern {
  /** Where the derivatives of each equation begin, and at the end how many there are. */
  readonly begins: Int32Array
  /** Per derivative: its column in the block. */
  readonly columns: Int32Array
  /** Per slot of each equation's gradient, one equation after the other: its derivative, or −1 for none. */
  readonly entryOf: Int32Array
  /** Per column of the block: what reads it, in rising order of equations. */
  readonly readers: readonly (readonly Reader[])[]
  /** All coordinates the equations read. */
  readonly touched: readonly number[]
}

function pattern(
  system: System,
  equations: readonly Equation[],
  localOf: ReadonlyMap<number, number>,
): Pattern {
  const readers: Reader[][] = Array.from({ length: localOf.size }, () => [])
  const touched = new Set<number>()
  const begins = new Int32Array(equations.length + 1)
  const columns: number[] = []
  const entryOf: number[] = []
  equations.forEach((equation, row) => {
    const begin = columns.length
    for (const c of equation.coordinates) {
      touched.add(c)
      const column = localOf.get(system.unknownOf[c] ?? -1)
      if (column === undefined) {
        entryOf.push(-1)
        continue
      }
      let entry = columns.indexOf(column, begin)
      if (entry < 0) {
        entry = columns.push(column) - 1
        readers[column]?.push({ row, entry })
      }
      entryOf.push(entry)
    }
    begins[row + 1] = columns.length
  })
  return {
    begins,
    columns: Int32Array.from(columns),
    entryOf: Int32Array.from(entryOf),
    readers,
    touched: [...touched],
  }
}

/** The products of two derivatives by one column, in the order of columns, and into what entry each goes. */
interface Products {
  /** Per column, where its products end. */
  readonly ends: Int32Array
  readonly first: Int32Array
  readonly second: Int32Array
  readonly into: Int32Array
}

function productsOf(
  readers: readonly (readonly Reader[])[],
  { placeOf, slotOf }: Skyline,
): Products {
  const count = readers.reduce((sum, { length }) => sum + (length * (length + 1)) / 2, 0)
  const [first, second, into] = [0, 1, 2].map(() => new Int32Array(count)) as [
    Int32Array,
    Int32Array,
    Int32Array,
  ]
  const ends = new Int32Array(readers.length)
  let p = 0
  readers.forEach((column, c) => {
    for (const a of column) {
      for (const b of column) {
        if (b.row > a.row) break
        first[p] = a.entry
        second[p] = b.entry
        into[p++] = slotOf(placeOf[a.row] ?? 0, placeOf[b.row] ?? 0)
      }
    }
    ends[c] = p
  })
  return { ends, first, second, into }
}

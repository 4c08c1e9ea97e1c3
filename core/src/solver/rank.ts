import { RANK_TOLERANCE } from '../tolerances'

/** A sparse row: columns and their entries. */
export interface SparseRow {
  readonly columns: readonly number[]
  readonly entries: readonly number[]
}

/** What a matrix says about itself. */
export interface RankReport {
  /** Row numbers that are independent of those taken before them. */
  readonly independent: readonly number[]
  /** Row numbers that follow from earlier ones, with those they follow from. */
  readonly dependent: readonly { readonly row: number; readonly from: readonly number[] }[]
  /**
   * The largest remainder that was taken for rounding by the smallest that was taken for a pivot; near
   * 1 the one may be the other.
   */
  readonly doubt: number
  /** Turns free values into a vector of the null space, by back-substitution. */
  readonly nullVector: (free: () => number) => Float64Array
}

interface Echelon {
  readonly row: number
  readonly pivot: number
  readonly columns: readonly number[]
  readonly entries: readonly number[]
  /** Earlier echelon rows that were taken off, and how often. */
  readonly used: ReadonlyMap<number, number>
  /** What the row was divided by to make its pivot 1. */
  readonly size: number
}

/**
 * Sparse Gaussian elimination that reveals rank. Rows are taken in an order that keeps the
 * fill small, whatever order they are given in; in each row the pivot is the entry used
 * least by later rows among those of sufficient size (threshold pivoting after Markowitz; Duff,
 * Erisman & Reid, Direct Methods for Sparse Matrices, ch. 7), which keeps chains sparse.
 * @param rows matrix rows at a generic point
 * @param width number of columns
 * @param order row numbers in the order to take them in, where that matters more than fill
 */
export function analyseRank(
  rows: readonly SparseRow[],
  width: number,
  order: readonly number[] = byFewestNewColumns(rows, width),
): RankReport {
  const remaining = new Int32Array(width)
  for (const row of rows) for (const c of row.columns) remaining[c] = (remaining[c] ?? 0) + 1
  const pivotRow = new Int32Array(width).fill(-1)
  const echelon: Echelon[] = []
  const independent: number[] = []
  const dependent: { row: number; from: number[] }[] = []
  const work = new Float64Array(width)
  let [rejected, accepted] = [1e-16, 1]

  for (const number of order) {
    const row = rows[number]
    if (!row) continue
    const scale = 1 / (Math.max(...row.entries.map(Math.abs)) || 1)
    const pattern = new Set<number>()
    row.columns.forEach((c, i) => {
      work[c] = (work[c] ?? 0) + (row.entries[i] ?? 0) * scale
      pattern.add(c)
      remaining[c] = (remaining[c] ?? 1) - 1
    })
    const used = new Map<number, number>()
    for (;;) {
      const next = firstPivot(pattern, pivotRow, work)
      if (next < 0) break
      const source = echelon[next]
      if (!source) break
      const factor = work[source.pivot] ?? 0
      used.set(next, factor)
      source.columns.forEach((c, i) => {
        work[c] = (work[c] ?? 0) - factor * (source.entries[i] ?? 0)
        pattern.add(c)
      })
      work[source.pivot] = 0
    }
    let largest = 0
    for (const c of pattern) largest = Math.max(largest, Math.abs(work[c] ?? 0))
    const pivot = choosePivot(pattern, work, remaining, largest)
    if (pivot < 0) rejected = Math.max(rejected, largest)
    else accepted = Math.min(accepted, largest)
    if (pivot < 0) {
      dependent.push({ row: number, from: unfold(used, echelon) })
    } else {
      const size = work[pivot] ?? 1
      const columns = [...pattern].filter((c) => work[c] !== 0)
      const entries = columns.map((c) => (work[c] ?? 0) / size)
      pivotRow[pivot] = echelon.length
      echelon.push({ row: number, pivot, columns, entries, used, size })
      independent.push(number)
    }
    for (const c of pattern) work[c] = 0
  }

  const nullVector = (free: () => number): Float64Array => {
    const vector = Float64Array.from(pivotRow, (row) => (row < 0 ? free() : 0))
    for (let i = echelon.length - 1; i >= 0; i--) {
      const row = echelon[i]
      if (!row) continue
      let sum = 0
      row.columns.forEach((c, k) => {
        if (c !== row.pivot) sum += (row.entries[k] ?? 0) * (vector[c] ?? 0)
      })
      vector[row.pivot] = -sum
    }
    return vector
  }

  return { independent, dependent, doubt: rejected / accepted, nullVector }
}

/**
 * Row numbers in an order that brings in new columns as late as it can: the next row is always one
 * with the fewest columns not seen yet. So small closed groups are finished before others begin.
 */
function byFewestNewColumns(rows: readonly SparseRow[], width: number): number[] {
  const readers: number[][] = Array.from({ length: width }, () => [])
  rows.forEach((row, i) => row.columns.forEach((c) => readers[c]?.push(i)))
  const unseen = rows.map((row) => row.columns.length)
  const buckets: number[][] = []
  const file = (row: number): void => {
    const count = unseen[row] ?? 0
    while (buckets.length <= count) buckets.push([])
    buckets[count]?.push(row)
  }
  for (let row = rows.length - 1; row >= 0; row--) file(row)
  const order: number[] = []
  const taken = new Uint8Array(rows.length)
  const seen = new Uint8Array(width)
  let lowest = 0
  while (lowest < buckets.length) {
    const row = buckets[lowest]?.pop()
    if (row === undefined) lowest++
    else if (taken[row] === 0 && unseen[row] === lowest) {
      taken[row] = 1
      order.push(row)
      for (const c of rows[row]?.columns ?? []) {
        if (seen[c] === 1) continue
        seen[c] = 1
        for (const reader of readers[c] ?? []) {
          unseen[reader] = (unseen[reader] ?? 1) - 1
          if (taken[reader] === 1) continue
          file(reader)
          lowest = Math.min(lowest, unseen[reader] ?? 0)
        }
      }
    }
  }
  return order
}

/** The earliest echelon row whose pivot the working row still holds, or −1. */
function firstPivot(pattern: Set<number>, pivotRow: Int32Array, work: Float64Array): number {
  let first = -1
  for (const c of pattern) {
    const row = pivotRow[c] ?? -1
    if (row >= 0 && work[c] !== 0 && (first < 0 || row < first)) first = row
  }
  return first
}

function choosePivot(
  pattern: Set<number>,
  work: Float64Array,
  remaining: Int32Array,
  largest: number,
): number {
  if (largest < RANK_TOLERANCE) return -1
  let best = -1
  for (const c of pattern) {
    if (Math.abs(work[c] ?? 0) < 0.05 * largest) continue
    if (best < 0 || (remaining[c] ?? 0) < (remaining[best] ?? 0)) best = c
  }
  return best
}

/** The given rows that a combination of echelon rows is made of. */
function unfold(used: ReadonlyMap<number, number>, echelon: readonly Echelon[]): number[] {
  const weights = new Float64Array(echelon.length)
  used.forEach((w, i) => (weights[i] = w))
  const from: number[] = []
  for (let i = echelon.length - 1; i >= 0; i--) {
    const row = echelon[i]
    const w = weights[i] ?? 0
    if (!row || Math.abs(w) < RANK_TOLERANCE) continue
    from.push(row.row)
    // The echelon row is (the given row, scaled, less factor · earlier echelon rows) / size.
    row.used.forEach((f, j) => {
      weights[j] = (weights[j] ?? 0) - (w * f) / row.size
    })
  }
  return from.reverse()
}

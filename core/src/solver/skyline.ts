/**
 * A symmetric positive definite matrix in envelope storage, factored in place (Cholesky; George &
 * Liu, Computer Solution of Large Sparse Positive Definite Systems, ch. 4). Rows are renumbered by
 * reverse Cuthill–McKee so that chains give narrow envelopes.
 */
export interface Skyline {
  /** The matrix's place of a row in the given numbering. */
  readonly placeOf: Int32Array
  readonly clear: () => void
  /** The entries of the lower triangle, row by row within the envelope. */
  readonly values: Float64Array
  /** Where among the values the entry of two places is. */
  readonly slotOf: (i: number, j: number) => number
  /** What factoring costs, as a number of multiplications. */
  readonly cost: number
  /** Factors the matrix; false when it is not positive definite to working accuracy. */
  readonly factor: () => boolean
  /** Solves for a right-hand side by places, in place; the matrix must be factored. */
  readonly solve: (rhs: Float64Array) => void
}

/** @param neighbours for each row, the rows with which it has an entry */
export function createSkyline(neighbours: readonly ReadonlySet<number>[]): Skyline {
  const placeOf = reverseCuthillMcKee(neighbours)
  const size = neighbours.length
  const first = Int32Array.from({ length: size }, (_, i) => i)
  neighbours.forEach((set, row) => {
    const i = placeOf[row] ?? 0
    for (const other of set) {
      const j = placeOf[other] ?? 0
      if (j < (first[i] ?? i)) first[i] = j
    }
  })
  const start = new Int32Array(size + 1)
  for (let i = 0; i < size; i++) start[i + 1] = (start[i] ?? 0) + i - (first[i] ?? i) + 1
  const values = new Float64Array(start[size] ?? 0)
  const slot = (i: number, j: number): number => (start[i] ?? 0) + j - (first[i] ?? 0)
  /** Where a row would begin among the values if it began with the first column. */
  const origin = Int32Array.from({ length: size }, (_, i) => (start[i] ?? 0) - (first[i] ?? 0))
  const cost = first.reduce((sum, from, i) => sum + ((i - from + 1) * (i - from + 2)) / 2, 0)

  const factor = (): boolean => {
    for (let i = 0; i < size; i++) {
      const from = first[i] ?? i
      const row = origin[i] ?? 0
      const before = values[row + i] ?? 0
      for (let j = from; j <= i; j++) {
        const other = origin[j] ?? 0
        const begin = first[j] ?? j
        let sum = values[row + j] ?? 0
        for (let k = begin > from ? begin : from; k < j; k++) {
          sum -= (values[row + k] ?? 0) * (values[other + k] ?? 0)
        }
        if (j < i) values[row + j] = sum / (values[other + j] ?? 1)
        else if (sum > before * 1e-14) values[row + i] = Math.sqrt(sum)
        else return false
      }
    }
    return true
  }

  const solve = (rhs: Float64Array): void => {
    for (let i = 0; i < size; i++) {
      const row = origin[i] ?? 0
      let sum = rhs[i] ?? 0
      for (let k = first[i] ?? i; k < i; k++) sum -= (values[row + k] ?? 0) * (rhs[k] ?? 0)
      rhs[i] = sum / (values[row + i] ?? 1)
    }
    for (let i = size - 1; i >= 0; i--) {
      const row = origin[i] ?? 0
      const x = (rhs[i] ?? 0) / (values[row + i] ?? 1)
      rhs[i] = x
      for (let k = first[i] ?? i; k < i; k++) rhs[k] = (rhs[k] ?? 0) - (values[row + k] ?? 0) * x
    }
  }

  return {
    placeOf,
    clear: () => values.fill(0),
    values,
    slotOf: (i, j) => (i >= j ? slot(i, j) : slot(j, i)),
    cost,
    factor,
    solve,
  }
}

function reverseCuthillMcKee(neighbours: readonly ReadonlySet<number>[]): Int32Array {
  const order = cuthillMcKee(neighbours)
  const placeOf = new Int32Array(order.length)
  order.forEach((row, i) => (placeOf[row] = order.length - 1 - i))
  return placeOf
}

/** Rows in an order that keeps neighbours near one another (Cuthill & McKee 1969). */
function cuthillMcKee(neighbours: readonly ReadonlySet<number>[]): number[] {
  const degree = (row: number): number => neighbours[row]?.size ?? 0
  const byDegree = (a: number, b: number): number => degree(a) - degree(b)
  const order: number[] = []
  const seen = new Set<number>()
  for (const root of [...neighbours.keys()].sort(byDegree)) {
    if (seen.has(root)) continue
    seen.add(root)
    order.push(root)
    for (let head = order.length - 1; head < order.length; head++) {
      const next = [...(neighbours[order[head] ?? 0] ?? [])].filter((n) => !seen.has(n))
      for (const n of next.sort(byDegree)) {
        seen.add(n)
        order.push(n)
      }
    }
  }
  return order
}

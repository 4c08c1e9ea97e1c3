/**
 * Polynomials on [0, 1] by their Bernstein coefficients, which bound them: where all are positive
 * the polynomial is. (Farouki, "The Bernstein polynomial basis: a centennial retrospective", 2012.)
 */
export type Bernstein = readonly number[]

/** The value at t, by Horner's scheme for this basis (Farin, Curves and Surfaces, ch. 5). */
export function valueAt(c: Bernstein, t: number): number {
  const degree = c.length - 1
  const s = 1 - t
  let weight = 1
  let power = 1
  let sum = at(c, 0)
  for (let i = 1; i <= degree; i++) {
    power *= t
    weight = (weight * (degree - i + 1)) / i
    sum = sum * s + power * weight * at(c, i)
  }
  return sum
}

/** The derivative; of a constant it is nought. */
export function derivativeOf(c: Bernstein): Bernstein {
  const degree = c.length - 1
  return degree === 0 ? [0] : c.slice(1).map((b, i) => degree * (b - at(c, i)))
}

/** The product of two polynomials. */
export function product(a: Bernstein, b: Bernstein): Bernstein {
  const [m, n] = [a.length - 1, b.length - 1]
  const out = new Array<number>(m + n + 1).fill(0)
  a.forEach((x, i) => {
    b.forEach((y, j) => {
      out[i + j] = at(out, i + j) + (x * y * choose(m, i) * choose(n, j)) / choose(m + n, i + j)
    })
  })
  return out
}

/** The sum of two polynomials of one degree, the second times a factor. */
export const sum = (a: Bernstein, b: Bernstein, times = 1): Bernstein =>
  a.map((x, i) => x + times * at(b, i))

/** Where a polynomial is nought on [0, 1], in order; a place where it touches nought may come twice. */
export function zerosOf(c: Bernstein): number[] {
  const found: number[] = []
  // What is no number has no zeros; signs that are none would be halved for ever.
  if (!c.every(Number.isFinite)) return found
  search(c, 0, 1, 0, found)
  if (at(c, 0) === 0 && found[0] !== 0) found.unshift(0)
  if (c.at(-1) === 0 && found.at(-1) !== 1) found.push(1)
  return found
}

/** Halvings until a stretch of [0, 1] is narrower than rounding lets zeros be told apart. */
const MOST_HALVINGS = 44

function search(c: Bernstein, low: number, high: number, depth: number, found: number[]): void {
  const changes = signChanges(c)
  if (changes === 0) return
  if (changes === 1) {
    found.push(low + bracketed(c) * (high - low))
    return
  }
  const middle = (low + high) / 2
  if (depth >= MOST_HALVINGS) {
    found.push(middle)
    return
  }
  const [left, right] = halves(c)
  search(left, low, middle, depth + 1, found)
  // A zero just in the middle shows in no sign change of either half.
  if (right[0] === 0) found.push(middle)
  search(right, middle, high, depth + 1, found)
}

/** How often the coefficients change sign: no fewer than there are zeros, and as many if just one. */
function signChanges(c: Bernstein): number {
  let changes = 0
  let last = 0
  for (const x of c) {
    const sign = Math.sign(x)
    if (sign !== 0 && last !== 0 && sign !== last) changes++
    if (sign !== 0) last = sign
  }
  return changes
}

function halves(c: Bernstein): readonly [Bernstein, Bernstein] {
  const row = [...c]
  const left = [at(row, 0)]
  const right = [at(row, row.length - 1)]
  for (let n = row.length - 1; n > 0; n--) {
    for (let i = 0; i < n; i++) row[i] = (at(row, i) + at(row, i + 1)) / 2
    left.push(at(row, 0))
    right.unshift(at(row, n - 1))
  }
  return [left, right]
}

/** The one zero between ends of unlike sign: Newton's steps, halved where they leave the bracket. */
function bracketed(c: Bernstein): number {
  const slope = derivativeOf(c)
  const sign = Math.sign(c.find((x) => x !== 0) ?? 1)
  let [low, high] = [0, 1]
  let t = 0.5
  for (let i = 0; i < 80; i++) {
    const value = valueAt(c, t)
    if (value === 0) return t
    if (Math.sign(value) === sign) low = t
    else high = t
    const next = t - value / valueAt(slope, t)
    const kept = next > low && next < high ? next : (low + high) / 2
    if (Math.abs(kept - t) <= 2e-16) return kept
    t = kept
  }
  return t
}

const at = (c: readonly number[], i: number): number => c[i] ?? 0

function choose(n: number, k: number): number {
  let out = 1
  for (let i = 1; i <= k; i++) out = (out * (n - k + i)) / i
  return out
}

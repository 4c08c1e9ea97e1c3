/** Nodes and weights of the 16-point Gauss–Legendre rule on [−1, 1], the positive half. */
const GAUSS: readonly (readonly [number, number])[] = [
  [0.0950125098376374401853, 0.1894506104550684962854],
  [0.2816035507792589132305, 0.1826034150449235888668],
  [0.4580167776572273863424, 0.1691565193950025381893],
  [0.6178762444026437484467, 0.1495959888165767320815],
  [0.7554044083550030338951, 0.1246289712555338720525],
  [0.8656312023878317438805, 0.0951585116824927848099],
  [0.9445750230732325760779, 0.0622535239386478928628],
  [0.9894009349916499325962, 0.0271524594117540948518],
]

/**
 * Visits the sixteen points of the rule between two limits with their weights; what is visited may
 * be a polynomial of up to degree 31 for the sum to be exact.
 */
export function gauss(from: number, to: number, visit: (at: number, weight: number) => void): void {
  const [middle, half] = [(from + to) / 2, (to - from) / 2]
  for (const [node, weight] of GAUSS) {
    visit(middle - half * node, half * weight)
    visit(middle + half * node, half * weight)
  }
}

function sumOver(f: (at: number) => number, from: number, to: number): number {
  let sum = 0
  gauss(from, to, (at, weight) => {
    sum += weight * f(at)
  })
  return sum
}

/** Halvings at most, for functions that are not smooth where they end. */
const MOST_HALVINGS = 20

/**
 * The integral of a smooth function: halves are halved until they agree with the whole to 1e-14 of
 * all of it, or differ by rounding. What is no number ends in no number.
 * @param rounding how much of the sum the function's own rounding may make
 */
export function adaptiveGauss(
  f: (at: number) => number,
  from: number,
  to: number,
  rounding: number,
): number {
  const all = sumOver(f, from, to)
  return refined(f, from, to, all, 1e-14 * Math.abs(all) + rounding, 0)
}

function refined(
  f: (at: number) => number,
  from: number,
  to: number,
  whole: number,
  goal: number,
  depth: number,
): number {
  const middle = (from + to) / 2
  const [left, right] = [sumOver(f, from, middle), sumOver(f, middle, to)]
  const isOff = Math.abs(left + right - whole) > goal
  if (!isOff || depth >= MOST_HALVINGS) return left + right
  return (
    refined(f, from, middle, left, goal, depth + 1) + refined(f, middle, to, right, goal, depth + 1)
  )
}

/** Numbers closer than this, relative to their size, came from one and the same state. */
const ROUNDING = 1e-9

/** Whether two documents say the same, up to rounding of their numbers. */
export function sameDocument(a: unknown, b: unknown): boolean {
  if (typeof a === 'number' && typeof b === 'number') {
    return Math.abs(a - b) <= ROUNDING * Math.max(1, Math.abs(a), Math.abs(b))
  }
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return a === b
  const [keysA, keysB] = [Object.keys(a), Object.keys(b)]
  if (Array.isArray(a) !== Array.isArray(b) || keysA.length !== keysB.length) return false
  return keysA.every(
    (key) =>
      Object.hasOwn(b, key) &&
      sameDocument((a as Record<string, unknown>)[key], (b as Record<string, unknown>)[key]),
  )
}

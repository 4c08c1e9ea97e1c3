/**
 * Repeatable numbers in [0, 1) from a 32-bit start (mulberry32, public domain), for probes that
 * must come out alike on every machine.
 */
export function createRandom(start: number): () => number {
  let state = start >>> 0
  return () => {
    state = (state + 0x6d2b79f5) >>> 0
    let t = state
    t = Math.imul(t ^ (t >>> 15), t | 1)
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61)
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296
  }
}

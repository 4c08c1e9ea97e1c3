/** Numbers that come out alike for one seed, on every machine (Marsaglia's xorshift, 32 bits). */
export interface Random {
  /** In [0, 1). */
  (): number
  between(low: number, high: number): number
  /** A whole number from 0 up to below the count. */
  below(count: number): number
  pick<T>(all: readonly T[]): T
  chance(share: number): boolean
}

export function randomFrom(seed: number): Random {
  let state = (Math.imul(seed ^ 0x9e3779b9, 0x85ebca6b) ^ 0x27d4eb2f) >>> 0 || 1
  const next = (): number => {
    state ^= state << 13
    state ^= state >>> 17
    state ^= state << 5
    state >>>= 0
    return state / 4294967296
  }
  for (let i = 0; i < 8; i++) next()
  const below = (count: number): number => Math.floor(next() * count)
  return Object.assign(next, {
    between: (low: number, high: number) => low + (high - low) * next(),
    below,
    pick: <T>(all: readonly T[]): T => {
      const found = all[below(all.length)]
      if (found === undefined) throw new Error('Nothing to pick from.')
      return found
    },
    chance: (share: number) => next() < share,
  })
}

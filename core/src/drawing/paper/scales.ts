/** A scale of the drawing: so many mm on paper for so many of the part. */
export interface Scale {
  readonly words: string
  readonly by: number
}

/** ISO 5455:1979, clause 4: enlargements and reductions, each also times a power of ten. */
const ENLARGED = [2, 5, 10, 20, 50, 100, 200, 500, 1000]
const REDUCED = [2, 5, 10, 20, 50, 100, 200, 500, 1000, 2000, 5000, 10000]

/** The scales of ISO 5455, the largest first. */
export const SCALES: readonly Scale[] = [
  ...ENLARGED.map((n) => ({ words: `${n}:1`, by: n })).reverse(),
  { words: '1:1', by: 1 },
  ...REDUCED.map((n) => ({ words: `1:${n}`, by: 1 / n })),
]

/** A scale as it is typed, of the standard or not: `1:2`, `2.5:1`. */
export function readScale(text: string): Scale | undefined {
  const [, a, b] = /^\s*(\d{1,6}(?:[.,]\d+)?)\s*:\s*(\d{1,6}(?:[.,]\d+)?)\s*$/.exec(text) ?? []
  if (a === undefined || b === undefined) return undefined
  const [over, under] = [Number(a.replace(',', '.')), Number(b.replace(',', '.'))]
  return over > 0 && under > 0 ? { words: `${a}:${b}`, by: over / under } : undefined
}

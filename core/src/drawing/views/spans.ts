/** A stretch, from its lower end to its higher one. */
export type Span = readonly [number, number]

/** Stretches that overlap, or lie no farther apart than this, as one; in order. */
export function united(spans: readonly Span[], apart: number): Span[] {
  const all: [number, number][] = []
  for (const [from, to] of [...spans].sort((a, b) => a[0] - b[0])) {
    const last = all.at(-1)
    if (last && from <= last[1] + apart) last[1] = Math.max(last[1], to)
    else all.push([from, to])
  }
  return all
}

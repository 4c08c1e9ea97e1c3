import { welded } from '@lathica/core/mesh'

/** Triangles between places, as any mesh here has them. */
export interface Triangles {
  readonly positions: ArrayLike<number>
  readonly indices: ArrayLike<number>
}

/**
 * Sides of triangles that are not shared by just two, one in each direction; of nothing at all one.
 * @param mayTouch whether a solid may touch itself along an edge, where each way is gone as often as the other
 */
export function openSides(mesh: Parameters<typeof welded>[0], mayTouch = false): number {
  const { indices } = welded(mesh)
  if (indices.length === 0) return 1
  const seen = new Map<string, { there: number; back: number }>()
  for (let i = 0; i < indices.length; i++) {
    const [a = 0, b = 0] = [indices[i], indices[i % 3 === 2 ? i - 2 : i + 1]]
    const key = a < b ? `${a} ${b}` : `${b} ${a}`
    const side = seen.get(key) ?? { there: 0, back: 0 }
    side[a < b ? 'there' : 'back']++
    seen.set(key, side)
  }
  const isOpen = ({ there, back }: { there: number; back: number }): boolean =>
    there !== back || (there > 1 && !mayTouch)
  return [...seen.values()].filter(isOpen).length
}

/** What triangles that look outwards enclose. */
export function volumeWithin({ positions: p, indices }: Triangles): number {
  let six = 0
  for (let i = 0; i < indices.length; i += 3) {
    const [a = 0, b = 0, c = 0] = [0, 1, 2].map((k) => 3 * (indices[i + k] ?? 0))
    const at = (v: number): number => p[v] ?? 0
    six +=
      at(a) * (at(b + 1) * at(c + 2) - at(b + 2) * at(c + 1)) +
      at(a + 1) * (at(b + 2) * at(c) - at(b) * at(c + 2)) +
      at(a + 2) * (at(b) * at(c + 1) - at(b + 1) * at(c))
  }
  return six / 6
}

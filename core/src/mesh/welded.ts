import type { SolidMesh } from './solid'

/** A mesh whose equal places are one vertex, as files that must be watertight want it. */
export interface WeldedMesh {
  /** x, y, z per vertex in mm */
  readonly positions: readonly number[]
  /** three vertices per triangle */
  readonly indices: readonly number[]
}

/** Joins vertices at equal places; triangles that shrink to less than three are left out. */
export function welded({
  positions,
  indices,
}: Pick<SolidMesh, 'positions' | 'indices'>): WeldedMesh {
  const known = new Map<string, number>()
  const places: number[] = []
  const renamed: number[] = []
  for (let v = 0; v < positions.length; v += 3) {
    const place = [0, 1, 2].map((k) => positions[v + k] ?? 0)
    const key = place.map((x) => (x === 0 ? 0 : x)).join(' ')
    const found = known.get(key) ?? known.size
    if (!known.has(key)) {
      known.set(key, found)
      places.push(...place)
    }
    renamed.push(found)
  }
  const triangles: number[] = []
  for (let i = 0; i < indices.length; i += 3) {
    const [a = 0, b = 0, c = 0] = [0, 1, 2].map((k) => renamed[indices[i + k] ?? 0] ?? 0)
    if (a !== b && b !== c && c !== a) triangles.push(a, b, c)
  }
  return { positions: places, indices: triangles }
}

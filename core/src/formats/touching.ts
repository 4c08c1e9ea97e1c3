import { place, type Place } from '../geometry'
import type { PartState } from '../route'
import { formatAngle, formatLength } from '../units'
import { welded, type WeldedMesh } from '../mesh'
import { meshedBodies, type BuiltGeometry } from './solids'

/**
 * Where a closed mesh touches itself: at edges that more than two triangles share, and at corners whose triangles are
 * several fans. Programs that print or mill from triangles cannot tell inside from outside there.
 * @returns the middle of each such edge, and each such corner that lies on none of them, in mm
 */
export function touchesOf({ positions, indices }: WeldedMesh): readonly Place[] {
  const at = (v: number): Place =>
    place(positions[3 * v] ?? 0, positions[3 * v + 1] ?? 0, positions[3 * v + 2] ?? 0)
  const sides = new Map<string, { readonly a: number; readonly b: number; readonly by: number[] }>()
  for (let i = 0; i < indices.length; i++) {
    const first = i - (i % 3)
    const [u, v] = [indices[i] ?? 0, indices[first + ((i + 1) % 3)] ?? 0]
    const [a, b] = u < v ? [u, v] : [v, u]
    const side = sides.get(`${a} ${b}`)
    if (side) side.by.push(first / 3)
    else sides.set(`${a} ${b}`, { a, b, by: [first / 3] })
  }
  const crowded = [...sides.values()].filter((s) => s.by.length !== 2)
  const onCrowded = new Set(crowded.flatMap(({ a, b }) => [a, b]))
  const found = crowded.map(({ a, b }) => {
    const [p, q] = [at(a), at(b)]
    return place((p.x + q.x) / 2, (p.y + q.y) / 2, (p.z + q.z) / 2)
  })
  for (const corner of cornersOfFans(indices, sides.values())) {
    if (!onCrowded.has(corner)) found.push(at(corner))
  }
  return found
}

/** The corners whose triangles do not all hang together by sides that end there. */
function cornersOfFans(
  indices: readonly number[],
  sides: Iterable<{ readonly a: number; readonly b: number; readonly by: readonly number[] }>,
): number[] {
  // Each corner of each triangle is one of its own until a side joins it to its neighbour's.
  const joined = indices.map((_, i) => i)
  const rootOf = (i: number): number => {
    let root = i
    while (joined[root] !== root) root = joined[root] ?? root
    joined[i] = root
    return root
  }
  const cornerIn = (triangle: number, vertex: number): number =>
    [0, 1, 2].map((k) => 3 * triangle + k).find((i) => indices[i] === vertex) ?? 3 * triangle
  for (const { a, b, by } of sides) {
    const [first, ...others] = by
    if (first === undefined) continue
    for (const other of others) {
      for (const v of [a, b]) joined[rootOf(cornerIn(other, v))] = rootOf(cornerIn(first, v))
    }
  }
  const fans = new Map<number, Set<number>>()
  indices.forEach((v, i) => {
    const own = fans.get(v) ?? new Set<number>()
    own.add(rootOf(i))
    fans.set(v, own)
  })
  return [...fans].flatMap(([v, own]) => (own.size > 1 ? [v] : []))
}

/** More places than this are counted, not told. */
const MOST_TOLD = 3

/**
 * What is to be said of a file of triangles: a sentence for each body whose triangles touch themselves, where that is
 * and what mends it.
 */
export function touchWords(state: PartState, tolerance: number, built?: BuiltGeometry): string[] {
  const { units } = state.part
  return meshedBodies(state, tolerance, built).flatMap(({ name, mesh }) => {
    const touches = touchesOf(welded(mesh))
    if (touches.length === 0) return []
    const places = touches.slice(0, MOST_TOLD).map(({ x, y, z }) => {
      const turn = Math.atan2(y, x)
      const angle = formatAngle(turn < -1e-9 ? turn + 2 * Math.PI : turn, units)
      return `⌀${formatLength(2 * Math.hypot(x, y), units)}, ${angle}, ${formatLength(z, units)} along`
    })
    const more = touches.length > places.length ? ` and ${touches.length - places.length} more` : ''
    return [
      `${name} touches itself without a wall between, at ${places.join('; at ')}${more}: triangles cannot tell what is inside there. Leave some material, or let it run through.`,
    ]
  })
}

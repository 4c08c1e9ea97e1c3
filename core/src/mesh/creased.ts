import type { BareMesh } from '../solid'
import type { SolidMesh } from './solid'
import { triangleNormals } from './normals'

/** Triangles that meet at less than this are one smooth surface: its cosine. */
const CREASE = Math.cos(Math.PI / 6)

/**
 * Bare triangles as they are shown: smooth where they meet nearly flat, with a line where they meet
 * at an angle of 30° or more, and round what is open.
 */
export function creased({ positions, indices }: BareMesh): SolidMesh {
  const count = indices.length / 3
  const flat = triangleNormals(positions, indices)
  const around = trianglesAround(indices, positions.length / 3)
  const places: number[] = []
  const normals: number[] = []
  const renamed = new Uint32Array(indices.length)
  /** Of each vertex the ones made of it so far. */
  const made = new Map<number, number[]>()
  for (let t = 0; t < count; t++) {
    for (let k = 0; k < 3; k++) {
      const v = indices[3 * t + k] ?? 0
      const normal = [0, 0, 0]
      for (const other of around(v)) {
        if (cosine(flat, t, other) < CREASE) continue
        for (let n = 0; n < 3; n++) normal[n] = (normal[n] ?? 0) + (flat[3 * other + n] ?? 0)
      }
      const size = Math.hypot(...normal) || 1
      const unit = normal.map((x) => x / size)
      const known = made.get(v) ?? []
      let found = known.find((i) =>
        unit.every((x, n) => Math.abs(x - (normals[3 * i + n] ?? 0)) < 1e-4),
      )
      if (found === undefined) {
        found = places.length / 3
        for (let n = 0; n < 3; n++) places.push(positions[3 * v + n] ?? 0)
        normals.push(...unit)
        made.set(v, [...known, found])
      }
      renamed[3 * t + k] = found
    }
  }
  return {
    positions: Float32Array.from(places),
    normals: Float32Array.from(normals),
    indices: renamed,
    edges: creases(positions, indices, flat),
    faces: [{ name: '', start: 0, count: indices.length }],
  }
}

const cosine = (flat: Float32Array, a: number, b: number): number =>
  a === b
    ? 1
    : [0, 1, 2].reduce((sum, n) => sum + (flat[3 * a + n] ?? 0) * (flat[3 * b + n] ?? 0), 0)

/** The triangles that a vertex belongs to. */
function trianglesAround(indices: Uint32Array, vertices: number): (v: number) => Uint32Array {
  const first = new Uint32Array(vertices + 1)
  for (const v of indices) first[v + 1] = (first[v + 1] ?? 0) + 1
  for (let v = 0; v < vertices; v++) first[v + 1] = (first[v + 1] ?? 0) + (first[v] ?? 0)
  const next = first.slice()
  const all = new Uint32Array(indices.length)
  indices.forEach((v, i) => {
    const at = next[v] ?? 0
    all[at] = Math.floor(i / 3)
    next[v] = at + 1
  })
  return (v) => all.subarray(first[v], first[v + 1])
}

/** Lines where two triangles meet at an angle, or where one meets no other. */
function creases(positions: Float32Array, indices: Uint32Array, flat: Float32Array): Float32Array {
  const open = new Map<number, { readonly from: number; readonly to: number; triangle: number }>()
  const lines: number[] = []
  const put = (from: number, to: number): void => {
    for (const v of [from, to]) lines.push(...positions.subarray(3 * v, 3 * v + 3))
  }
  indices.forEach((from, i) => {
    const to = indices[i % 3 === 2 ? i - 2 : i + 1] ?? 0
    const key = Math.min(from, to) * 0x4000000 + Math.max(from, to)
    const triangle = Math.floor(i / 3)
    const other = open.get(key)
    if (!other) open.set(key, { from, to, triangle })
    else {
      open.delete(key)
      if (cosine(flat, triangle, other.triangle) < CREASE) put(from, to)
    }
  })
  for (const { from, to } of open.values()) put(from, to)
  return Float32Array.from(lines)
}

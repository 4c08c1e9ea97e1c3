import type { BareMesh } from '../solid'
import type { SolidMesh } from './solid'
import { triangleNormals } from './normals'

/** Triangles that meet at less than this are one smooth surface: its cosine. */
const CREASE = Math.cos(Math.PI / 6)

/** Normals that differ by less than this in each direction are one. */
const SAME = 1e-4

/**
 * Bare triangles as they are shown: smooth where they meet nearly flat, with a line where they meet
 * at an angle of 30° or more, and round what is open.
 */
export function creased({ positions, indices }: BareMesh): SolidMesh {
  const flat = triangleNormals(positions, indices)
  const vertices = positions.length / 3
  const [first, around] = trianglesAround(indices, vertices)
  const renamed = new Uint32Array(indices.length)
  /** Of each vertex the one made of it last, of each one made the one before it; −1 for none. */
  const lastMade = new Int32Array(vertices).fill(-1)
  const madeBefore: number[] = []
  /** Which vertex each one made stands for. */
  const from: number[] = []
  const normals: number[] = []
  const at = (list: { readonly [i: number]: number }, i: number): number => list[i] ?? 0
  for (let i = 0; i < indices.length; i++) {
    const [v, t] = [at(indices, i), i - (i % 3)]
    const [tx, ty, tz] = [at(flat, t), at(flat, t + 1), at(flat, t + 2)]
    let [x, y, z] = [0, 0, 0]
    for (let k = at(first, v); k < at(first, v + 1); k++) {
      const o = 3 * at(around, k)
      const [ox, oy, oz] = [at(flat, o), at(flat, o + 1), at(flat, o + 2)]
      if (o !== t && tx * ox + ty * oy + tz * oz < CREASE) continue
      x += ox
      y += oy
      z += oz
    }
    const size = Math.sqrt(x * x + y * y + z * z) || 1
    x /= size
    y /= size
    z /= size
    let found = at(lastMade, v)
    while (found >= 0) {
      const isSame =
        Math.abs(x - at(normals, 3 * found)) < SAME &&
        Math.abs(y - at(normals, 3 * found + 1)) < SAME &&
        Math.abs(z - at(normals, 3 * found + 2)) < SAME
      if (isSame) break
      found = madeBefore[found] ?? -1
    }
    if (found < 0) {
      found = from.length
      from.push(v)
      normals.push(x, y, z)
      madeBefore.push(at(lastMade, v))
      lastMade[v] = found
    }
    renamed[i] = found
  }
  const places = new Float32Array(3 * from.length)
  from.forEach((v, i) => places.set(positions.subarray(3 * v, 3 * v + 3), 3 * i))
  return {
    positions: places,
    normals: Float32Array.from(normals),
    indices: renamed,
    edges: creases(positions, indices, flat),
    faces: [{ name: '', start: 0, count: indices.length }],
  }
}

function cosine(flat: Float32Array, a: number, b: number): number {
  if (a === b) return 1
  const along = (n: 0 | 1 | 2): number => (flat[3 * a + n] ?? 0) * (flat[3 * b + n] ?? 0)
  return along(0) + along(1) + along(2)
}

/** The triangles that vertices belong to, in one list, and where those of each begin in it. */
function trianglesAround(indices: Uint32Array, vertices: number): [Uint32Array, Uint32Array] {
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
  return [first, all]
}

/** Lines where two triangles meet at an angle, or where one meets no other. */
function creases(positions: Float32Array, indices: Uint32Array, flat: Float32Array): Float32Array {
  /** By both its vertices, where a side that met no other yet begins in the list of vertices. */
  const open = new Map<number, number>()
  const lines: number[] = []
  const endOf = (i: number): number => indices[i % 3 === 2 ? i - 2 : i + 1] ?? 0
  const put = (i: number): void => {
    for (const v of [indices[i] ?? 0, endOf(i)]) {
      lines.push(positions[3 * v] ?? 0, positions[3 * v + 1] ?? 0, positions[3 * v + 2] ?? 0)
    }
  }
  for (let i = 0; i < indices.length; i++) {
    const [from, to] = [indices[i] ?? 0, endOf(i)]
    const key = from < to ? from * 0x4000000 + to : to * 0x4000000 + from
    const other = open.get(key)
    if (other === undefined) open.set(key, i)
    else {
      open.delete(key)
      if (cosine(flat, Math.floor(i / 3), Math.floor(other / 3)) < CREASE) put(i)
    }
  }
  for (const i of open.values()) put(i)
  return Float32Array.from(lines)
}

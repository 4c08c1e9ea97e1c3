import type { SolidMesh } from '../mesh'
import type { Station } from './along'

/** A station of a body that is no full turn, which bends more easily one way than another. */
export interface SlicedStation extends Station {
  /** The greatest second moment about a line through the centroid, in mm⁴; `secondMoment` is the least. */
  readonly mostMoment: number
}

/** What is cut: the part's axis is Z. */
type Triangles = Pick<SolidMesh, 'positions' | 'normals' | 'indices'>

/** Sums over the outlines of all cross-sections, one number for every station. */
interface Sums {
  readonly area: Float64Array
  /** ∫y dA, ∫z dA, ∫y² dA, ∫z² dA, ∫yz dA */
  readonly y: Float64Array
  readonly z: Float64Array
  readonly yy: Float64Array
  readonly zz: Float64Array
  readonly yz: Float64Array
  /** How far the outline turns about the axis, in rad. */
  readonly turned: Float64Array
  readonly least: Float64Array
  readonly most: Float64Array
}

/** Steps of a curve that is cut aside of a shoulder, as a share of the body's length. */
const ASIDE = 1e-6

/**
 * Stations along a solid by its triangles, from end to end, with two at every face that is square to the
 * axis. Between the vertices the surface is taken to be as round as the normals there tell: what a picture
 * with chords of 20° is made of tells areas and moments to one or two thousandths.
 * @param volume of the solid in mm³, which the cumulated volumes end in
 * @param count about how many stations
 */
export function stationsOfSolid(mesh: Triangles, volume: number, count: number): SlicedStation[] {
  const breaks = breaksOf(mesh)
  const [first, last] = [breaks[0], breaks.at(-1)]
  if (first === undefined || last === undefined || breaks.length < 2) return []
  const aside = (last - first) * ASIDE
  const told: number[] = []
  const cut: number[] = []
  breaks.slice(1).forEach((to, i) => {
    const from = breaks[i] ?? to
    const steps = Math.max(2, Math.round((count * (to - from)) / (last - first)))
    for (let k = 0; k <= steps; k++) {
      const x = from + ((to - from) * k) / steps
      told.push(x)
      cut.push(Math.min(to - aside, Math.max(from + aside, x)))
    }
  })
  const sums = sumsAt(mesh, Float64Array.from(cut))
  const volumes = cumulated(told, sums.area)
  const scale = (volumes.at(-1) ?? 0) > 0 ? volume / (volumes.at(-1) ?? 1) : 1
  return told.map((x, i) => stationOf(sums, i, x, (volumes[i] ?? 0) * scale))
}

/** The ends, and the places of faces square to the axis, growing; in mm. */
function breaksOf({ positions, indices }: Triangles): number[] {
  let [low, high] = [Infinity, -Infinity]
  const flat: number[] = []
  for (let i = 0; i < indices.length; i += 3) {
    const a = positions[3 * (indices[i] ?? 0) + 2] ?? 0
    const b = positions[3 * (indices[i + 1] ?? 0) + 2] ?? 0
    const c = positions[3 * (indices[i + 2] ?? 0) + 2] ?? 0
    const [least, most] = [Math.min(a, b, c), Math.max(a, b, c)]
    low = Math.min(low, least)
    high = Math.max(high, most)
    if (most - least < 1e-5) flat.push(a)
  }
  if (high <= low) return []
  const near = (high - low) * 10 * ASIDE
  return [low, ...flat.sort((a, b) => a - b), high].reduce<number[]>((kept, x) => {
    if (kept.length === 0 || x - (kept.at(-1) ?? x) > near) kept.push(x)
    return kept
  }, [])
}

/** Volumes from the first place on, between neighbours as if areas changed evenly. */
function cumulated(places: readonly number[], areas: Float64Array): number[] {
  let sum = 0
  return places.map((x, i) => {
    if (i > 0) sum += ((x - (places[i - 1] ?? x)) * ((areas[i - 1] ?? 0) + (areas[i] ?? 0))) / 2
    return sum
  })
}

function stationOf(sums: Sums, i: number, x: number, volume: number): SlicedStation {
  const at = (of: Float64Array): number => of[i] ?? 0
  const area = at(sums.area)
  if (area <= 0) return { x, outer: 0, inner: 0, area: 0, secondMoment: 0, mostMoment: 0, volume }
  const yy = at(sums.yy) - at(sums.y) ** 2 / area
  const zz = at(sums.zz) - at(sums.z) ** 2 / area
  const yz = at(sums.yz) - (at(sums.y) * at(sums.z)) / area
  const [middle, spread] = [(yy + zz) / 2, Math.hypot((yy - zz) / 2, yz)]
  // A body that was halved has the axis in its face: it still is solid there.
  const isSolid = at(sums.turned) > Math.PI / 2
  return {
    ...{ x, area, volume },
    outer: 2 * at(sums.most),
    inner: isSolid ? 0 : 2 * at(sums.least),
    secondMoment: Math.max(0, middle - spread),
    mostMoment: middle + spread,
  }
}

/** One end of a cut through a triangle: its place and the normal there, both across the axis. */
interface End {
  y: number
  z: number
  ny: number
  nz: number
}

/** @param cuts places along the axis, growing */
function sumsAt(mesh: Triangles, cuts: Float64Array): Sums {
  const make = (value = 0): Float64Array => new Float64Array(cuts.length).fill(value)
  const sums: Sums = {
    ...{ area: make(), y: make(), z: make(), yy: make(), zz: make(), yz: make() },
    ...{ turned: make(), least: make(Infinity), most: make() },
  }
  const { positions, indices } = mesh
  const ends: [End, End] = [
    { y: 0, z: 0, ny: 0, nz: 0 },
    { y: 0, z: 0, ny: 0, nz: 0 },
  ]
  for (let i = 0; i < indices.length; i += 3) {
    const corners = [indices[i] ?? 0, indices[i + 1] ?? 0, indices[i + 2] ?? 0] as const
    const xs = corners.map((v) => positions[3 * v + 2] ?? 0)
    const high = Math.max(...xs)
    for (let k = firstFrom(cuts, Math.min(...xs)); k < cuts.length; k++) {
      const x = cuts[k] ?? 0
      if (x >= high) break
      let found = 0
      for (let c = 0; c < 3; c++) {
        const [a, b] = [corners[c] ?? 0, corners[(c + 1) % 3] ?? 0]
        const end = ends[found]
        if (end && (positions[3 * a + 2] ?? 0) > x !== (positions[3 * b + 2] ?? 0) > x) {
          endOf(mesh, a, b, x, end)
          found++
        }
      }
      if (found === 2) add(sums, k, ...ends)
    }
  }
  return sums
}

/** The number of the first cut at or beyond a place. */
function firstFrom(cuts: Float64Array, x: number): number {
  let [low, high] = [0, cuts.length]
  while (low < high) {
    const middle = (low + high) >> 1
    if ((cuts[middle] ?? 0) < x) low = middle + 1
    else high = middle
  }
  return low
}

/** Normals that lie almost along the axis tell little of how round the cut is. */
const LEAST_ACROSS = 0.3

/**
 * Where a side of a triangle is cut. The surface bulges over the side by t(1 − t)/2 (n₁ − n₀)·(p₁ − p₀),
 * which for a circle is the rise of its arc over the chord.
 */
function endOf({ positions, normals }: Triangles, a: number, b: number, x: number, end: End): void {
  const at = (list: Float32Array, v: number, k: number): number => list[3 * v + k] ?? 0
  const t = (x - at(positions, a, 2)) / (at(positions, b, 2) - at(positions, a, 2))
  const mixed = (list: Float32Array, k: number): number =>
    (1 - t) * at(list, a, k) + t * at(list, b, k)
  let bulge = 0
  for (let k = 0; k < 3; k++) {
    const [turn, way] = [
      at(normals, b, k) - at(normals, a, k),
      at(positions, b, k) - at(positions, a, k),
    ]
    bulge += (t * (1 - t) * turn * way) / 2
  }
  const [ny, nz] = [mixed(normals, 0), mixed(normals, 1)]
  const across = Math.hypot(ny, nz)
  const out = across > LEAST_ACROSS ? bulge / (across * across) : 0
  end.y = mixed(positions, 0) + ny * out
  end.z = mixed(positions, 1) + nz * out
  end.ny = across > 0 ? ny / across : 0
  end.nz = across > 0 ? nz / across : 0
}

/** Adds a piece of the outline to its station, as the arc between its ends that has their normals. */
function add(sums: Sums, k: number, one: End, other: End): void {
  // Material lies to the left of the way, and normals point to the right of it.
  const sides = (one.ny + other.ny) * (other.z - one.z) - (one.nz + other.nz) * (other.y - one.y)
  const [p, q] = sides >= 0 ? [one, other] : [other, one]
  const twice = p.y * q.z - p.z * q.y
  const length = Math.hypot(q.y - p.y, q.z - p.z)
  const bend = Math.atan2(p.ny * q.nz - p.nz * q.ny, p.ny * q.ny + p.nz * q.nz)
  // Between chord and arc lies L²φ/12, about at 3/5 of the arc's rise Lφ/8 over the chord.
  const bow = (length * length * bend) / 12
  const rise = (3 * length * bend) / 40
  const [my, mz] = [
    (p.y + q.y) / 2 + (rise * (p.ny + q.ny)) / 2,
    (p.z + q.z) / 2 + (rise * (p.nz + q.nz)) / 2,
  ]
  plus(sums.area, k, twice / 2 + bow)
  plus(sums.y, k, (twice * (p.y + q.y)) / 6 + bow * my)
  plus(sums.z, k, (twice * (p.z + q.z)) / 6 + bow * mz)
  plus(sums.yy, k, (twice * (p.y * p.y + p.y * q.y + q.y * q.y)) / 12 + bow * my * my)
  plus(sums.zz, k, (twice * (p.z * p.z + p.z * q.z + q.z * q.z)) / 12 + bow * mz * mz)
  const mixed = 2 * p.y * p.z + p.y * q.z + q.y * p.z + 2 * q.y * q.z
  plus(sums.yz, k, (twice * mixed) / 24 + bow * my * mz)
  plus(sums.turned, k, Math.atan2(twice, p.y * q.y + p.z * q.z))
  const [near, far] = [Math.hypot(p.y, p.z), Math.hypot(q.y, q.z)]
  sums.least[k] = Math.min(sums.least[k] ?? Infinity, near, far, toAxis(p, q, length))
  sums.most[k] = Math.max(sums.most[k] ?? 0, near, far)
}

function plus(sums: Float64Array, k: number, value: number): void {
  sums[k] = (sums[k] ?? 0) + value
}

/** How near a straight piece comes to the axis between its ends; an arc is left to its ends. */
function toAxis(p: End, q: End, length: number): number {
  const isStraight = p.ny * q.ny + p.nz * q.nz > 1 - 1e-9
  const [wy, wz] = [q.y - p.y, q.z - p.z]
  const along = -(p.y * wy + p.z * wz)
  if (!isStraight || along <= 0 || along >= length * length) return Infinity
  return Math.abs(p.y * q.z - p.z * q.y) / length
}

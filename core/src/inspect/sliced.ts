import type { SolidMesh } from '../mesh'
import { countUpTo, type Station } from './along'

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
  /** ∫u dA, ∫v dA, ∫u² dA, ∫v² dA, ∫uv dA, with u and v along the mesh's X and Y */
  readonly u: Float64Array
  readonly v: Float64Array
  readonly uu: Float64Array
  readonly vv: Float64Array
  readonly uv: Float64Array
  /** How often the outline goes round the axis: once where the axis lies in material. */
  readonly rounds: Float64Array
  /** The squares of the least and the greatest distance from the axis. */
  readonly least: Float64Array
  readonly most: Float64Array
}

/** Steps of a curve that is cut aside of a shoulder, as a share of the body's length. */
export const ASIDE = 1e-6

/**
 * Stations along a solid by its triangles, from end to end, with two at every face that is square to the
 * axis. Between the vertices the surface is taken to be as round as the normals there tell: what a picture
 * with chords of 20° is made of tells areas and moments to some thousandths, near fillets to five.
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
export function cumulated(places: readonly number[], areas: Float64Array): number[] {
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
  const uu = at(sums.uu) - at(sums.u) ** 2 / area
  const vv = at(sums.vv) - at(sums.v) ** 2 / area
  const uv = at(sums.uv) - (at(sums.u) * at(sums.v)) / area
  const [middle, spread] = [(uu + vv) / 2, Math.hypot((uu - vv) / 2, uv)]
  return {
    ...{ x, area, volume },
    outer: 2 * Math.sqrt(at(sums.most)),
    inner: at(sums.rounds) > 0.5 ? 0 : 2 * Math.sqrt(at(sums.least)),
    secondMoment: Math.max(0, middle - spread),
    mostMoment: middle + spread,
  }
}

/** One end of a cut through a triangle: its place and the normal there, in the mesh's X and Y. */
interface End {
  u: number
  v: number
  nu: number
  nv: number
}

/** @param cuts places along the axis, growing */
function sumsAt(mesh: Triangles, cuts: Float64Array): Sums {
  const make = (value = 0): Float64Array => new Float64Array(cuts.length).fill(value)
  const sums: Sums = {
    ...{ area: make(), u: make(), v: make(), uu: make(), vv: make(), uv: make() },
    ...{ rounds: make(), least: make(Infinity), most: make() },
  }
  const { positions, indices } = mesh
  const ends: [End, End] = [
    { u: 0, v: 0, nu: 0, nv: 0 },
    { u: 0, v: 0, nu: 0, nv: 0 },
  ]
  const height = (v: number): number => positions[3 * v + 2] ?? 0
  for (let i = 0; i < indices.length; i += 3) {
    const corners = [indices[i] ?? 0, indices[i + 1] ?? 0, indices[i + 2] ?? 0]
    const [low = 0, middle = 0, high = 0] = corners.sort((a, b) => height(a) - height(b))
    // The lower corner first, so that both triangles at a side find the same place.
    for (let k = countUpTo(cuts, height(low)); k < cuts.length; k++) {
      const x = cuts[k] ?? 0
      if (x > height(high)) break
      endOf(mesh, low, high, x, ends[0])
      if (height(middle) >= x) endOf(mesh, low, middle, x, ends[1])
      else endOf(mesh, middle, high, x, ends[1])
      add(sums, k, ...ends)
    }
  }
  return sums
}

/** Normals that lie almost along the axis tell little of how round the cut is: the square of their rest. */
const LEAST_ACROSS = 0.1

/**
 * Where a side of a triangle is cut. The surface bulges over the side by t(1 − t)/2 (n₁ − n₀)·(p₁ − p₀),
 * which for a circle is the rise of its arc over the chord.
 */
function endOf({ positions, normals }: Triangles, a: number, b: number, x: number, end: End): void {
  const [i, k] = [3 * a, 3 * b]
  const [px, py, pz] = [positions[i] ?? 0, positions[i + 1] ?? 0, positions[i + 2] ?? 0]
  const [qx, qy, qz] = [positions[k] ?? 0, positions[k + 1] ?? 0, positions[k + 2] ?? 0]
  const [mx, my, mz] = [normals[i] ?? 0, normals[i + 1] ?? 0, normals[i + 2] ?? 0]
  const [nx, ny, nz] = [normals[k] ?? 0, normals[k + 1] ?? 0, normals[k + 2] ?? 0]
  const t = (x - pz) / (qz - pz)
  const rise = (nx - mx) * (qx - px) + (ny - my) * (qy - py) + (nz - mz) * (qz - pz)
  const [across, aside] = [mx + t * (nx - mx), my + t * (ny - my)]
  const square = across * across + aside * aside
  const out = square > LEAST_ACROSS ? (t * (1 - t) * rise) / (2 * square) : 0
  const length = Math.sqrt(square)
  end.u = px + t * (qx - px) + across * out
  end.v = py + t * (qy - py) + aside * out
  end.nu = length > 0 ? across / length : 0
  end.nv = length > 0 ? aside / length : 0
}

/** Adds a piece of the outline to its station, as the arc between its ends that has their normals. */
function add(sums: Sums, k: number, one: End, other: End): void {
  // Material lies to the left of the way, and normals point to the right of it.
  const sides = (one.nu + other.nu) * (other.v - one.v) - (one.nv + other.nv) * (other.u - one.u)
  const [p, q] = sides >= 0 ? [one, other] : [other, one]
  const twice = p.u * q.v - p.v * q.u
  const square = (q.u - p.u) ** 2 + (q.v - p.v) ** 2
  const bend = turnOf(p, q)
  // Between chord and arc lies L²φ/12, about at 3/5 of the arc's rise Lφ/8 over the chord.
  const bow = (square * bend) / 12
  const rise = (3 * Math.sqrt(square) * bend) / 40
  const [mu, mv] = [
    (p.u + q.u) / 2 + (rise * (p.nu + q.nu)) / 2,
    (p.v + q.v) / 2 + (rise * (p.nv + q.nv)) / 2,
  ]
  plus(sums.area, k, twice / 2 + bow)
  plus(sums.u, k, (twice * (p.u + q.u)) / 6 + bow * mu)
  plus(sums.v, k, (twice * (p.v + q.v)) / 6 + bow * mv)
  plus(sums.uu, k, (twice * (p.u * p.u + p.u * q.u + q.u * q.u)) / 12 + bow * mu * mu)
  plus(sums.vv, k, (twice * (p.v * p.v + p.v * q.v + q.v * q.v)) / 12 + bow * mv * mv)
  const mixed = 2 * p.u * p.v + p.u * q.v + q.u * p.v + 2 * q.u * q.v
  plus(sums.uv, k, (twice * mixed) / 24 + bow * mu * mv)
  plus(sums.rounds, k, crossing(p, q, twice))
  const [near, far] = [p.u * p.u + p.v * p.v, q.u * q.u + q.v * q.v]
  const way = bend === 0 ? toAxis(p, q, square) : Infinity
  sums.least[k] = Math.min(sums.least[k] ?? Infinity, near, far, way)
  sums.most[k] = Math.max(sums.most[k] ?? 0, near, far)
}

/** The angle from one end's normal to the other's in rad, nought where they are all but the same. */
function turnOf(p: End, q: End): number {
  const [sine, cosine] = [p.nu * q.nv - p.nv * q.nu, p.nu * q.nu + p.nv * q.nv]
  return cosine > 0 && Math.abs(sine) < 1e-5 ? 0 : Math.atan2(sine, cosine)
}

/** One where a piece crosses the ray out from the axis upwards, less one where it crosses it downwards. */
function crossing(p: End, q: End, twice: number): number {
  const [below, above] = [p.v <= 0 && q.v > 0, p.v > 0 && q.v <= 0]
  if (below && twice > 0) return 1
  return above && twice < 0 ? -1 : 0
}

function plus(sums: Float64Array, k: number, value: number): void {
  sums[k] = (sums[k] ?? 0) + value
}

/** The square of how near a straight piece comes to the axis between its ends. */
function toAxis(p: End, q: End, square: number): number {
  const along = -(p.u * (q.u - p.u) + p.v * (q.v - p.v))
  if (along <= 0 || along >= square) return Infinity
  return (p.u * q.v - p.v * q.u) ** 2 / square
}

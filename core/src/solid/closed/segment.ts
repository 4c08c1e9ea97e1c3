/** ∫dA, ∫w, ∫v, ∫w², ∫v² and ∫wv over a part of a disc. */
export interface Segment {
  readonly area: number
  readonly w: number
  readonly v: number
  readonly ww: number
  readonly vv: number
  readonly wv: number
}

/** Of what lies in a disc beyond a chord at a distance from its middle, between two places along the chord. */
export function segment(radius: number, floor: number, from: number, to: number): Segment {
  const chord = radius > floor ? Math.sqrt(radius * radius - floor * floor) : 0
  const [low, high] = [Math.min(from, to), Math.max(from, to)]
  const v1 = Math.min(chord, high)
  const v0 = Math.min(v1, Math.max(-chord, low))
  if (v1 <= v0) return { area: 0, w: 0, v: 0, ww: 0, vv: 0, wv: 0 }
  const [a, b] = [under(radius, floor, v0), under(radius, floor, v1)]
  return {
    ...{ area: b.area - a.area, w: b.w - a.w, v: b.v - a.v },
    ...{ ww: b.ww - a.ww, vv: b.vv - a.vv, wv: b.wv - a.wv },
  }
}

/** The same from the middle of the chord to a place of it, with s = √(r² − v²): ∫s = (vs + r²·asin(v/r))/2 and so on. */
function under(r: number, d: number, v: number): Segment {
  const s = Math.sqrt(Math.max(0, r * r - v * v))
  const disc = (v * s + r * r * Math.asin(Math.max(-1, Math.min(1, v / r)))) / 2
  const cubes = (v * s ** 3) / 4 + (3 * r * r * disc) / 4
  return {
    area: disc - d * v,
    w: ((r * r - d * d) * v - v ** 3 / 3) / 2,
    v: -(s ** 3) / 3 - (d * v * v) / 2,
    ww: (cubes - d ** 3 * v) / 3,
    vv: (-v * s ** 3) / 4 + (r * r * disc) / 4 - (d * v ** 3) / 3,
    wv: ((r * r - d * d) * v * v) / 4 - v ** 4 / 8,
  }
}

/**
 * Volumes of turned bars with things drilled and milled out of them, by slices square to the axis: polygons, clipped by a
 * package from the registry, and summed by Gauss' rule. Nothing of the engine is used.
 */
import Clipper from 'clipper-lib'

/** What is taken away, in mm and radians: the axis is x, and an angle nought looks along y. */
export type Taken =
  | {
      /** From the face at nought into the bar, with a cone of a half angle at its end if it is given. */
      readonly kind: 'hole'
      readonly far: number
      readonly angle: number
      readonly radius: number
      readonly deep: number
      readonly tip: number | undefined
    }
  | {
      /** Right through, square to the axis. */
      readonly kind: 'cross'
      readonly at: number
      readonly angle: number
      readonly radius: number
    }
  | {
      /** All beyond a plane along the axis. */
      readonly kind: 'flat'
      readonly out: number
      readonly angle: number
      readonly from: number
      readonly to: number
    }
  | {
      /** All beyond a plane along the axis that lies within a breadth, with half-round ends or square ones. */
      readonly kind: 'keyway'
      readonly out: number
      readonly angle: number
      readonly from: number
      readonly to: number
      readonly width: number
      readonly round: boolean
    }

export interface Bar {
  /** From left to right, the first beginning at nought. */
  readonly lands: readonly { readonly radius: number; readonly length: number }[]
  readonly bore: number
  readonly taken: readonly Taken[]
}

type Path = { X: number; Y: number }[]

/** Whole numbers in which the clipping package reckons, per mm. */
const SCALE = 1e7
const SIDES = 480

/** A polygon of as much area as a circle. */
function circle(y: number, z: number, radius: number): Path {
  const turn = (2 * Math.PI) / SIDES
  const r = radius * Math.sqrt(turn / Math.sin(turn))
  return Array.from({ length: SIDES }, (_, i) => ({
    X: Math.round(SCALE * (y + r * Math.cos(i * turn))),
    Y: Math.round(SCALE * (z + r * Math.sin(i * turn))),
  }))
}

/** A rectangle from one distance to another along a direction, and to both sides of it. */
function box(angle: number, near: number, far: number, half: number): Path {
  const [c, s] = [Math.cos(angle), Math.sin(angle)]
  const corners: [number, number][] = [
    [near, -half],
    [far, -half],
    [far, half],
    [near, half],
  ]
  return corners.map(([u, v]) => ({
    X: Math.round(SCALE * (u * c - v * s)),
    Y: Math.round(SCALE * (u * s + v * c)),
  }))
}

/** Farther than anything is from the axis, in mm. */
const FAR = 500

/** What one thing takes out of the slice at a place, if anything. */
function sliceOf(t: Taken, x: number): Path | undefined {
  switch (t.kind) {
    case 'hole': {
      const beyond = x - t.deep
      const radius = beyond <= 0 ? t.radius : t.radius - beyond * Math.tan(t.tip ?? 0)
      if (radius <= 0 || (beyond > 0 && t.tip === undefined)) return undefined
      return circle(t.far * Math.cos(t.angle), t.far * Math.sin(t.angle), radius)
    }
    case 'cross': {
      const half = t.radius ** 2 - (x - t.at) ** 2
      return half > 0 ? box(t.angle, -FAR, FAR, Math.sqrt(half)) : undefined
    }
    case 'flat':
      return x > t.from && x < t.to ? box(t.angle, t.out, FAR, FAR) : undefined
    case 'keyway': {
      if (x <= t.from || x >= t.to) return undefined
      const r = t.width / 2
      const beyond = t.round ? Math.max(0, t.from + r - x, x - (t.to - r)) : 0
      return box(t.angle, t.out, FAR, Math.sqrt(r * r - beyond * beyond))
    }
  }
}

/** Where along the axis something begins, ends, or begins to end. */
function breaksOf(t: Taken): number[] {
  switch (t.kind) {
    case 'hole':
      return [t.deep, ...(t.tip === undefined ? [] : [t.deep + t.radius / Math.tan(t.tip)])]
    case 'cross':
      return [t.at - t.radius, t.at, t.at + t.radius]
    case 'flat':
      return [t.from, t.to]
    case 'keyway':
      return [t.from, t.from + t.width / 2, t.to - t.width / 2, t.to]
  }
}

/** Nodes and weights of Gauss' rule for eight places on −1 to 1 (Abramowitz & Stegun, table 25.4). */
const GAUSS = [
  [0.1834346424956498, 0.362683783378362],
  [0.525532409916329, 0.3137066458778873],
  [0.7966664774136267, 0.2223810344533745],
  [0.9602898564975363, 0.1012285362903763],
].flatMap(([t = 0, w = 0]) => [
  [-t, w],
  [t, w],
])

/** The volume of a bar in mm³. */
export function volumeOf({ lands, bore, taken }: Bar): number {
  const ends = lands.map((_, i) => lands.slice(0, i + 1).reduce((sum, l) => sum + l.length, 0))
  const whole = ends.at(-1) ?? 0
  const breaks = [0, ...ends, ...taken.flatMap(breaksOf)]
    .filter((x) => x >= 0 && x <= whole)
    .sort((a, b) => a - b)
  let volume = 0
  breaks.slice(1).forEach((to, i) => {
    const from = breaks[i] ?? 0
    if (to - from < 1e-9) return
    const land = lands[ends.findIndex((end) => end > (from + to) / 2)]
    for (const [t = 0, w = 0] of GAUSS) {
      // Places crowd at both ends, where slices may grow like a root.
      const at = Math.sin((Math.PI / 2) * t)
      const x = (from + to) / 2 + ((to - from) / 2) * at
      const weight = w * ((to - from) / 2) * (Math.PI / 2) * Math.cos((Math.PI / 2) * t)
      volume += weight * areaAt(land?.radius ?? 0, bore, taken, x)
    }
  })
  return volume
}

function areaAt(radius: number, bore: number, taken: readonly Taken[], x: number): number {
  const { ClipType, PolyType, PolyFillType } = Clipper
  const clipper = new Clipper.Clipper()
  clipper.AddPaths([circle(0, 0, radius)], PolyType.ptSubject, true)
  const out = taken.flatMap((t) => {
    const path = sliceOf(t, x)
    return path ? [path] : []
  })
  if (bore > 0) out.push(circle(0, 0, bore))
  clipper.AddPaths(out, PolyType.ptClip, true)
  const left: Path[] = []
  const all = PolyFillType.pftNonZero
  clipper.Execute(ClipType.ctDifference, left, all, all)
  return left.reduce((sum, p) => sum + Clipper.Clipper.Area(p), 0) / (SCALE * SCALE)
}

/**
 * Volumes of turned parts by hand: closed forms of simple bodies, and Pappus' rule for what corners
 * gain and lose. Nothing here comes from the section engine. Lengths in mm; x along the axis.
 */

export const cylinder = (d: number, l: number): number => (Math.PI * d * d * l) / 4
export const tube = (outside: number, inside: number, l: number): number =>
  cylinder(outside, l) - cylinder(inside, l)
export const frustum = (d: number, e: number, l: number): number =>
  (Math.PI * l * (d * d + d * e + e * e)) / 12

type Place = readonly [x: number, radius: number]

/** An area of the section and its first moment about the axis. */
export interface Patch {
  readonly area: number
  readonly moment: number
}

export const turned = ({ moment }: Patch): number => 2 * Math.PI * moment

export const sum = (...patches: readonly Patch[]): Patch => ({
  area: patches.reduce((s, p) => s + p.area, 0),
  moment: patches.reduce((s, p) => s + p.moment, 0),
})

export const less = (a: Patch, b: Patch): Patch => ({
  area: a.area - b.area,
  moment: a.moment - b.moment,
})

/** A polygon, whichever way round: triangles with the first corner. */
export function polygon(...corners: readonly Place[]): Patch {
  let [area, moment] = [0, 0]
  const [o] = corners
  for (let i = 1; o && i + 1 < corners.length; i++) {
    const [p, q] = [corners[i], corners[i + 1]]
    if (!p || !q) continue
    const a = ((p[0] - o[0]) * (q[1] - o[1]) - (q[0] - o[0]) * (p[1] - o[1])) / 2
    area += a
    moment += (a * (o[1] + p[1] + q[1])) / 3
  }
  return area < 0 ? { area: -area, moment: -moment } : { area, moment }
}

/** Part of a disc: of an angle in radians about a direction, told by its component outwards. */
export function sector(centre: Place, r: number, angle: number, outwards: number): Patch {
  const area = (r * r * angle) / 2
  const centroid = centre[1] + ((4 * r * Math.sin(angle / 2)) / (3 * angle)) * outwards
  return { area, moment: area * centroid }
}

/** What a round takes from a corner, or adds in it: the kite of its two tangents less the sector. */
export function rounding(corner: Place, along: Place, other: Place, r: number): Patch {
  const unit = ([x, y]: Place): Place => [x / Math.hypot(x, y), y / Math.hypot(x, y)]
  const [u, v] = [unit(along), unit(other)]
  const inner = Math.acos(u[0] * v[0] + u[1] * v[1])
  const t = r / Math.tan(inner / 2)
  const middle = unit([u[0] + v[0], u[1] + v[1]])
  const depth = r / Math.sin(inner / 2)
  const centre: Place = [corner[0] + middle[0] * depth, corner[1] + middle[1] * depth]
  const a: Place = [corner[0] + u[0] * t, corner[1] + u[1] * t]
  const b: Place = [corner[0] + v[0] * t, corner[1] + v[1] * t]
  return less(polygon(corner, a, centre, b), sector(centre, r, Math.PI - inner, -middle[1]))
}

/** What a 45° chamfer takes from a square edge. @param away +1 where material lies outwards (a bore) */
export const bevel = (d: number, leg: number, away: 1 | -1 = -1): number =>
  2 * Math.PI * (d / 2 + (away * leg) / 3) * ((leg * leg) / 2)

/** What an undercut takes: 30° at its run-out, square at the shoulder to its left, both corners rounded. */
export function undercut(
  shoulder: number,
  d: number,
  bottom: number,
  wide: number,
  r: number,
): number {
  const [top, low] = [d / 2, bottom / 2]
  const run = (top - low) / Math.tan(Math.PI / 6)
  const end = shoulder + wide
  const cut = polygon([shoulder, top], [shoulder, low], [end - run, low], [end, top])
  const square = rounding([shoulder, low], [0, 1], [1, 0], r)
  const slope = rounding([end - run, low], [-1, 0], [run, top - low], r)
  return turned(less(less(cut, square), slope))
}

/** What a centre hole of type B takes: guard, cone, pilot and the tip of the drill (ISO 2540, ISO 6411). */
export function centreB(pilot: number, cone: number, guard: number, t: number): number {
  const [sixty, thirty] = [Math.tan(Math.PI / 3), Math.tan(Math.PI / 6)]
  return (
    frustum(guard, cone, (guard - cone) / 2 / sixty) +
    frustum(cone, pilot, (cone - pilot) / 2 / thirty) +
    cylinder(pilot, t) +
    frustum(pilot, 0, pilot / 2 / sixty)
  )
}

/** The demo spindle in mm³: its cylinders, two fillets, two bevels, the undercut of its thread and two centre holes. */
export const spindleVolume = (): number =>
  [
    [20, 24],
    [28, 34],
    [44, 8],
    [35, 46],
    [24, 34],
    [16, 25],
  ].reduce((v, [d = 0, l = 0]) => v + cylinder(d, l), 0) +
  turned(rounding([24, 10], [-1, 0], [0, 1], 1.5)) +
  turned(rounding([66, 17.5], [1, 0], [0, 1], 1.5)) -
  bevel(20, 1) -
  bevel(16, 1) -
  undercut(146, 16, 13.7, 4.5, 0.8) -
  centreB(2, 4.25, 6.3, 1.8) -
  centreB(1.6, 3.35, 5, 1.4)

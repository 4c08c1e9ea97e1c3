import type { Material, Part } from '../part'
import type { BodyState } from '../route'
import type { LiftedProperties } from '../solid'

/**
 * Mass properties in mm and g. The centre of mass of turned bodies lies on the axis; of others the
 * moment across the axis is the greatest one through the centre.
 */
export interface MassProperties {
  readonly mass: number
  readonly volume: number
  readonly area: number
  /** Axial position of the centre of mass; of the volume where nothing weighs anything. */
  readonly centre: number
  /** Principal moments of inertia: about the axis, and about any line through the centre across it. */
  readonly inertiaAxis: number
  readonly inertiaAcross: number
  /** How far the centre of mass lies off the axis; nought for full turns. */
  readonly aside: number
  /** Radii of gyration of the same two. */
  readonly gyrationAxis: number
  readonly gyrationAcross: number
  /** The bounding cylinder. */
  readonly from: number
  readonly to: number
  readonly diameter: number
}

/** The density of a body's material in g/mm³; nought for one without. */
export function densityOf(part: Pick<Part, 'bodies' | 'materials'>, bodyId: string): number {
  return materialOf(part, bodyId)?.density ?? 0
}

export function materialOf(
  part: Pick<Part, 'bodies' | 'materials'>,
  bodyId: string,
): Material | undefined {
  const body = part.bodies.find((b) => b.id === bodyId)
  return part.materials.find((m) => m.id === body?.material)
}

/** Whether the solid kernel has not told yet what a body comes to. */
export const isPending = ({ plan, solid }: BodyState): boolean =>
  plan !== undefined && solid === undefined

/**
 * Bodies taken together; moments are moved to the common centre by the parallel-axis theorem.
 * @returns undefined when none of them has any material, or the kernel has not told of one of them
 */
export function massProperties(
  part: Pick<Part, 'bodies' | 'materials'>,
  bodies: readonly BodyState[],
): MassProperties | undefined {
  const all = bodies.flatMap(({ bodyId, solid }) =>
    solid ? [{ solid, density: densityOf(part, bodyId) }] : [],
  )
  if (all.length === 0 || bodies.some(isPending)) return undefined
  const sum = (of: (body: (typeof all)[number]) => number): number =>
    all.reduce((total, body) => total + of(body), 0)
  const volume = sum((b) => b.solid.volume)
  const mass = sum((b) => b.solid.volume * b.density)
  const weight = (b: (typeof all)[number]): number => (mass > 0 ? b.density : 1) * b.solid.volume
  const centre = sum((b) => weight(b) * b.solid.centreX) / sum(weight)
  const aside = (way: 'x' | 'y'): number =>
    sum((b) => weight(b) * ('centre' in b.solid ? (b.solid as LiftedProperties).centre[way] : 0)) /
    sum(weight)
  const inertiaAxis = sum((b) => b.density * b.solid.inertiaAxis)
  const inertiaAcross = sum(
    (b) => b.density * (b.solid.inertiaAcross + b.solid.volume * (b.solid.centreX - centre) ** 2),
  )
  const gyration = (moment: number): number => (mass > 0 ? Math.sqrt(moment / mass) : 0)
  return {
    ...{ mass, volume, centre, inertiaAxis, inertiaAcross },
    area: sum((b) => b.solid.area),
    aside: Math.hypot(aside('x'), aside('y')),
    gyrationAxis: gyration(inertiaAxis),
    gyrationAcross: gyration(inertiaAcross),
    from: Math.min(...all.map((b) => b.solid.from)),
    to: Math.max(...all.map((b) => b.solid.to)),
    diameter: 2 * Math.max(...all.map((b) => b.solid.radius)),
  }
}

/** What a body could be turned from. */
export interface Stock {
  readonly kind: 'bar' | 'blank'
  /** in mm */
  readonly diameter: number
  readonly length: number
  /** in mm³ */
  readonly volume: number
  /** The share of it that is cut away, from 0 to 1. */
  readonly cutAway: number
}

/** Usual diameters of hot rolled round bars in mm (EN 10060). */
const ROUND_BARS = [
  10, 12, 13, 14, 15, 16, 18, 19, 20, 22, 24, 25, 26, 27, 28, 30, 32, 35, 36, 38, 40, 42, 45, 48,
  50, 52, 55, 60, 63, 65, 70, 73, 75, 80, 85, 90, 95, 100, 105, 110, 115, 120, 125, 130, 135, 140,
  145, 150, 155, 160, 165, 170, 175, 180, 190, 200, 220, 250,
]

/** What is left to be cut off a bar: on the diameter, and at each end, in mm. */
export const STOCK_ALLOWANCE = { diameter: 1, end: 1 } as const

/** The least usual bar that a body fits into; above the bars a blank in steps of ten millimetres. */
export function stockFor(body: Pick<MassProperties, 'diameter' | 'from' | 'to' | 'volume'>): Stock {
  const needed = body.diameter + STOCK_ALLOWANCE.diameter
  const bar = ROUND_BARS.find((d) => d >= needed)
  const diameter = bar ?? Math.ceil(needed / 10) * 10
  const length = Math.ceil(body.to - body.from + 2 * STOCK_ALLOWANCE.end - 1e-9)
  const volume = (Math.PI / 4) * diameter ** 2 * length
  const kind = bar === undefined ? 'blank' : 'bar'
  return { kind, diameter, length, volume, cutAway: 1 - body.volume / volume }
}

import { INTEGRAL_NAMES, boundsOf, integrate, type Integrals } from '../../geometry'
import { VERTEX_TOLERANCE } from '../../tolerances'
import { loopsOf, type Section } from '../types'

/** Properties of the solid of revolution, for a density of 1. Exact up to rounding. */
export interface SolidProperties {
  /** in mm³ */
  readonly volume: number
  /** in mm², every face that is a surface; edges on the axis are none */
  readonly area: number
  /** axial position of the centre of volume in mm; the others lie on the axis */
  readonly centreX: number
  /** second moment of volume about the axis in mm⁵ */
  readonly inertiaAxis: number
  /** second moment of volume about any line through the centre square to the axis, in mm⁵ */
  readonly inertiaAcross: number
  /** axial extent and greatest radius in mm */
  readonly from: number
  readonly to: number
  readonly radius: number
}

/**
 * Integrates along the section's edges: V = 2π∬y dA, S = 2π∫y ds, x̄V = 2π∬xy dA,
 * J = 2π∬y³ dA, I = J/2 + 2π∬x²y dA less the parallel-axis term (Pappus; Green's theorem).
 * @returns undefined for a section without material
 */
export function solidProperties(section: Section): SolidProperties | undefined {
  const edges = loopsOf(section).flat()
  if (edges.length === 0) return undefined
  const boxes = edges.map((e) => boundsOf(e.piece))
  const from = Math.min(...boxes.map((b) => b.min.x))
  const to = Math.max(...boxes.map((b) => b.max.x))
  const radius = Math.max(...boxes.map((b) => b.max.y))
  const middle = (from + to) / 2
  const each = edges.map((e) => integrate(e.piece, middle))
  const sums = sumIntegrals(each)
  const surface = each.filter((_, i) => (boxes[i]?.max.y ?? 0) > VERTEX_TOLERANCE)
  const yAlong = sumOf(surface, 'yAlong')
  const turn = 2 * Math.PI
  const volume = turn * sums.y
  const offset = (turn * sums.xy) / volume
  const inertiaAxis = turn * sums.yyy
  return {
    volume,
    area: turn * yAlong,
    centreX: middle + offset,
    inertiaAxis,
    inertiaAcross: inertiaAxis / 2 + turn * sums.xxy - volume * offset * offset,
    from,
    to,
    radius,
  }
}

function sumIntegrals(items: readonly Integrals[]): Integrals {
  const total = { area: 0, y: 0, xy: 0, yyy: 0, xxy: 0, yAlong: 0 }
  for (const name of INTEGRAL_NAMES) total[name] = sumOf(items, name)
  return total
}

/** Adds up with compensation (Neumaier 1974), so that many small edges lose nothing. */
function sumOf(items: readonly Integrals[], name: keyof Integrals): number {
  let sum = 0
  let lost = 0
  for (const item of items) {
    const value = item[name]
    const next = sum + value
    lost += Math.abs(sum) >= Math.abs(value) ? sum - next + value : value - next + sum
    sum = next
  }
  return sum + lost
}

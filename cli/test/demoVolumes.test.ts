import { describe, expect, it } from 'vitest'
import { evaluate } from '@lathica/core/route'
import { edgesOf } from '@lathica/core/section'
import { strip } from '../../core/test/support/strip'
import { demoPart } from '../../core/test/support/demo'
import {
  bevel,
  cylinder,
  frustum,
  less,
  polygon,
  rounding,
  sector,
  spindleVolume,
  sum,
  tube,
  turned,
} from './support/pappus'

function volumes(name: string): number[] {
  return evaluate(demoPart(name)).bodies.map((b) => b.solid?.volume ?? 0)
}

function expectVolume(name: string, ...expected: readonly number[]): void {
  const found = volumes(name)
  expect(found).toHaveLength(expected.length)
  expected.forEach((v, i) => expect((found[i] ?? 0) / v).toBeCloseTo(1, 10))
}

const DEGREE = Math.PI / 180

describe('by hand', () => {
  it('the spindle is its cylinders with two fillets, less bevels, an undercut and centre holes', () => {
    expectVolume('spindle', spindleVolume())
  })

  it('the guide roller is a ring with a groove inside, and a stepped roller', () => {
    const ring = tube(44, 16, 24) - tube(24.4, 16, 20) - 2 * bevel(44, 1)
    expectVolume('guide-roller', ring, 2 * cylinder(10, 8.15) + cylinder(24, 19.7))
  })

  it('the line sheave is hub and web, less the rope groove', () => {
    // The flank is the tangent from the land's edge to the circle in the groove's bottom.
    const [r, px, py] = [2, 4, 6]
    const square = px * px + py * py
    const long = Math.sqrt(square - r * r)
    const tx = (r * r * px + r * long * py) / square
    const ty = (r * r * py - r * long * px) / square
    const below = 2 * Math.acos(-ty / r)
    const groove = sum(
      polygon([-px, 60], [px, 60], [tx, 54 + ty], [0, 54], [-tx, 54 + ty]),
      sector([0, 54], r, below, -1),
    )
    const fillets = sum(
      rounding([6, 28], [-1, 0], [0, 1], 2),
      rounding([20, 28], [1, 0], [0, 1], 2),
    )
    expectVolume(
      'line-sheave',
      tube(56, 35, 26) +
        tube(120, 56, 14) -
        turned(groove) +
        turned(fillets) -
        2 * bevel(35, 1.5, 1),
    )
  })

  it('the counterweight is cones and cylinders, less its bore and five vee grooves', () => {
    const neck = 18 / Math.tan(52 * DEGREE)
    const outside = frustum(52, 60, 6) + cylinder(60, 98) + frustum(60, 24, neck) + cylinder(24, 14)
    const tip = cylinder(8, 4 / Math.tan(59 * DEGREE)) / 3
    const vee = turned(polygon([-1, 30], [1, 30], [0, 29]))
    expectVolume('counterweight', outside - cylinder(14, 6) - cylinder(8, 24) - tip - 5 * vee)
  })

  it('the ink flask is a strip of its wall along its rounded outside, less its groove', () => {
    const wall = 2.5
    const { steps } = evaluate(demoPart('ink-flask'))
    const [blank] = steps[1]?.bodies ?? []
    const outside = (blank ? edgesOf(blank.section) : []).flatMap(({ piece }) => {
      const isAlong = (of: 'x' | 'y', at: number): boolean =>
        [piece.from, piece.to].every((p) => Math.abs(p[of] - at) < 1e-9)
      return isAlong('y', 0) || isAlong('x', 78) ? [] : [piece]
    })
    expect(outside.length).toBeGreaterThan(6)
    const along = outside.reduce((whole, piece) => whole + strip(piece, -wall), 0)
    const [r, d] = [1.5, 0.7]
    const half = Math.acos(d / r)
    const groove = less(
      sector([0, 11.7], r, 2 * half, -1),
      polygon([0, 11.7], [r * Math.sin(half), 11], [-r * Math.sin(half), 11]),
    )
    const [found = 0] = volumes('ink-flask')
    expect(found / (along - turned(groove))).toBeCloseTo(1, 5)
  })

  it('the float is half a hollow sphere, tubes and a ring, and its rod', () => {
    const bowl = ((2 * Math.PI) / 3) * (40 ** 3 - 39 ** 3)
    expectVolume(
      'float',
      bowl + tube(80, 78, 60) + tube(78, 16, 1) + tube(16, 14, 19),
      cylinder(10, 60),
    )
  })

  it('the ink funnel is a wall by half to both sides of its stem and its mouth', () => {
    const [t, n] = [1.5, 4000]
    // Across a wall of thickness t by half to both sides: t·y less t³/12 times what it bends inwards.
    const across = (y: number, bend: number, inwards: number): number =>
      t * y - (t ** 3 / 12) * bend * inwards
    const cubic = (a: number, b: number, c: number, d: number, s: number): number[] => {
      const r = 1 - s
      return [
        r ** 3 * a + 3 * r * r * s * b + 3 * r * s * s * c + s ** 3 * d,
        3 * (r * r * (b - a) + 2 * r * s * (c - b) + s * s * (d - c)),
        6 * (r * (c - 2 * b + a) + s * (d - 2 * c + b)),
      ]
    }
    let mouth = 0
    for (let i = 0; i <= n; i++) {
      const s = i / n
      const [, dx = 0, ddx = 0] = cubic(30, 50, 58, 62, s)
      const [y = 0, dy = 0, ddy = 0] = cubic(6, 6, 28, 42, s)
      const speed = Math.hypot(dx, dy)
      const bend = (dx * ddy - dy * ddx) / speed ** 3
      const weight = (i === 0 || i === n ? 1 : i % 2 === 1 ? 4 : 2) / (3 * n)
      mouth += weight * speed * across(y, bend, dx / speed)
    }
    const [found = 0] = volumes('ink-funnel')
    expect(found / (2 * Math.PI * (30 * across(6, 0, 1) + mouth))).toBeCloseTo(1, 7)
  })

  it('the bearing housing is two cylinders, less bores, a ring groove and a gland', () => {
    const [width, depth, r] = [1.3 * 2.62, 0.8 * 2.62, 0.1 * 2.62]
    const corners = sum(
      rounding([depth, 22], [-1, 0], [0, 1], r),
      rounding([depth, 22 + width], [-1, 0], [0, -1], r),
    )
    const gland = tube(2 * (22 + width), 44, depth) - turned(corners)
    const fillet = turned(rounding([10, 25], [1, 0], [0, 1], 3))
    expectVolume(
      'bearing-housing',
      cylinder(70, 10) +
        cylinder(50, 24) -
        cylinder(35, 20) -
        cylinder(24, 14) -
        tube(37, 35, 1.6) -
        gland +
        fillet -
        2 * bevel(70, 1) -
        bevel(50, 1) -
        bevel(35, 1, 1),
    )
  })
})

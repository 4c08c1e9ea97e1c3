import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  arc,
  line,
  profileOf,
  solidProperties,
  vec,
  type Piece,
  type Section,
  type SectionEdge,
  type SolidProperties,
  type Vec,
} from '../src'

const edges = (pieces: readonly Piece[]): SectionEdge[] =>
  pieces.map((piece, i) => ({ piece, name: { step: 's', entity: `e${i}`, role: 'drawn' } }))

const chain = (...points: readonly (readonly [number, number])[]): Piece[] =>
  points.slice(1).map(([x, y], i) => line(vec(...(points[i] ?? [0, 0])), vec(x, y)))

const sectionOf = (pieces: readonly Piece[]): Section => {
  const { section, faults } = profileOf(edges(pieces), 's')
  expect(faults).toEqual([])
  return section
}

const solidOf = (pieces: readonly Piece[]): SolidProperties => {
  const solid = solidProperties(sectionOf(pieces))
  if (!solid) throw new Error('no material')
  return solid
}

const near = (actual: number, expected: number, relative = 1e-12): void => {
  expect(Math.abs(actual - expected)).toBeLessThanOrEqual(relative * Math.abs(expected))
}

/** A frustum from x = 0: closed forms for volume, mantle, centre and both second moments. */
function frustum(
  p: number,
  q: number,
  h: number,
): { v: number; side: number; sx: number; j: number; i0: number } {
  const v = (Math.PI * h * (p * p + p * q + q * q)) / 3
  const side = Math.PI * (p + q) * Math.hypot(h, q - p)
  const sx = (Math.PI * h * h * (p * p + 2 * p * q + 3 * q * q)) / 12
  const fourth = p ** 4 + p ** 3 * q + p * p * q * q + p * q ** 3 + q ** 4
  const j = (Math.PI * h * fourth) / 10
  const i0 = j / 2 + (Math.PI * h ** 3 * (p * p + 3 * p * q + 6 * q * q)) / 30
  return { v, side, sx, j, i0 }
}

describe('properties of turned solids', () => {
  it('are those of a cylinder, wherever it lies on the axis', () => {
    for (const x of [0, -50, 1e5]) {
      const solid = solidOf(chain([x, 0], [x, 20], [x + 30, 20], [x + 30, 0]))
      near(solid.volume, Math.PI * 400 * 30)
      near(solid.area, 2 * Math.PI * 20 * 30 + 2 * Math.PI * 400)
      near(solid.centreX, x + 15)
      near(solid.inertiaAxis, (solid.volume * 400) / 2)
      near(solid.inertiaAcross, (solid.volume * (3 * 400 + 900)) / 12)
      expect([solid.from, solid.to, solid.radius]).toEqual([x, x + 30, 20])
    }
  })

  it('are those of a ball, drawn as one arc from axis to axis', () => {
    const r = 12.5
    const solid = solidOf([arc(vec(-r, 0), vec(r, 0), vec(0, 0), false)])
    near(solid.volume, (4 / 3) * Math.PI * r ** 3)
    near(solid.area, 4 * Math.PI * r * r)
    expect(Math.abs(solid.centreX)).toBeLessThan(1e-12)
    near(solid.inertiaAxis, (2 / 5) * solid.volume * r * r)
    near(solid.inertiaAcross, (2 / 5) * solid.volume * r * r)
  })

  it('are those of a ring of round section, off the axis', () => {
    const [big, small] = [30, 7]
    const centre = vec(4, big)
    const solid = solidOf([
      arc(vec(4 + small, big), vec(4 - small, big), centre, true),
      arc(vec(4 - small, big), vec(4 + small, big), centre, true),
    ])
    near(solid.volume, 2 * Math.PI ** 2 * big * small ** 2)
    near(solid.area, 4 * Math.PI ** 2 * big * small)
    near(solid.centreX, 4)
    near(solid.inertiaAxis, solid.volume * (big ** 2 + (3 / 4) * small ** 2))
    near(solid.inertiaAcross, solid.volume * (big ** 2 / 2 + (5 / 8) * small ** 2))
  })

  it('are the sums over the cylinders and cones of any stepped and conical shaft', () => {
    const eighths = (min: number, max: number) =>
      fc.integer({ min: 8 * min, max: 8 * max }).map((n) => n / 8)
    const part = fc.record({ p: eighths(1, 50), q: eighths(1, 50), h: eighths(1, 80) })
    fc.assert(
      fc.property(fc.array(part, { minLength: 1, maxLength: 15 }), (parts) => {
        const points: [number, number][] = [[0, 0]]
        let x = 0
        let [v, area, sx, j, i0] = [0, 0, 0, 0, 0]
        let last = 0
        for (const { p, q, h } of parts) {
          if (p !== last) points.push([x, p])
          points.push([x + h, q])
          const f = frustum(p, q, h)
          area += f.side + Math.PI * Math.abs(p * p - last * last)
          v += f.v
          sx += f.sx + x * f.v
          j += f.j
          i0 += f.i0 + 2 * x * f.sx + x * x * f.v
          x += h
          last = q
        }
        area += Math.PI * last * last
        points.push([x, 0])
        const solid = solidOf(chain(...points))
        near(solid.volume, v)
        near(solid.area, area)
        near(solid.centreX, sx / v)
        near(solid.inertiaAxis, j)
        // The parallel-axis term takes the closed form's own digits; it is compared at its scale.
        expect(Math.abs(solid.inertiaAcross + (sx * sx) / v - i0)).toBeLessThan(1e-12 * i0)
      }),
    )
  })

  it('do not change when the section is split by inner lines, and change sign nowhere', () => {
    const whole = solidOf(chain([0, 0], [0, 20], [30, 20], [30, 0]))
    const split = solidOf(
      [
        ...chain([0, 0], [0, 20], [10, 20], [30, 20], [30, 0]),
        line(vec(10, 20), vec(10, 0)),
      ].concat(chain([0, 0], [10, 0], [30, 0])),
    )
    near(split.volume, whole.volume)
    near(split.area, whole.area)
  })

  it('take a closed outline inside another for a hole, and one inside that for material', () => {
    const box = (x0: number, y0: number, x1: number, y1: number): Piece[] =>
      chain([x0, y0], [x1, y0], [x1, y1], [x0, y1], [x0, y0])
    const section = sectionOf([
      ...box(0, 5, 40, 45),
      ...box(10, 15, 30, 35),
      ...box(15, 20, 25, 30),
    ])
    expect(section.regions.map((r) => r.holes.length).sort()).toEqual([0, 1])
    const ring = (y0: number, y1: number, h: number): number => Math.PI * h * (y1 * y1 - y0 * y0)
    near(
      solidProperties(section)?.volume ?? 0,
      ring(5, 45, 40) - ring(15, 35, 20) + ring(20, 30, 10),
    )
  })

  it('close a cavity along the axis as well as the outside', () => {
    const solid = solidOf([
      ...chain([0, 0], [0, 20], [60, 20], [60, 0]),
      ...chain([20, 0], [20, 10], [40, 10], [40, 0]),
    ])
    near(solid.volume, Math.PI * (400 * 60 - 100 * 20))
  })
})

describe('unsound profiles', () => {
  const faultsOf = (pieces: readonly Piece[]) => profileOf(edges(pieces), 's')

  it('are told to be open, with the gap, and closed parts still count', () => {
    const open = faultsOf([...chain([0, 0], [0, 20], [30, 20]), ...chain([33, 16], [33, 0])])
    expect(open.section.regions).toEqual([])
    expect(open.faults.map((f) => [f.kind, f.gap])).toEqual([
      ['open', 5],
      ['open', 5],
    ])
    const alsoClosed = faultsOf([
      ...chain([0, 0], [0, 20], [30, 20], [30, 0]),
      line(vec(30, 20), vec(40, 25)),
    ])
    expect(alsoClosed.section.regions).toHaveLength(1)
    expect(alsoClosed.faults.map((f) => f.kind)).toEqual(['open'])
  })

  it.each<[string, Piece[], Vec]>([
    ['cross themselves', chain([0, 0], [0, 20], [30, 5], [10, 5], [30, 20], [30, 0]), vec(18, 11)],
    [
      'touch a line with a corner',
      chain([0, 0], [0, 20], [15, 0.5], [30, 20], [30, 0.5], [0, 0.5], [40, 0]),
      vec(15, 0.5),
    ],
  ])('are refused where they %s', (_, pieces, at) => {
    const { section, faults } = faultsOf(pieces)
    expect(section.regions).toEqual([])
    expect(
      faults.some((f) => f.kind === 'crossing' && Math.hypot(f.at.x - at.x, f.at.y - at.y) < 1e-6),
    ).toBe(true)
  })

  it('are refused where a line is drawn twice, or lies along another', () => {
    const outline = chain([0, 0], [0, 20], [30, 20], [30, 0])
    expect(faultsOf([...outline, line(vec(0, 20), vec(30, 20))]).faults[0]?.kind).toBe('doubled')
    expect(faultsOf([...outline, line(vec(10, 20), vec(20, 20))]).faults[0]?.kind).toBe('crossing')
  })

  it('are refused below the axis, and forgiven for lines without length', () => {
    const below = faultsOf(chain([0, 0], [0, 20], [30, -4], [30, 0]))
    expect(below.faults.map((f) => f.kind)).toContain('belowAxis')
    expect(below.section.regions).toEqual([])
    const zero = faultsOf([
      ...chain([0, 0], [0, 20], [30, 20], [30, 0]),
      line(vec(30, 20), vec(30, 20)),
    ])
    expect(zero.faults.map((f) => f.kind)).toEqual(['zeroLength'])
    expect(zero.section.regions).toHaveLength(1)
  })
})

import { arc, line, vec, type Piece, reversed } from '@lathica/core/geometry'
import { solidProperties } from '@lathica/core/section'
import { atMost, type Row } from './row'

/** Volume, area, centre and inertia of one simple solid in closed form, for a density of 1. */
interface Solid {
  readonly volume: number
  /** Area of the surface that shows in the whole. */
  readonly surface: number
  readonly centre: number
  readonly axis: number
  /** About a line across through its own centre. */
  readonly across: number
}

const PI = Math.PI

function cylinder(from: number, radius: number, length: number): Solid {
  const volume = PI * radius ** 2 * length
  return {
    volume,
    surface: 2 * PI * radius * length,
    centre: from + length / 2,
    axis: (volume * radius ** 2) / 2,
    across: volume * (radius ** 2 / 4 + length ** 2 / 12),
  }
}

/** A cone frustum from radius a to radius b over a length; moments by its power series. */
function frustum(from: number, a: number, b: number, length: number): Solid {
  const d = b - a
  const power = (n: number): number => {
    // ∫ r^2 · (x/length)^n over the length, times π
    const terms = a * a * (1 / (n + 1)) + 2 * a * d * (1 / (n + 2)) + d * d * (1 / (n + 3))
    return PI * length * terms
  }
  const fourth = PI * length * (a ** 4 + a ** 3 * b + a * a * b * b + a * b ** 3 + b ** 4) * (1 / 5)
  const volume = power(0)
  const offset = (length * power(1)) / volume
  const square = length ** 2 * power(2)
  return {
    volume,
    surface: PI * (a + b) * Math.hypot(length, d),
    centre: from + offset,
    axis: fourth / 2,
    across: fourth / 4 + square - volume * offset ** 2,
  }
}

/** The half ball at the right end of a shaft, its flat side at `from`. */
function halfBall(from: number, r: number): Solid {
  const volume = (2 / 3) * PI * r ** 3
  return {
    volume,
    surface: 2 * PI * r ** 2,
    centre: from + (3 / 8) * r,
    axis: (2 / 5) * volume * r ** 2,
    across: (83 / 320) * volume * r ** 2,
  }
}

function together(solids: readonly Solid[], flats: number): Solid {
  const sum = (pick: (s: Solid) => number): number => solids.reduce((t, s) => t + pick(s), 0)
  const volume = sum((s) => s.volume)
  const centre = sum((s) => s.volume * s.centre) / volume
  return {
    volume,
    surface: sum((s) => s.surface) + flats,
    centre,
    axis: sum((s) => s.axis),
    across: sum((s) => s.across + s.volume * (s.centre - centre) ** 2),
  }
}

/** Relative errors of a stepped, conical and rounded part against closed forms. */
export function exactnessRows(): Row[] {
  const annulus = (big: number, small: number): number => PI * (big ** 2 - small ** 2)
  const expected = together(
    [cylinder(0, 10, 24), cylinder(24, 22, 8), frustum(32, 17.5, 12, 46), halfBall(78, 12)],
    annulus(10, 0) + annulus(22, 10) + annulus(22, 17.5),
  )
  const corners = [
    [0, 0],
    [0, 10],
    [24, 10],
    [24, 22],
    [32, 22],
    [32, 17.5],
    [78, 12],
  ] as const
  const outline: Piece[] = corners.slice(1).map(([x, y], i) => {
    const [fromX, fromY] = corners[i] ?? [0, 0]
    return line(vec(fromX, fromY), vec(x, y))
  })
  outline.push(arc(vec(78, 12), vec(90, 0), vec(78, 0), false), line(vec(90, 0), vec(0, 0)))
  // Material lies left of an outer loop, so the outline is run through from right to left.
  const loop = outline.map((piece, i) => ({
    piece,
    name: { step: 's', entity: String(i), role: 'drawn' as const },
  }))
  const turned = loop.map((e) => ({ ...e, piece: reversed(e.piece) })).reverse()
  const found = solidProperties({ regions: [{ outer: turned, holes: [] }] })
  if (!found) throw new Error('the bench section is empty')
  const errors: readonly (readonly [string, number, number])[] = [
    ['volume', found.volume, expected.volume],
    ['area', found.area, expected.surface],
    ['centre of mass', found.centreX, expected.centre],
    ['inertia about the axis', found.inertiaAxis, expected.axis],
    ['inertia across the axis', found.inertiaAcross, expected.across],
  ]
  return errors.map(([name, value, exact]) =>
    atMost(`${name} against the closed form`, Math.abs(value / exact - 1), 'relative', 1e-12),
  )
}

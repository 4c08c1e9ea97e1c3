import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { arc, distance, line, meetOnlyAtEnd, meetingsOf, type Vec } from '../src/geometry'

const TOLERANCE = 1e-6

const around = (centre: Vec, radius: number, angle: number): Vec => ({
  x: centre.x + radius * Math.cos(angle),
  y: centre.y + radius * Math.sin(angle),
})

describe('a line that begins where an arc ends', () => {
  const any = fc.record({
    radius: fc.double({ min: 0.5, max: 80, noNaN: true }),
    start: fc.double({ min: -3.1, max: 3.1, noNaN: true }),
    sweep: fc.double({ min: 0.05, max: 6, noNaN: true }),
    counterClockwise: fc.boolean(),
    atStart: fc.boolean(),
    // Off the tangent, and so across the circle or away from it.
    off: fc.oneof(fc.constant(0), fc.double({ min: -3, max: 3, noNaN: true })),
    length: fc.double({ min: 0.01, max: 200, noNaN: true }),
    reversed: fc.boolean(),
  })

  it('meets it nowhere else when it is said to', () => {
    const counted = { quick: 0, all: 0 }
    fc.assert(
      fc.property(any, (of) => {
        const centre = { x: 10, y: 20 }
        const turn = of.counterClockwise ? of.sweep : -of.sweep
        const [from, to] = [of.start, of.start + turn].map((a) => around(centre, of.radius, a))
        if (!from || !to) return
        const bow = arc(from, to, centre, of.counterClockwise)
        const shared = of.atStart ? from : to
        const tangent = (of.atStart ? of.start : of.start + turn) + Math.PI / 2
        const end = around(shared, of.length, tangent + of.off)
        const straight = of.reversed ? line(end, shared) : line(shared, end)
        counted.all++
        expect(meetOnlyAtEnd(bow, straight, TOLERANCE)).toBe(
          meetOnlyAtEnd(straight, bow, TOLERANCE),
        )
        if (!meetOnlyAtEnd(straight, bow, TOLERANCE)) return
        counted.quick++
        const found = meetingsOf(straight, bow, TOLERANCE)
        expect(found).toHaveLength(1)
        expect(found.every((m) => distance(m.at, shared) <= 2 * TOLERANCE)).toBe(true)
      }),
      { numRuns: 3000, seed: 7 },
    )
    expect(counted.quick).toBeGreaterThan(counted.all / 2)
  })

  it('is told from one that comes back to the arc', () => {
    const half = arc({ x: 5, y: 0 }, { x: -5, y: 0 }, { x: 0, y: 0 }, true)
    expect(meetOnlyAtEnd(line({ x: 5, y: 0 }, { x: 5, y: 8 }), half, TOLERANCE)).toBe(true)
    expect(meetOnlyAtEnd(line({ x: 5, y: 0 }, { x: -4, y: 8 }), half, TOLERANCE)).toBe(false)
    expect(meetOnlyAtEnd(line({ x: 5, y: 0 }, { x: -5, y: 0 }), half, TOLERANCE)).toBe(false)
    expect(meetOnlyAtEnd(line({ x: 6, y: 0 }, { x: 6, y: 8 }), half, TOLERANCE)).toBe(false)
  })
})

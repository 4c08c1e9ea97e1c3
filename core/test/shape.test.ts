import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import {
  AXIS_ID,
  addRevolve,
  arc as arcPiece,
  arcAbout,
  createPart,
  curvatureComb,
  drawAngles,
  drawChain,
  drawCurve,
  drawDraft,
  evaluate,
  evenSpline,
  inflectionsOf,
  jumpsOf,
  leastWall,
  lengthOf,
  line,
  setCurveEnd,
  splinePieces,
  thicknessAlong,
  thinnest,
  type DrawVerdict,
  type End,
  type Part,
  type Section,
  type SketchSpline,
} from '../src'
import { must, sketchOf } from './support/parts'

const SKETCH = 'sketch2'
const at = (x: number, y: number, more: Partial<End> = {}): End => ({ at: { x, y }, ...more })
const onAxis = (x: number): End => at(x, 0, { on: [AXIS_ID] })

/** The section that a chain of lines makes when it is turned. */
function turned(...places: readonly End[]): Section {
  const part = must(
    createPart({ name: 'Ink cup' }),
    drawChain(
      SKETCH,
      places,
      places.slice(1).map(() => []),
    ),
    addRevolve(SKETCH),
  )
  const section = evaluate(part).bodies[0]?.section
  if (!section) throw new Error('it is turned')
  return section
}

const degrees = (a: number): number => (a * 180) / Math.PI

describe('curvature along an outline', () => {
  test('is one by the radius on an arc, nothing on a line, and the second derivative by hand on a parabola', () => {
    const arc = arcAbout(at(0, 20), at(12, 20), Math.PI / 2)
    const part = must(createPart({ name: 'Cap' }), drawDraft('arc', SKETCH, arc))
    const drawn = sketchOf(part)
    expect(jumpsOf(drawn)).toEqual([])
    const quarter = arcPiece({ x: 12, y: 20 }, { x: 0, y: 32 }, { x: 0, y: 20 }, true)
    const [round = []] = curvatureComb([quarter], 1)
    expect(round.length).toBeGreaterThan(15)
    round.forEach(({ value }) => expect(value).toBeCloseTo(1 / 12, 12))
    expect(curvatureComb([line({ x: 0, y: 1 }, { x: 9, y: 1 })], 1)).toEqual([])
    // y = x² / 20 as a cubic: its bend is y″ / (1 + y′²)^1.5.
    const parabola = splinePieces(
      evenSpline('frame', [
        { x: 0, y: 0 },
        { x: 10, y: 0 },
        { x: 20, y: 20 },
      ]),
    )
    for (const { at: place, value } of curvatureComb(parabola, 1).flat()) {
      expect(place.y).toBeCloseTo(place.x ** 2 / 20, 9)
      expect(value).toBeCloseTo(0.1 / (1 + (place.x / 10) ** 2) ** 1.5, 9)
    }
  })

  test('changes its side where a curve has an inflection, and only there', () => {
    const wave = splinePieces(
      evenSpline(
        'through',
        Array.from({ length: 41 }, (_, i) => ({ x: i, y: 20 + 3 * Math.sin(i / 4) })),
      ),
    )
    const found = inflectionsOf(wave).filter((p) => p.x > 2 && p.x < 38)
    expect(found).toHaveLength(3)
    found.forEach((p, i) => expect(p.x / (4 * Math.PI)).toBeCloseTo(i + 1, 1))
    expect(inflectionsOf([line({ x: 0, y: 1 }, { x: 9, y: 1 })])).toEqual([])
  })

  test('jumps where a curve meets a line, until its end is told to go on', () => {
    const foot = must(
      createPart({ name: 'Ink cup' }),
      drawChain(SKETCH, [onAxis(0), at(0, 20), at(10, 20)], [['radial'], ['axial']]),
    )
    const end = sketchOf(foot).points.at(-1)?.id ?? ''
    const belly = must(
      foot,
      drawCurve({
        ...{ sketch: SKETCH, way: 'frame', role: 'outline', square: false },
        places: [at(10, 20, { point: end }), at(20, 26), at(40, 30), at(50, 20), at(60, 24)],
      }),
    )
    const own = (part: Part): SketchSpline => {
      const found = sketchOf(part).entities.at(-1)
      if (found?.kind !== 'spline') throw new Error('it is the last')
      return found
    }
    // The corner of both lines is meant: only what a free curve meets is told.
    const [joint, ...more] = jumpsOf(sketchOf(belly))
    expect(more).toEqual([])
    expect(joint?.point).toBe(end)
    expect(degrees(joint?.turn ?? 0)).toBeCloseTo(degrees(Math.atan2(6, 10)), 6)
    const { id, from } = own(belly)
    const smooth = must(belly, setCurveEnd(SKETCH, id, from, 'smooth'))
    const [bends] = jumpsOf(sketchOf(smooth))
    expect(bends?.turn).toBeLessThan(1e-6)
    expect(bends?.jump).toBeGreaterThan(1e-3)
    expect(jumpsOf(sketchOf(must(smooth, setCurveEnd(SKETCH, id, from, 'bend'))))).toEqual([])
  })
})

describe('what is no jump', () => {
  /** A level line, and a free curve that leaves its end so steeply. */
  const corner = (rise: number, role: 'outline' | 'construction' = 'outline'): Part => {
    const lead = must(
      createPart({ name: 'Ink cup' }),
      drawChain(SKETCH, [at(0, 20), at(10, 20)], [['axial']]),
    )
    const end = sketchOf(lead).points.at(-1)?.id ?? ''
    return must(
      lead,
      drawCurve({
        ...{ sketch: SKETCH, way: 'frame', role, square: false },
        places: [at(10, 20, { point: end }), at(20, 20 + rise), at(40, 30), at(60, 24)],
      }),
    )
  }

  test('a corner sharper than 35° is meant, one less sharp is told with its angle', () => {
    expect(jumpsOf(sketchOf(corner(10)))).toEqual([])
    const [told] = jumpsOf(sketchOf(corner(6.9)))
    expect(degrees(told?.turn ?? 0)).toBeCloseTo(degrees(Math.atan2(6.9, 10)), 6)
    expect(told?.entities).toHaveLength(2)
    expect(told?.at).toMatchObject({ x: 10, y: 20 })
  })

  test('what is construction, or where three meet', () => {
    expect(jumpsOf(sketchOf(corner(3, 'construction')))).toEqual([])
    const part = corner(3)
    const end = jumpsOf(sketchOf(part))[0]?.point ?? ''
    const third = drawChain(SKETCH, [at(10, 20, { point: end }), at(10, 5)], [['radial']])
    expect(jumpsOf(sketchOf(must(part, third)))).toEqual([])
  })
})

describe('the thickness of a wall', () => {
  test('is that of a tube, of its floor, and of a shaft across its axis', () => {
    const cup = turned(onAxis(0), at(0, 30), at(80, 30), at(80, 26), at(5, 26), onAxis(5))
    const runs = thicknessAlong(cup, 2)
    const values = runs.flat().map((t) => t.value)
    const upon = (x: number, y: number): number[] =>
      runs.flat().flatMap((t) => (t.at.y === y && t.at.x > x ? [t.value] : []))
    upon(5, 30).forEach((v) => expect(v).toBeCloseTo(4, 9))
    upon(5, 26).forEach((v) => expect(v).toBeCloseTo(4, 9))
    expect(Math.min(...values)).toBeCloseTo(4, 9)
    expect(thinnest(runs)?.value).toBeCloseTo(leastWall(cup)?.distance ?? NaN, 9)
    const shaft = turned(onAxis(0), at(0, 12), at(100, 12), onAxis(100))
    const along = thicknessAlong(shaft, 4).flat()
    along.filter((t) => t.at.y === 12).forEach((t) => expect(t.value).toBeCloseTo(24, 9))
    along.filter((t) => t.at.x === 0).forEach((t) => expect(t.value).toBeCloseTo(100, 9))
    // As many places as the spacing asks for, within bounds, in the order of the outline.
    expect(
      thicknessAlong(shaft, 4)
        .map((r) => r.length)
        .sort((a, b) => a - b),
    ).toEqual([3, 3, 25])
    expect(Math.max(...thicknessAlong(shaft, 0.1).map((r) => r.length))).toBe(60)
  })

  test('property: of a cone’s shell it is what its two faces are apart, square to them', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.05, max: 1, noNaN: true }),
        fc.double({ min: 1, max: 6, noNaN: true }),
        (slope, wall) => {
          const up = wall * Math.hypot(1, slope)
          const shell = turned(
            at(0, 20),
            at(0, 20 + up),
            at(60, 20 + up + 60 * slope),
            at(60, 20 + 60 * slope),
            at(0, 20),
          )
          const middle = thicknessAlong(shell, 1)
            .flat()
            .filter((t) => t.at.x > 15 && t.at.x < 45)
          return middle.length > 20 && middle.every((t) => Math.abs(t.value - wall) < 1e-6)
        },
      ),
      { numRuns: 30 },
    )
  })

  test('of nothing is nothing', () => {
    expect(thicknessAlong({ regions: [] }, 1)).toEqual([])
    expect(thinnest([])).toBeUndefined()
  })
})

describe('draw angles', () => {
  const one = Math.PI / 180
  /** How much of the outline is of each verdict, in mm. */
  const told = (section: Section, parting: number): Record<DrawVerdict, number> => {
    const lengths = { fine: 0, steep: 0, undercut: 0 }
    for (const d of drawAngles(section, parting, one)) lengths[d.verdict] += lengthOf(d.piece)
    return lengths
  }

  test('are those of the cones, and a cylinder has none', () => {
    const bud = turned(onAxis(0), at(0, 18), at(30, 20), at(60, 20), at(90, 17), onAxis(90))
    const drawn = drawAngles(bud, 40, one)
    const angleAt = (x: number): number =>
      degrees(drawn.find((d) => d.piece.from.x > x !== d.piece.to.x > x)?.angle ?? NaN)
    expect(angleAt(15)).toBeCloseTo(degrees(Math.atan2(2, 30)), 9)
    expect(angleAt(75)).toBeCloseTo(degrees(Math.atan2(3, 30)), 9)
    expect(angleAt(50)).toBeCloseTo(0, 9)
    const cones = [Math.hypot(30, 2), Math.hypot(30, 3)] as const
    // The cylinder is too steep; ends and cones are fine.
    const halves = told(bud, 40)
    expect(halves.steep).toBeCloseTo(30, 9)
    expect(halves.undercut).toBe(0)
    expect(halves.fine).toBeCloseTo(cones[0] + cones[1] + 18 + 17, 9)
    // Each is drawn away from the parting.
    drawn
      .filter((d) => Math.abs(d.piece.from.x - d.piece.to.x) > 1)
      .forEach((d) => expect(d.way).toBe((d.piece.from.x + d.piece.to.x) / 2 > 40 ? 1 : -1))
    // With the parting at its end the first cone is held back.
    expect(told(bud, 0).undercut).toBeCloseTo(cones[0], 9)
  })

  test('see undercuts: a groove outside, a belly within', () => {
    const grooved = turned(
      ...[onAxis(0), at(0, 20), at(40, 19), at(40, 15), at(50, 15), at(50, 18.5), at(90, 17)],
      onAxis(90),
    )
    const held = drawAngles(grooved, 0, one).filter((d) => d.verdict === 'undercut')
    expect(held.map((d) => d.piece.from.x)).toEqual(expect.arrayContaining([40, 50]))
    const cup = turned(onAxis(0), at(0, 30), at(80, 33), at(80, 30), at(6, 26), onAxis(6))
    expect(told(cup, 80).undercut).toBe(0)
    // With the parting at its floor its side is held back, from the outside.
    expect(told(cup, 0).undercut).toBeCloseTo(Math.hypot(80, 3), 9)
    const jar = turned(
      ...[onAxis(0), at(0, 30), at(80, 33), at(80, 20), at(40, 28), at(6, 20)],
      onAxis(6),
    )
    // The neck is held back, and the belly where it stands behind the neck.
    expect(told(jar, 80).undercut).toBeCloseTo(Math.hypot(40, 8) + Math.hypot(34, 8), 9)
  })
})

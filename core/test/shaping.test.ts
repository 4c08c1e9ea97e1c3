import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import {
  AXIS_ID,
  addRevolve,
  addSize,
  arcAbout,
  besideFits,
  bridgeEnds,
  changeSize,
  controlOf,
  cross,
  createPart,
  curveEnd,
  distance,
  dot,
  drawChain,
  drawCurve,
  drawDraft,
  evaluate,
  evenSpline,
  flattenPoints,
  locator,
  nearestOn,
  nudgePoints,
  offsetChain,
  openEnds,
  perform,
  piecesOf,
  pointAt,
  readPart,
  setCurveEnd,
  smoothCurve,
  smoothedSpline,
  splinePieces,
  subtract,
  tangentAt,
  toDocument,
  turnWay,
  type Beside,
  type Bridge,
  type BridgeShape,
  type Command,
  type End,
  type Entity,
  type Part,
  type Piece,
  type Vec,
} from '../src'
import { must, placeIn, sketchOf, splineIn } from './support/parts'

const SKETCH = 'sketch2'
const at = (x: number, y: number, more: Partial<End> = {}): End => ({ at: { x, y }, ...more })

const entity = (part: Part, number: number): Entity => {
  const found = sketchOf(part).entities.at(number)
  if (!found) throw new Error('there is no such piece')
  return found
}
const shape = (part: Part, e: Entity): readonly Piece[] => piecesOf(e, locator(sketchOf(part)))
const refusal = (part: Part, command: Command): string => {
  const result = perform(part, command)
  return result.ok ? 'taken' : result.problem.code
}

/** A foot of two lines, a belly that goes on smoothly from the upright one, and a lip of an arc’s making. */
function cup(): Part {
  const foot = must(
    createPart({ name: 'Ink cup' }),
    drawChain(
      SKETCH,
      [at(0, 0, { on: [AXIS_ID] }), at(0, 20), at(10, 20)],
      [['radial'], ['axial']],
    ),
  )
  const end = sketchOf(foot).points.at(-1)?.id ?? ''
  const belly = drawCurve({
    ...{ sketch: SKETCH, way: 'through', role: 'outline', square: false },
    places: [at(10, 20, { point: end }), at(26, 30), at(44, 31), at(62, 22), at(76, 24)],
  })
  const drawn = must(foot, belly)
  const { id, from } = splineIn(drawn)
  return must(drawn, setCurveEnd(SKETCH, id, from, 'smooth'))
}

/** The curvature vector at the start or end of a cubic, of its control points alone; of an arc, to its centre. */
function bendAt(piece: Piece | undefined, end: 0 | 1): Vec {
  if (!piece || piece.kind === 'line') return { x: 0, y: 0 }
  if (piece.kind === 'arc') {
    const to = subtract(piece.centre, piece.from)
    const square = to.x ** 2 + to.y ** 2
    const spoke = subtract(piece.centre, end === 0 ? piece.from : piece.to)
    return { x: spoke.x / square, y: spoke.y / square }
  }
  const control = controlOf(piece)
  const [a, b, c] = end === 0 ? control : [...control].reverse()
  if (!a || !b || !c) throw new Error('a cubic has four')
  const [u, v] = [subtract(b, a), subtract(c, b)]
  const k = ((2 / 3) * (u.x * v.y - u.y * v.x)) / Math.hypot(u.x, u.y) ** 4
  return { x: -k * u.y, y: k * u.x }
}

describe('what lies beside a free curve', () => {
  const beside = (part: Part, more: Partial<Beside> = {}): Beside => ({
    ...{ sketch: SKETCH, ids: sketchOf(part).entities.map((e) => e.id) },
    ...{ formula: '2.5', side: { x: 30, y: 10 } },
    ...more,
  })

  test('is at the distance, as far as is told, and no nearer', () => {
    const part = cup()
    const told: number[] = []
    for (const count of [4, 7, 15]) {
      const asked = beside(part, { ids: [splineIn(part).id], count })
      const [fit] = besideFits(part, asked)
      const wall = must(part, offsetChain(asked))
      const own = splineIn(wall, 1)
      expect(own.by).toHaveLength(count - 2)
      told.push(fit?.fitted.deviation ?? NaN)
      const outer = shape(wall, splineIn(wall))
      const off = shape(wall, own).flatMap((piece) =>
        Array.from({ length: 400 }, (_, i) => {
          const p = pointAt(piece, i / 400)
          return Math.abs(Math.min(...outer.map((o) => nearestOn(o, p).distance)) - 2.5)
        }),
      )
      expect(Math.max(...off)).toBeLessThanOrEqual((told.at(-1) ?? 0) + 1e-6)
    }
    expect(told[1]).toBeLessThan(told[0] ?? 0)
    expect(told[2]).toBeLessThan(told[1] ?? 0)
  })

  test('is one chain with what lies beside lines, smooth where that is, and one size moves those', () => {
    const part = cup()
    const wall = must(part, offsetChain(beside(part, { count: 6 })))
    expect(evaluate(wall).sketches.get(SKETCH)?.solution.disagreements).toEqual([])
    const [outer, inner] = [0, 1].map((n) => splineIn(wall, n))
    if (!outer || !inner) throw new Error('there are two')
    const [a, b] = [outer, inner].map((c) => shape(wall, c)[0])
    if (!a || !b) throw new Error('both have a shape')
    expect(cross(tangentAt(a, 0), tangentAt(b, 0))).toBeCloseTo(0, 8)
    expect(distance(a.from, b.from)).toBeCloseTo(2.5, 6)
    expect(curveEnd(sketchOf(wall), inner, inner.from)).toBe('smooth')
    const size = sketchOf(wall).sizes[0]?.id ?? ''
    const thick = must(wall, changeSize(SKETCH, size, '4'))
    const [out, inn] = [0, 1].map((n) => placeIn(thick, splineIn(thick, n).from).y)
    expect((out ?? 0) - (inn ?? 0)).toBeCloseTo(4, 8)
  })

  test('is cut off at a corner to its inside, and led on to its outside', () => {
    const corner = must(
      createPart({ name: 'Bowl' }),
      drawChain(SKETCH, [at(0, 5), at(0, 20)], [['radial']]),
      drawCurve({
        ...{ sketch: SKETCH, way: 'through', role: 'outline', square: false },
        places: [at(0, 20, { point: 'p2' }), at(20, 34), at(50, 38)],
      }),
    )
    const point = entity(corner, 0)
    expect('to' in point && splineIn(corner).from).toBe('to' in point ? point.to : '')
    for (const side of [
      { x: 20, y: 10 },
      { x: -5, y: 50 },
    ]) {
      const both = must(corner, offsetChain(beside(corner, { side, formula: '2', count: 12 })))
      const inner = splineIn(both, 1)
      const [line] = sketchOf(both)
        .entities.filter((e) => e.kind === 'line')
        .slice(1)
      if (!line) throw new Error('a line lies beside the line')
      // They share their corner, and both keep the distance up to it.
      expect([line.from, line.to]).toContain(inner.from)
      const place = placeIn(both, inner.from)
      expect(Math.abs(place.x)).toBeCloseTo(2, 6)
      const outer = shape(both, splineIn(both))
      const away = shape(both, inner).flatMap((piece) =>
        [0.2, 0.5, 0.8, 1].map((t) =>
          Math.min(...outer.map((o) => nearestOn(o, pointAt(piece, t)).distance)),
        ),
      )
      away.slice(8).forEach((d) => expect(d).toBeCloseTo(2, 2))
    }
  })

  test('closer than a bend goes is said with the greatest that goes; a number of points that is none too', () => {
    const part = cup()
    const ids = [splineIn(part).id]
    const refused = perform(part, offsetChain(beside(part, { ids, formula: '40' })))
    expect(refused.ok || refused.problem.code).toBe('offset.tight')
    const most = Number(/less than ([\d.]+) mm/.exec(refused.ok ? '' : refused.problem.mend)?.[1])
    const goes = beside(part, { ids, formula: String(most * 0.999) })
    expect(refusal(part, offsetChain(goes))).toBe('taken')
    expect(refusal(part, offsetChain({ ...goes, formula: String(most * 1.001) }))).toBe(
      'offset.tight',
    )
    expect(refusal(part, offsetChain(beside(part, { ids, count: 1.5 })))).toBe('offset.count')
    expect(besideFits(part, beside(part, { ids, formula: '0' }))).toEqual([])
  })
})

describe('a free curve that is smoothed', () => {
  const waves = (length: number) =>
    evenSpline(
      'through',
      Array.from({ length: 81 }, (_, i) => ({
        x: 5 * i,
        y: 30 + Math.sin((2 * Math.PI * 5 * i) / length),
      })),
    )

  test('keeps half of a wave of the length that is told, and hardly anything of shorter ones', () => {
    const height = (length: number): number => {
      const fitted = smoothedSpline(waves(length), 40, [false, false])
      if (!fitted) throw new Error('it has a length')
      // Away from its ends, which it keeps.
      const middle = splinePieces(fitted.spline).filter((p) => p.from.x > 120 && p.to.x < 280)
      return Math.max(...middle.flatMap((p) => [0, 0.5].map((t) => Math.abs(pointAt(p, t).y - 30))))
    }
    expect(height(40)).toBeGreaterThan(0.42)
    expect(height(40)).toBeLessThan(0.55)
    expect(height(20)).toBeLessThan(0.1)
    expect(height(120)).toBeGreaterThan(0.95)
  })

  test.each(['through', 'frame'] as const)(
    '%s: keeps its ends, its places and what is told of them',
    (way) => {
      const part = way === 'through' ? cup() : must(cup(), turnWay(SKETCH, splineIn(cup()).id))
      const before = splineIn(part)
      const smooth = must(part, smoothCurve(SKETCH, before.id, 30))
      const after = splineIn(smooth)
      expect(after.way).toBe(way)
      expect(after.by).toHaveLength(before.by.length)
      expect(curveEnd(sketchOf(smooth), after, after.from)).toBe('smooth')
      for (const end of [before.from, before.to]) {
        expect(distance(placeIn(part, end), placeIn(smooth, end))).toBeLessThan(1e-5)
      }
      expect(refusal(part, smoothCurve(SKETCH, before.id, 0))).toBe('curve.wave')
      const held = must(
        part,
        addSize(SKETCH, { kind: 'diameter', point: before.by[1] ?? '' }, '63'),
      )
      expect(refusal(held, smoothCurve(SKETCH, before.id, 30))).toBe('curve.held')
    },
  )
})

describe('an end that bends on', () => {
  /** A line or an arc, and a curve over a frame from its end. */
  function after(kind: 'line' | 'arc' | 'curve'): Part {
    const arc = arcAbout(at(20, 8), at(8, 8), -Math.PI / 2)
    const part = must(
      createPart({ name: 'Lamp foot' }),
      kind === 'line'
        ? drawChain(SKETCH, [at(0, 20), at(20, 20)], [['axial']])
        : kind === 'arc'
          ? drawDraft('arc', SKETCH, arc)
          : drawCurve({
              ...{ sketch: SKETCH, way: 'frame', role: 'outline', square: false },
              places: [at(0, 14), at(8, 20), at(14, 26), at(20, 20)],
            }),
    )
    const first = entity(part, 0)
    const end = 'to' in first ? first.to : ''
    return must(
      part,
      drawCurve({
        ...{ sketch: SKETCH, way: kind === 'curve' ? 'through' : 'frame', role: 'outline' },
        ...{ square: false },
        places: [at(20, 20, { point: end }), at(30, 26), at(45, 24), at(58, 12), at(70, 14)],
      }),
    )
  }

  function meets(part: Part): { readonly corner: number; readonly jump: number } {
    const [first, second] = [entity(part, 0), entity(part, 1)].map((e) => shape(part, e))
    const [a, b] = [first?.at(-1), second?.[0]]
    if (!a || !b) throw new Error('both have a shape')
    const [one, two] = [bendAt(a, 1), bendAt(b, 0)]
    return {
      corner: cross(tangentAt(a, 1), tangentAt(b, 0)),
      jump: Math.hypot(one.x - two.x, one.y - two.y),
    }
  }

  test.each(['line', 'arc', 'curve'] as const)(
    'has the curvature of a %s it meets, and keeps it',
    (kind) => {
      const part = after(kind)
      const { id, from } = splineIn(part, kind === 'curve' ? 1 : 0)
      expect(meets(part).jump).toBeGreaterThan(1e-3)
      const bent = must(part, setCurveEnd(SKETCH, id, from, 'bend'))
      const own = (p: Part) => splineIn(p, kind === 'curve' ? 1 : 0)
      expect(curveEnd(sketchOf(bent), own(bent), from)).toBe('bend')
      // Whose points tell how it bends: over a frame.
      expect(own(bent).way).toBe('frame')
      const check = (p: Part): void => {
        expect(evaluate(p).sketches.get(SKETCH)?.solution.solved).toBe(true)
        expect(meets(p).corner).toBeCloseTo(0, 7)
        expect(meets(p).jump).toBeLessThan(1e-6)
      }
      check(bent)
      const pushed = must(bent, nudgePoints(SKETCH, [own(bent).by[1] ?? ''], { x: 3, y: 6 }))
      expect(pushed).not.toEqual(bent)
      check(pushed)
      const read = readPart(toDocument(pushed))
      expect(read.ok && read.value).toEqual(pushed)
      // Through its places nothing tells how it bends: it goes on smoothly then.
      const through = must(pushed, turnWay(SKETCH, id))
      expect(curveEnd(sketchOf(through), own(through), from)).toBe('smooth')
      expect(evaluate(through).sketches.get(SKETCH)?.solution.disagreements).toEqual([])
      const free = must(pushed, setCurveEnd(SKETCH, id, from, 'smooth'))
      expect(curveEnd(sketchOf(free), own(free), from)).toBe('smooth')
      expect(sketchOf(free).constraints.some((c) => c.kind === 'curvature')).toBe(false)
    },
  )

  test('needs something that tells how it bends', () => {
    const part = cup()
    const { id, to } = splineIn(part)
    expect(refusal(part, setCurveEnd(SKETCH, id, to, 'bend'))).toBe('curve.alone')
    const next = drawCurve({
      ...{ sketch: SKETCH, way: 'frame', role: 'outline', square: false },
      places: [at(76, 24, { point: to }), at(84, 30), at(92, 24), at(99, 20), at(104, 22)],
    })
    const both = must(part, next)
    // Through places what a curve's bend is hangs on all of them.
    const { id: own, from } = splineIn(both, 1)
    expect(refusal(both, setCurveEnd(SKETCH, own, from, 'bend'))).toBe('curve.bend')
    const framed = must(both, turnWay(SKETCH, id))
    expect(refusal(framed, setCurveEnd(SKETCH, own, from, 'bend'))).toBe('taken')
  })
})

describe('a bridge', () => {
  /** Two walls of a cup, open at the rim. */
  const walls = (): Part =>
    must(
      createPart({ name: 'Ink cup' }),
      drawChain(SKETCH, [at(0, 20), at(40, 20)], [['axial']]),
      drawChain(SKETCH, [at(4, 14), at(40, 14)], [['axial']]),
    )
  const rim = (part: Part): [string, string] => {
    const found = openEnds(sketchOf(part)).filter((p) => placeIn(part, p).x === 40)
    return [found[0] ?? '', found[1] ?? '']
  }
  const bridged = (shapeOf: BridgeShape, fullness: [number, number] = [1, 1]): Part => {
    const part = walls()
    return must(part, bridgeEnds({ sketch: SKETCH, ends: rim(part), shape: shapeOf, fullness }))
  }

  test('of a rim is a half circle where it is round, smooth at both ends', () => {
    const part = bridged('round')
    const [piece] = shape(part, entity(part, -1))
    expect(piece?.kind === 'arc' && piece.centre).toMatchObject({ x: 40, y: 17 })
    expect(sketchOf(part).constraints.filter((c) => c.kind === 'tangent')).toHaveLength(2)
    expect(pointAt(piece as Piece, 0.5).x).toBeCloseTo(43, 9)
    expect(openEnds(sketchOf(part))).toHaveLength(2)
  })

  test('is straight where it is flat', () => {
    const part = bridged('flat')
    expect(shape(part, entity(part, -1))[0]).toMatchObject({ kind: 'line' })
  })

  test('as full as an arc lies next to one, and fuller it reaches out farther', () => {
    const reach = (part: Part): number =>
      Math.max(
        ...shape(part, entity(part, -1)).flatMap((p) =>
          [0.4, 0.5, 0.6].map((t) => pointAt(p, t).x),
        ),
      )
    expect(reach(bridged('smooth'))).toBeCloseTo(43, 6)
    expect(reach(bridged('smooth', [2, 2]))).toBeCloseTo(46, 6)
    const part = bridged('smooth')
    const own = splineIn(part)
    expect([own.from, own.to].map((p) => curveEnd(sketchOf(part), own, p))).toEqual([
      'smooth',
      'smooth',
    ])
  })

  test('bends on at both ends where it is asked to', () => {
    const part = bridged('bend')
    const own = splineIn(part)
    expect(curveEnd(sketchOf(part), own, own.from)).toBe('bend')
    expect(curveEnd(sketchOf(part), own, own.to)).toBe('bend')
    const pieces = shape(part, own)
    for (const bend of [bendAt(pieces[0], 0), bendAt(pieces.at(-1), 1)]) {
      expect(Math.hypot(bend.x, bend.y)).toBeLessThan(1e-6)
    }
    const closed = evaluate(must(part, addRevolve(SKETCH)))
    expect(closed.steps[0]?.problem?.code).not.toBe('lathica.fault')
  })

  test('keeps a curve smooth that had no direction of its own at its end', () => {
    const part = cup()
    const { to } = splineIn(part)
    const wall = must(part, drawChain(SKETCH, [at(20, 12), at(76, 18)], [[]]))
    const inner = openEnds(sketchOf(wall)).find((p) => placeIn(wall, p).y === 18) ?? ''
    const bridge = { sketch: SKETCH, fullness: [1, 1] as const, ends: [to, inner] as const }
    for (const shapeOf of ['smooth', 'round'] as const) {
      const joined = must(wall, bridgeEnds({ ...bridge, shape: shapeOf }))
      // Farther than its handles reach: they go along.
      const pushed = must(joined, nudgePoints(SKETCH, [to], { x: 3, y: 4 }))
      const [curve, bridged] = [splineIn(pushed), entity(pushed, -1)].map((e) => shape(pushed, e))
      const [a, b] = [curve?.at(-1), bridged?.[0]]
      if (!a || !b) throw new Error('both have a shape')
      expect(cross(tangentAt(a, 1), tangentAt(b, 0))).toBeCloseTo(0, 7)
      expect(dot(tangentAt(a, 1), tangentAt(b, 0))).toBeGreaterThan(0)
    }
    expect(refusal(wall, bridgeEnds({ ...bridge, shape: 'bend' }))).toBe('curve.bend')
  })

  test('between what cannot be bridged is refused with a mend', () => {
    const part = walls()
    const [a] = rim(part)
    const bridge = (ends: [string, string], more = {}) =>
      bridgeEnds({ sketch: SKETCH, ends, shape: 'smooth', fullness: [1, 1], ...more })
    expect(refusal(part, bridge([a, 'p99']))).toBe('bridge.open')
    expect(refusal(part, bridge([a, a]))).toBe('bridge.zero')
    expect(refusal(part, bridge(rim(part), { fullness: [0, 1] }))).toBe('bridge.full')
    const ahead = must(part, drawChain(SKETCH, [at(60, 20), at(70, 25)], [[]]))
    const far = openEnds(sketchOf(ahead)).find((p) => placeIn(ahead, p).x === 60) ?? ''
    const [upper] = rim(part).filter((p) => placeIn(part, p).y === 20)
    expect(refusal(ahead, bridge([upper ?? '', far], { shape: 'round' }))).toBe('bridge.line')
  })

  test('property: it begins and ends in the directions of what it joins', () => {
    const near = (min: number, max: number) => fc.integer({ min, max })
    fc.assert(
      fc.property(near(45, 90), near(2, 40), near(-10, 10), near(-10, 10), (x, y, dx, dy) => {
        fc.pre(Math.hypot(dx, dy) > 1)
        const part = must(
          createPart({ name: 'Lamp foot' }),
          drawChain(SKETCH, [at(0, 20), at(40, 20)], [['axial']]),
          drawChain(SKETCH, [at(x, y), at(x + dx, y + dy + 0.5)], [[]]),
        )
        const [, first, second] = sketchOf(part).points.map((p) => p.id)
        const bridge: Bridge = {
          ...{ sketch: SKETCH, shape: 'smooth' as const, fullness: [1.3, 0.8] as const },
          ends: [first ?? '', second ?? ''],
        }
        const pieces = shape(
          must(part, bridgeEnds(bridge)),
          entity(must(part, bridgeEnds(bridge)), -1),
        )
        const [start, end] = [pieces[0], pieces.at(-1)]
        if (!start || !end) return false
        const toward = tangentAt(end, 1)
        const on = subtract({ x: x + dx, y: y + dy + 0.5 }, { x, y })
        return (
          Math.abs(tangentAt(start, 0).y) < 1e-7 &&
          tangentAt(start, 0).x > 0 &&
          Math.abs(cross(toward, on)) < 1e-6 * Math.hypot(on.x, on.y) &&
          dot(toward, on) > 0
        )
      }),
      { numRuns: 40 },
    )
  })
})

describe('points that are pushed and flattened', () => {
  test('are pushed by a step, and what hangs on them follows', () => {
    const part = cup()
    const { by } = splineIn(part)
    const pushed = must(part, nudgePoints(SKETCH, by.slice(0, 2), { x: 0, y: 1 }))
    expect(by.map((p) => placeIn(pushed, p).y)).toEqual([31, 32, 22])
    expect(curveEnd(sketchOf(pushed), splineIn(pushed), splineIn(pushed).from)).toBe('smooth')
  })

  test.each([
    ['radius', 'y'],
    ['place', 'x'],
  ] as const)('lie on one %s, once or from then on', (onto, coordinate) => {
    const part = cup()
    const { by } = splineIn(part)
    const values = (p: Part): number[] => by.map((id) => placeIn(p, id)[coordinate])
    const mean = values(part).reduce((s, v) => s + v, 0) / by.length
    const once = must(part, flattenPoints(SKETCH, by, onto, false))
    values(once).forEach((v) => expect(v).toBeCloseTo(mean, 9))
    expect(sketchOf(once).constraints).toEqual(sketchOf(part).constraints)
    const kept = must(part, flattenPoints(SKETCH, by, onto, true))
    const moved = must(kept, nudgePoints(SKETCH, [by[1] ?? ''], { x: 2, y: 3 }))
    const [first = 0, ...rest] = values(moved)
    rest.forEach((v) => expect(v).toBeCloseTo(first, 9))
    expect(first).not.toBeCloseTo(mean, 3)
  })

  test('lie on the line between the outer two, once or from then on', () => {
    const part = cup()
    const { by, from, to } = splineIn(part)
    const ids = [by[0] ?? '', by[1] ?? '', to]
    const flat = must(part, flattenPoints(SKETCH, ids, 'line', true))
    const [a, b, c] = ids.map((id) => placeIn(flat, id))
    if (!a || !b || !c) throw new Error('there are three')
    expect(a).toEqual(placeIn(part, ids[0] ?? ''))
    expect(cross(subtract(b, a), subtract(c, a))).toBeCloseTo(0, 9)
    const held = sketchOf(flat).entities.at(-1)
    expect(held).toMatchObject({ kind: 'line', role: 'construction' })
    const pushed = must(flat, nudgePoints(SKETCH, [to], { x: 0, y: 8 }))
    const [d, e, f] = ids.map((id) => placeIn(pushed, id))
    expect(cross(subtract(e ?? a, d ?? a), subtract(f ?? a, d ?? a))).toBeCloseTo(0, 8)
    expect(refusal(part, flattenPoints(SKETCH, [from], 'radius', false))).toBe('flatten.few')
    expect(refusal(part, flattenPoints(SKETCH, ids.slice(1), 'line', false))).toBe('flatten.few')
  })

  test('that a size holds stay, and what holds them is named', () => {
    const part = cup()
    const { by } = splineIn(part)
    const sized = must(
      part,
      addSize(SKETCH, { kind: 'diameter', point: by[0] ?? '' }, '60'),
      addSize(SKETCH, { kind: 'diameter', point: by[1] ?? '' }, '62'),
    )
    const refused = perform(sized, flattenPoints(SKETCH, by, 'radius', false))
    expect(refused.ok || refused.problem.code).toBe('place.held')
    expect(refused.ok || refused.problem.message).toMatch(/diameter.* = ⌀6[02]/)
  })
})

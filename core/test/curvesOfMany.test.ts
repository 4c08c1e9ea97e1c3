import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import {
  AXIS_ID,
  ORIGIN_ID,
  addRevolve,
  addSize,
  createPart,
  cubic,
  curveEnd,
  directionAt,
  distance,
  drawChain,
  drawCurve,
  edgesOf,
  evaluate,
  fittingSizes,
  giveDirection,
  guideOf,
  isEndSketch,
  joinCurves,
  latheMesh,
  lengthOf,
  line,
  locator,
  mirrorItems,
  movePoints,
  nearestOn,
  pencilled,
  takenBy,
  perform,
  piecesOf,
  placePoints,
  pointAt,
  profileOf,
  putPointIn,
  readPart,
  refitted,
  removeItems,
  sectionArea,
  setCurveEnd,
  setPointCount,
  simplePieces,
  solidProperties,
  split,
  splineOf,
  startDrag,
  takePointOut,
  tangentAt,
  toDocument,
  trim,
  turnWay,
  wallOf,
  type Command,
  type End,
  type Part,
  type Piece,
  type SketchSpline,
} from '../src'
import { must, placeIn, sketchOf, splineIn } from './support/parts'

const SKETCH = 'sketch2'
const at = (x: number, y: number, more: Partial<End> = {}): End => ({ at: { x, y }, ...more })
const curve = (way: SketchSpline['way'], places: readonly End[], square = false) =>
  drawCurve({ sketch: SKETCH, way, places, role: 'outline', square })

/** A foot of lines, a belly and a neck of one curve, and a mouth: open along the axis. */
function bottle(way: SketchSpline['way'] = 'through'): Part {
  const foot = must(
    createPart({ name: 'Ink bottle' }),
    drawChain(SKETCH, [at(0, 0, { on: [AXIS_ID] }), at(0, 22)], [[]]),
  )
  const end = sketchOf(foot).points[1]?.id ?? ''
  const side = must(
    foot,
    curve(way, [at(0, 22, { point: end }), at(18, 36), at(45, 30), at(62, 12), at(80, 14)]),
  )
  const mouth = splineIn(side).to
  return must(
    side,
    drawChain(SKETCH, [at(80, 14, { point: mouth }), at(80, 0, { on: [AXIS_ID] })], [[]]),
  )
}

const shape = (part: Part, ...numbers: readonly number[]): Piece[] =>
  (numbers.length === 0 ? [0] : numbers).flatMap((n) => [
    ...piecesOf(splineIn(part, n), locator(sketchOf(part))),
  ])

/** How far places of one shape lie off another, in mm. */
function off(one: readonly Piece[], two: readonly Piece[]): number {
  const places = one.flatMap((p) => [0, 0.2, 0.4, 0.6, 0.8, 1].map((t) => pointAt(p, t)))
  return Math.max(...places.map((p) => Math.min(...two.map((q) => nearestOn(q, p).distance))))
}

const length = (pieces: readonly Piece[]): number => pieces.reduce((s, p) => s + lengthOf(p), 0)

describe('a free curve of many places', () => {
  test.each(['through', 'frame'] as const)(
    'drawn %s places bounds a solid with lines, exactly, under one name',
    (way) => {
      const part = must(bottle(way), addRevolve(SKETCH))
      const state = evaluate(part)
      expect(state.steps.map((s) => s.status)).toEqual(['done'])
      const section = state.bodies[0]?.section
      if (!section) throw new Error('there is a body')
      // Volume by dense quadrature of π r² dx along the curve, which runs one way along the axis here.
      let volume = 0
      for (const piece of shape(part)) {
        const n = 4000
        for (let i = 0; i < n; i++) {
          const [a, m, b] = [i / n, (i + 0.5) / n, (i + 1) / n].map((t) => pointAt(piece, t))
          if (!a || !m || !b) continue
          volume += ((Math.PI * (b.x - a.x)) / 6) * (a.y ** 2 + 4 * m.y ** 2 + b.y ** 2)
        }
      }
      expect((solidProperties(section)?.volume ?? 0) / volume).toBeCloseTo(1, 6)
      const names = new Set(
        section.regions
          .flatMap((r) => r.outer)
          .flatMap((e) => (e.piece.kind === 'cubic' ? [e.name.entity] : [])),
      )
      expect([...names]).toEqual([splineIn(part).id])
    },
  )

  test('is not built on by later sketches where nothing tells which of its cubics is meant', () => {
    const section = evaluate(must(bottle(), addRevolve(SKETCH))).bodies[0]?.section
    if (!section) throw new Error('there is a body')
    const free = edgesOf(section).filter((e) => e.piece.kind === 'cubic')
    expect(free.length).toBeGreaterThan(3)
    for (const edge of free) expect(guideOf(edge, section)).toBeUndefined()
  })

  test('follows its points, and comes back from the part file as it was', () => {
    const part = must(bottle(), addRevolve(SKETCH))
    const before = evaluate(part).bodies[0]?.solid?.volume ?? 0
    const point = splineIn(part).by[0] ?? ''
    const pushed = must(part, movePoints(SKETCH, new Map([[point, { x: 18, y: 44 }]])))
    expect(placeIn(pushed, point).y).toBeCloseTo(44, 9)
    expect(evaluate(pushed).bodies[0]?.solid?.volume).toBeGreaterThan(before * 1.1)
    const again = readPart(JSON.parse(JSON.stringify(toDocument(pushed))))
    expect(again.ok && again.value).toEqual(pushed)
  })

  test.each(['through', 'frame'] as const)('%s: takes a point in with its shape kept', (way) => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 1 }),
        fc.double({ min: 0.1, max: 0.9, noNaN: true }),
        (n, t) => {
          const part = bottle(way)
          const before = shape(part)
          const place = pointAt(before[n] ?? before[0] ?? never(), t)
          const more = must(part, putPointIn(SKETCH, splineIn(part).id, place))
          expect(splineIn(more).by).toHaveLength(splineIn(part).by.length + 1)
          expect(off(before, shape(more))).toBeLessThan(1e-7)
          expect(length(shape(more))).toBeCloseTo(length(before), 7)
        },
      ),
      { numRuns: 15 },
    )
  })

  test('loses a point that is deleted or taken out, and goes on through the others', () => {
    const part = bottle()
    const { id, by } = splineIn(part)
    const [, second = ''] = by
    for (const command of [removeItems(SKETCH, [second]), takePointOut(SKETCH, id, second)]) {
      const less = must(part, command)
      expect(splineIn(less).by).toEqual(by.filter((p) => p !== second))
      expect(splineIn(less).spans).toHaveLength(3)
      expect(sketchOf(less).points.some((p) => p.id === second)).toBe(false)
    }
    const end = perform(part, takePointOut(SKETCH, id, splineIn(part).to))
    expect(end.ok || end.problem.code).toBe('curve.end')
    // Without its inner points it is a line between its ends.
    const bare = must(part, removeItems(SKETCH, [...by]))
    expect(shape(bare)).toMatchObject([
      { kind: 'line', from: { x: 0, y: 22 }, to: { x: 80, y: 14 } },
    ])
  })

  test('is turned from places to a frame and back with its shape kept', () => {
    const part = bottle()
    const frame = must(part, turnWay(SKETCH, splineIn(part).id))
    expect(splineIn(frame)).toMatchObject({ way: 'frame', fromHandle: '', toHandle: '' })
    // As many control points as places, and two.
    expect(splineIn(frame).by).toHaveLength(5)
    expect(off(shape(part), shape(frame))).toBeLessThan(1e-9)
    const back = must(frame, turnWay(SKETCH, splineIn(frame).id))
    expect(splineIn(back).way).toBe('through')
    expect(off(shape(part), shape(back))).toBeLessThan(1e-9)
  })

  test.each(['through', 'frame'] as const)(
    '%s: is split into two that keep its shape and go on smoothly, until they are let go',
    (way) => {
      const part = bottle(way)
      const before = shape(part)
      const place = pointAt(before[1] ?? never(), 0.4)
      const two = must(part, split(SKETCH, splineIn(part).id, place))
      expect(off(before, shape(two, 0, 1))).toBeLessThan(1e-7)
      const tie = sketchOf(two).constraints.find((c) => c.kind === 'tangent')
      expect(tie).toBeDefined()
      // A side pulled about keeps the joint smooth; without the constraint it becomes a corner.
      const turnAt = (here: Part): number => {
        const locate = locator(sketchOf(here))
        const [u, v] = [
          directionAt(splineIn(here, 0), locate, 'end'),
          directionAt(splineIn(here, 1), locate, 'start'),
        ]
        return u && v ? u.x * v.y - u.y * v.x : NaN
      }
      const handle = splineIn(two, 1).fromHandle
      const { x, y } = placeIn(two, handle)
      const pull = (here: Part): Part =>
        must(here, movePoints(SKETCH, new Map([[handle, { x: x + 2, y: y + 6 }]])))
      expect(turnAt(pull(two))).toBeCloseTo(0, 7)
      const loose = must(two, removeItems(SKETCH, [tie?.id ?? '']))
      expect(Math.abs(turnAt(pull(loose)))).toBeGreaterThan(0.05)
    },
  )

  test('is split at one of its own places without a new point', () => {
    const part = bottle()
    const { id, by } = splineIn(part)
    const two = must(part, split(SKETCH, id, placeIn(part, by[1] ?? '')))
    expect([splineIn(two).to, splineIn(two, 1).from]).toEqual([by[1], by[1]])
    expect(off(shape(part), shape(two, 0, 1))).toBeLessThan(1e-9)
    const end = perform(part, split(SKETCH, id, { x: 80, y: 14 }))
    expect(end.ok || end.problem.code).toBe('split.end')
    const cut = perform(part, trim(SKETCH, id, { x: 40, y: 30 }))
    expect(cut.ok || cut.problem.mend).toContain('Split it')
  })

  test('has a direction of its own at an inner place, pulled there, until it is joined again', () => {
    const part = bottle()
    const { id, by } = splineIn(part)
    const place = by[1] ?? ''
    const two = must(part, giveDirection(SKETCH, id, place))
    expect(off(shape(part), shape(two, 0, 1))).toBeLessThan(1e-9)
    // Joined at once, it is what it was; joined over, none of its handles is left.
    const one = must(two, joinCurves(SKETCH, place))
    expect(splineIn(one).by).toEqual(by)
    expect(sketchOf(one).points).toHaveLength(sketchOf(part).points.length)
    expect(off(shape(part), shape(one))).toBeLessThan(1e-9)

    // A handle pulled turns the direction on both sides, and the place stays where it is.
    const handle = splineIn(two, 1).fromHandle
    const { x, y } = placeIn(two, handle)
    const places = startDrag(sketchOf(two), new Map(), [handle]).move({ x: 1, y: 5 })
    expect(distance(places.get(handle) ?? never(), { x: x + 1, y: y + 5 })).toBeLessThan(1e-3)
    const own = sketchOf(two).points.map((p) => [p.id, places.get(p.id) ?? never()] as const)
    const pulled = must(two, movePoints(SKETCH, new Map(own)))
    const locate = locator(sketchOf(pulled))
    const [u, v] = [
      directionAt(splineIn(pulled, 0), locate, 'end') ?? never(),
      directionAt(splineIn(pulled, 1), locate, 'start') ?? never(),
    ]
    expect(u.x * v.y - u.y * v.x).toBeCloseTo(0, 7)
    expect(off(shape(part), shape(pulled, 0, 1))).toBeGreaterThan(0.3)
    expect(distance(placeIn(pulled, place), placeIn(part, place))).toBeLessThan(1e-5)
    // Joined now, it goes through its places with no direction told between them: as at first.
    const again = must(pulled, joinCurves(SKETCH, place))
    expect(splineOf(splineIn(again), locator(sketchOf(again))).ends).toEqual([undefined, undefined])
    expect(off(shape(part), shape(again))).toBeLessThan(0.01)
  })

  test('directions and joining are refused with a mend where they have no meaning', () => {
    const part = bottle('frame')
    const { id, by, from, to } = splineIn(part)
    const said = (command: Command): string => {
      const result = perform(part, command)
      return result.ok ? 'done' : `${result.problem.code} ${result.problem.mend}`
    }
    expect(said(giveDirection(SKETCH, id, from))).toBe('curve.inner Pick one between them.')
    expect(said(giveDirection(SKETCH, id, by[0] ?? ''))).toMatch(/^curve.pulls Turn it through/)
    expect(said(joinCurves(SKETCH, to))).toMatch(/^join.none/)
    const two = must(bottle(), split(SKETCH, splineIn(bottle()).id, { x: 45, y: 30 }))
    const offer = fittingSizes(sketchOf(two), [splineIn(two).id]).find(
      (o) => o.kind === 'arcLength',
    )
    const sized = must(two, addSize(SKETCH, offer ?? never(), '50'))
    const held = perform(sized, joinCurves(SKETCH, splineIn(two).to))
    expect(held.ok || held.problem.code).toBe('join.held')
  })

  test('two curves over frames, drawn against one another, are joined without a corner', () => {
    const first = must(
      createPart({ name: 'Neck' }),
      curve('frame', [at(0, 20), at(8, 34), at(20, 30), at(30, 22)]),
    )
    const both = must(
      first,
      curve('frame', [
        at(70, 18),
        at(60, 30),
        at(44, 12),
        at(30, 22, { point: splineIn(first).to }),
      ]),
    )
    const joined = must(both, joinCurves(SKETCH, splineIn(first).to))
    const pieces = shape(joined)
    const turns = pieces.slice(1).map((p, i) => {
      const [u, v] = [tangentAt(pieces[i] ?? never(), 1), tangentAt(p, 0)]
      return Math.abs(u.x * v.y - u.y * v.x)
    })
    expect(Math.max(...turns)).toBeLessThan(1e-9)
    expect(sketchOf(joined).entities).toHaveLength(1)
    expect([pieces[0]?.from, pieces.at(-1)?.to]).toEqual([
      placeIn(both, splineIn(both).from),
      placeIn(both, splineIn(both, 1).from),
    ])
  })

  test.each(['through', 'frame'] as const)(
    '%s: leaves the axis squarely when it is drawn from it, and is let go again',
    (way) => {
      const dome = must(
        createPart({ name: 'Cap' }),
        curve(way, [at(0, 0, { point: ORIGIN_ID }), at(4, 18), at(16, 26), at(40, 26)], true),
      )
      const own = splineIn(dome)
      expect(curveEnd(sketchOf(dome), own, own.from)).toBe('square')
      expect(curveEnd(sketchOf(dome), own, own.to)).toBe('free')
      const start = directionAt(own, locator(sketchOf(dome)), 'start')
      expect(start?.x).toBeCloseTo(0, 9)
      expect(start?.y).toBeCloseTo(1, 9)
      const free = must(dome, setCurveEnd(SKETCH, own.id, own.from, 'free'))
      expect(curveEnd(sketchOf(free), splineIn(free), own.from)).toBe('free')
      const tip = must(
        createPart({ name: 'Cap' }),
        curve(way, [at(0, 0, { on: [AXIS_ID] }), at(14, 18), at(40, 26)], false),
      )
      expect(curveEnd(sketchOf(tip), splineIn(tip), splineIn(tip).from)).toBe('free')
    },
  )

  test.each(['through', 'frame'] as const)(
    '%s: goes on smoothly from a line, which stays',
    (way) => {
      const part = bottle(way)
      const { id, to, from } = splineIn(part)
      const smooth = must(part, setCurveEnd(SKETCH, id, to, 'smooth'))
      expect(curveEnd(sketchOf(smooth), splineIn(smooth), to)).toBe('smooth')
      const along = directionAt(splineIn(smooth), locator(sketchOf(smooth)), 'end')
      // The mouth is radial.
      expect(along?.x).toBeCloseTo(0, 7)
      // Put on twice it is the same, and alone it is refused.
      const twice = must(smooth, setCurveEnd(SKETCH, id, to, 'smooth'))
      expect(sketchOf(twice).constraints.filter((c) => c.kind === 'tangent')).toHaveLength(1)
      const alone = must(smooth, removeItems(SKETCH, [sketchOf(smooth).entities[0]?.id ?? '']))
      const refused = perform(alone, setCurveEnd(SKETCH, id, from, 'smooth'))
      expect(refused.ok || refused.problem.code).toBe('curve.alone')
    },
  )

  test('is drawn on from a loose end as the same curve', () => {
    const first = must(
      createPart({ name: 'Ink bottle' }),
      curve('through', [at(0, 10), at(20, 20), at(40, 15)]),
    )
    const own = splineIn(first)
    const on = must(
      first,
      curve('through', [at(40, 15, { point: own.to }), at(60, 20), at(80, 12)]),
    )
    expect(sketchOf(on).entities).toHaveLength(1)
    expect(splineIn(on).by).toHaveLength(3)
    expect(splineIn(on).spans).toEqual([1, 1, 1, 1])
    const before = must(on, curve('through', [at(0, 10, { point: own.from }), at(-20, 14)]))
    expect(sketchOf(before).entities).toHaveLength(1)
    expect(placeIn(before, splineIn(before).from)).toMatchObject({ x: -20, y: 14 })
    expect(splineIn(before).to).toBe(splineIn(on).to)
  })

  test('gives a point of its own to what is drawn onto it', () => {
    const part = bottle()
    const { id, by } = splineIn(part)
    const place = pointAt(shape(part)[1] ?? never(), 0.5)
    const more = must(
      part,
      drawChain(SKETCH, [at(place.x, place.y, { on: [id] }), at(place.x + 5, place.y + 20)], [[]]),
    )
    expect(splineIn(more).by).toHaveLength(by.length + 1)
    const line = sketchOf(more).entities.at(-1)
    expect(line?.kind === 'line' && splineIn(more).by.includes(line.from)).toBe(true)
    expect(off(shape(part), shape(more))).toBeLessThan(1e-9)
  })

  test('is mirrored with all its points', () => {
    const part = must(
      createPart({ name: 'Ink bottle' }),
      curve('through', [at(5, 10), at(20, 20), at(40, 15)]),
    )
    const both = must(part, mirrorItems(SKETCH, [splineIn(part).id], AXIS_ID))
    const image = splineIn(both, 1)
    const moved = must(
      both,
      movePoints(SKETCH, new Map([[splineIn(both).by[0] ?? '', { x: 22, y: 30 }]])),
    )
    const [one, two] = [splineIn(moved).by[0] ?? '', image.by[0] ?? ''].map((p) =>
      placeIn(moved, p),
    )
    expect(one?.y).toBeGreaterThan(21)
    expect([two?.x, two?.y]).toEqual([one?.x, -(one?.y ?? 0)])
  })

  test('of one place, or of places on one another, is refused or passed over, and said', () => {
    const part = createPart({ name: 'Ink bottle' })
    const one = perform(part, curve('through', [at(5, 10), at(5, 10)]))
    expect(one.ok || one.problem.code).toBe('curve.short')
    const round = perform(part, curve('through', [at(5, 10), at(20, 20), at(5, 10)]))
    expect(round.ok || round.problem.code).toBe('curve.closed')
    const drawn = must(part, curve('through', [at(5, 10), at(20, 20), at(40, 15)]))
    const [inner = ''] = splineIn(drawn).by
    const fallen = must(drawn, movePoints(SKETCH, new Map([[inner, { x: 5, y: 10 }]])))
    expect(length(shape(fallen))).toBeGreaterThan(30)
    const put = perform(fallen, putPointIn(SKETCH, splineIn(fallen).id, { x: 30, y: 14 }))
    expect(put.ok || put.problem.code).toBe('curve.together')
  })
})

describe('the points of a free curve by number', () => {
  test.each(['through', 'frame'] as const)(
    '%s: are as many as are asked for, near to the shape',
    (way) => {
      const part = bottle(way)
      const { id, to } = splineIn(part)
      const smooth = must(part, setCurveEnd(SKETCH, id, to, 'smooth'))
      const more = must(smooth, setPointCount(SKETCH, id, 14))
      expect(splineIn(more).by).toHaveLength(12)
      const told = refitted(sketchOf(smooth), splineIn(smooth), 14)?.deviation ?? NaN
      expect(off(shape(smooth), shape(more))).toBeLessThanOrEqual(told + 1e-3)
      // What holds its end goes on to.
      expect(curveEnd(sketchOf(more), splineIn(more), to)).toBe('smooth')
      const few = must(more, setPointCount(SKETCH, id, 5))
      expect(splineIn(few).by).toHaveLength(3)
      expect(sketchOf(few).points).toHaveLength(
        sketchOf(smooth).points.length + (way === 'through' ? 1 : 0),
      )
      expect(evaluate(must(few, addRevolve(SKETCH))).steps[0]?.status).toBe('done')
    },
  )

  test('are refused where they are no number, or where sizes hold them', () => {
    const part = bottle()
    const { id, by } = splineIn(part)
    for (const count of [1, 2.5, 201, NaN]) {
      const refused = perform(part, setPointCount(SKETCH, id, count))
      expect(refused.ok || refused.problem.code).toBe('curve.count')
    }
    const sized = must(part, addSize(SKETCH, { kind: 'diameter', point: by[0] ?? '' }, '72'))
    const held = perform(sized, setPointCount(SKETCH, id, 4))
    expect(held.ok || held.problem.code).toBe('curve.held')
    expect(held.ok || held.problem.message).toContain('diameter')
  })
})

describe('points that are told where to stand', () => {
  test('stand there, and what hangs on them follows', () => {
    const part = bottle()
    const { by } = splineIn(part)
    const one = must(part, placePoints(SKETCH, [by[0] ?? ''], { y: 40 }))
    expect(placeIn(one, by[0] ?? '')).toMatchObject({ x: 18, y: 40 })
    const all = must(one, placePoints(SKETCH, [...by], { y: 25 }))
    expect(by.map((p) => placeIn(all, p).y)).toEqual([25, 25, 25])
    expect(by.map((p) => placeIn(all, p).x)).toEqual([18, 45, 62])
    expect(sketchOf(all).constraints).toEqual(sketchOf(part).constraints)
  })

  test('are refused where a size holds them, and stay', () => {
    const part = bottle()
    const [, corner = ''] = sketchOf(part).points.map((p) => p.id)
    const sized = must(part, addSize(SKETCH, { kind: 'diameter', point: corner }, '44'))
    const held = perform(sized, placePoints(SKETCH, [corner], { y: 30 }))
    expect(held.ok || held.problem.code).toBe('place.held')
    expect(held.ok || held.problem.message).toContain('Point 2')
    expect(must(sized, placePoints(SKETCH, [corner], { y: 22 }))).toBeDefined()
    const gone = perform(sized, placePoints(SKETCH, ['p99'], { y: 30 }))
    expect(gone.ok || gone.problem.code).toBe('point.gone')
  })
})

describe('a profile that is not made yet', () => {
  const drawn = (part: Part) => {
    const sketch = sketchOf(part)
    if (isEndSketch(sketch)) throw new Error('it is a half-section')
    return sketch
  }
  test('is the solid that its step will make', () => {
    const part = bottle()
    const found = pencilled(drawn(part), [])
    expect(found?.isClosed).toBe(true)
    const made = evaluate(must(part, addRevolve(SKETCH))).bodies[0]?.solid
    expect((found?.volume ?? 0) / (made?.volume ?? 1)).toBeCloseTo(1, 12)
  })

  test('is a skin while it is open, with what is being drawn, and nothing along the axis or below', () => {
    const empty = createPart({ name: 'Cup' })
    expect(pencilled(drawn(empty), [])).toBeUndefined()
    const along = pencilled(drawn(empty), [line({ x: 0, y: 0 }, { x: 20, y: 0 })])
    expect(along).toBeUndefined()
    const below = pencilled(drawn(empty), [line({ x: 0, y: -5 }, { x: 20, y: 5 })])
    expect(below).toBeUndefined()
    const skin = pencilled(drawn(empty), [line({ x: 0, y: 5 }, { x: 20, y: 8 })])
    expect(skin).toMatchObject({ isClosed: false, volume: 0 })
    expect(skin && latheMesh(skin.section, 0.1).indices.length).toBeGreaterThan(100)
    // Closed by what is being drawn, it is a solid: a cone frustum here.
    const closed = pencilled(drawn(empty), [
      line({ x: 0, y: 0 }, { x: 0, y: 5 }),
      line({ x: 0, y: 5 }, { x: 20, y: 8 }),
      line({ x: 20, y: 8 }, { x: 20, y: 0 }),
    ])
    expect(closed?.isClosed).toBe(true)
    expect(closed?.volume).toBeCloseTo(((Math.PI * 20) / 3) * (25 + 40 + 64), 8)
  })

  test('tells what a cut would take from what stands there', () => {
    const empty = createPart({ name: 'Cup' })
    const box = (x: number, to: number, r: number, out: number): readonly Piece[] => [
      line({ x, y: r }, { x, y: out }),
      line({ x, y: out }, { x: to, y: out }),
      line({ x: to, y: out }, { x: to, y: r }),
      line({ x: to, y: r }, { x, y: r }),
    ]
    const of = (pieces: readonly Piece[]) => pencilled(drawn(empty), pieces)
    const [body, groove] = [of(box(0, 40, 0, 20)), of(box(10, 16, 15, 30))]
    if (!body || !groove) throw new Error('both are closed')
    const taken = takenBy(groove, [body.section])
    expect(taken?.sections).toHaveLength(1)
    expect(taken?.volume).toBeCloseTo(Math.PI * (400 - 225) * 6, 8)
    const twice = takenBy(groove, [body.section, body.section])
    expect(twice?.volume).toBeCloseTo(2 * (taken?.volume ?? 0), 8)
    // What lies beside it, only touches it, or is open takes nothing.
    for (const other of [box(50, 60, 0, 5), box(40, 60, 0, 5)]) {
      const beside = of(other)
      expect(beside && takenBy(beside, [body.section])).toBeUndefined()
    }
    const skin = of([line({ x: 5, y: 5 }, { x: 20, y: 8 })])
    expect(skin && takenBy(skin, [body.section])).toBeUndefined()
  })
})

function never(): never {
  throw new Error('there is no such piece')
}

describe('a wall on a curve that bends just as tightly as the wall is thick', () => {
  /** A curve of 80 places, one of them pushed until it bends by about a millimetre there. */
  const pushed = (by: number): Part => {
    const places = Array.from({ length: 80 }, (_, i) => {
      const y = 40 + 12 * Math.sin((4 * i) / 79)
      return { at: { x: (120 * i) / 79, y: i === 40 ? y + by : y } }
    })
    return must(
      createPart({ name: 'Bowl' }),
      drawCurve({ sketch: SKETCH, way: 'through', places, role: 'outline', square: false }),
    )
  }

  test('is there all the same: what is shorter than a vertex leaves no gap', () => {
    const areas = Array.from({ length: 24 }, (_, i) => {
      const sketch = sketchOf(pushed(0.5295 + 2.5e-5 * i))
      const [curve] = sketch.entities
      const pieces = curve ? piecesOf(curve, locator(sketch)) : []
      const name = { step: 's', entity: 'e', role: 'drawn' as const }
      const wall = wallOf(
        pieces.map((piece) => ({ piece, name })),
        { step: 'w', left: 1, right: 1, corners: 'round', ends: 'flat' },
      )
      expect(wall?.regions).toHaveLength(1)
      const length = pieces.reduce((sum, p) => sum + lengthOf(p), 0)
      return wall ? sectionArea(wall) / (2 * length) : 0
    })
    // As wide as it is thick; the tight bend overlaps by next to nothing.
    for (const area of areas) expect(area).toBeCloseTo(1, 5)
  })
})

describe('a cubic with a loop next to a cusp', () => {
  const point = (x: number, y: number) => ({ x, y })
  // It comes down, turns about within ten nanometres, and crosses its own way a hundredth of a millimetre on.
  const hooked = cubic(
    point(5, 27),
    point(4.896467613366743, 25.553130723225575),
    point(4.0928164475287, 26.650812678349514),
    point(6, 26),
  )
  const name = { step: 's', entity: 'e', role: 'drawn' as const }

  test('is taken apart before and behind its turn, end to end', () => {
    const parts = simplePieces(hooked)
    parts.slice(1).forEach((part, i) => expect(part.from).toEqual(parts[i]?.to))
    expect([parts[0]?.from, parts.at(-1)?.to]).toEqual([hooked.from, hooked.to])
    // No part turns back: its ends look along it.
    for (const part of parts) {
      const [a, b] = [tangentAt(part, 0), tangentAt(part, 1)]
      const chord = { x: part.to.x - part.from.x, y: part.to.y - part.from.y }
      expect(a.x * chord.x + a.y * chord.y).toBeGreaterThanOrEqual(-1e-9)
      expect(b.x * chord.x + b.y * chord.y).toBeGreaterThanOrEqual(-1e-9)
    }
  })

  test('crosses itself, and an outline with it says so', () => {
    const sides: Piece[] = [line(hooked.to, point(7, 33)), line(point(7, 33), hooked.from)]
    const { faults } = profileOf(
      [...simplePieces(hooked), ...sides].map((piece) => ({ piece, name })),
      's',
    )
    expect(faults.map((f) => f.kind)).toContain('crossing')
  })
})

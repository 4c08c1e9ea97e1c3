import { describe, expect, test } from 'vitest'
import {
  AXIS_ID,
  ORIGIN_ID,
  SECTION_ID,
  addRevolve,
  addSize,
  addSketch,
  addStep,
  changeStep,
  constrain,
  cornersOf,
  createPart,
  curvatureAt,
  cutAtAxis,
  distance,
  drawDraft,
  drawPiece,
  edgeKey,
  edgesOf,
  evaluate,
  extend,
  faceWords,
  fittingConstraints,
  guideOf,
  lengthOf,
  locator,
  lostCorners,
  mirrorItems,
  nearestOn,
  perform,
  pieceOf,
  pointAt,
  readPart,
  readPartFile,
  removeStep,
  sectionArea,
  solidProperties,
  split,
  tangentAt,
  toDocument,
  trim,
  trimmedStretch,
  vec,
  writePartFile,
  type CubicPiece,
  type Draft,
  type End,
  type NewStep,
  type Part,
  type SketchCurve,
} from '../src'
import { must, sketchOf } from './support/parts'

const SKETCH = 'sketch2'
const curve = (id: string, from: string, to: string, h: string, k: string): SketchCurve => ({
  ...{ id, kind: 'curve', from, to, role: 'outline' },
  ...{ fromHandle: h, toHandle: k },
})
const drawn = (draft: Draft): Part =>
  must(createPart({ name: 'Ink flask' }), drawDraft('draw', SKETCH, draft))
const curveOf = (part: Part, number = 0): SketchCurve => {
  const found = sketchOf(part).entities.filter((e) => e.kind === 'curve')[number]
  if (!found) throw new Error('there is no such curve')
  return found
}
const pieceIn = (part: Part, number = 0): CubicPiece =>
  pieceOf(curveOf(part, number), locator(sketchOf(part))) as CubicPiece

/** A base, a curve that leaves it in some direction, and a neck. */
const flask = (): Part =>
  drawn({
    points: {
      '~o': { at: vec(0, 0), point: ORIGIN_ID },
      '~a': { at: vec(0, 30) },
      '~h': { at: vec(20, 38) },
      '~k': { at: vec(40, 10) },
      '~b': { at: vec(60, 12) },
      '~c': { at: vec(72, 12) },
      '~d': { at: vec(72, 0), on: [AXIS_ID] },
    },
    entities: [
      { id: '~1', kind: 'line', from: '~o', to: '~a', role: 'outline' },
      curve('~2', '~a', '~b', '~h', '~k'),
      { id: '~3', kind: 'line', from: '~b', to: '~c', role: 'outline' },
      { id: '~4', kind: 'line', from: '~c', to: '~d', role: 'outline' },
    ],
    ties: [
      { kind: 'radial', line: '~1' },
      { kind: 'axial', line: '~3' },
      { kind: 'radial', line: '~4' },
    ],
  })
const turned = (): Part => must(flask(), addRevolve(SKETCH))
const bodyId = turned().bodies[0]?.id ?? ''
const sectionIn = (part: Part) => evaluate(part).bodies[0]?.section ?? { regions: [] }
const volume = (part: Part): number => solidProperties(sectionIn(part))?.volume ?? 0
const stepIn = (part: Part) => evaluate(part).steps.at(-1)

describe('a free curve in a sketch', () => {
  test('has the freedoms of its four points, and sizes to any of them hold it', () => {
    const part = flask()
    const before = evaluate(part).sketches.get(SKETCH)?.solution.freedoms ?? 0
    const sized = must(
      part,
      addSize(SKETCH, { kind: 'diameter', point: curveOf(part).fromHandle }, '80'),
    )
    expect(evaluate(sized).sketches.get(SKETCH)?.solution.freedoms).toBe(before - 1)
    expect(pieceIn(sized).on[1].y).toBeCloseTo(40, 9)
  })

  test('goes on smoothly from lines, arcs and other curves at the ends it shares', () => {
    const part = flask()
    const [, free, neck] = sketchOf(part).entities
    const smooth = must(part, constrain(SKETCH, 'tangent', [free?.id ?? '', neck?.id ?? '']))
    expect(tangentAt(pieceIn(smooth), 1).y).toBeCloseTo(0, 12)
    // What it shares no end with it cannot go on from.
    const [base, , , end] = sketchOf(part).entities
    expect(fittingConstraints(sketchOf(part), [free?.id ?? '', end?.id ?? ''])).not.toContain(
      'tangent',
    )
    expect(fittingConstraints(sketchOf(part), [free?.id ?? '', base?.id ?? ''])).toContain(
      'tangent',
    )
    const two = drawn({
      points: {
        '~a': { at: vec(0, 20) },
        '~h': { at: vec(6, 25) },
        '~k': { at: vec(14, 22) },
        '~b': { at: vec(20, 20) },
        '~i': { at: vec(25, 21) },
        '~j': { at: vec(33, 26) },
        '~c': { at: vec(40, 20) },
        '~m': { at: vec(45, 24) },
        '~d': { at: vec(50, 30) },
      },
      entities: [
        curve('~1', '~a', '~b', '~h', '~k'),
        curve('~2', '~b', '~c', '~i', '~j'),
        {
          ...{ id: '~3', kind: 'arc', from: '~c', to: '~d', centre: '~m', role: 'outline' },
          counterClockwise: true,
        },
      ],
      ties: [
        { kind: 'tangent', curve: '~1', to: '~2' },
        { kind: 'tangent', curve: '~3', to: '~2' },
      ],
    })
    const [a, b] = [pieceIn(two, 0), pieceIn(two, 1)]
    const [u, v] = [tangentAt(a, 1), tangentAt(b, 0)]
    expect(u.x * v.y - u.y * v.x).toBeCloseTo(0, 9)
    expect(u.x * v.x + u.y * v.y).toBeGreaterThan(0)
    const arc = sketchOf(two).entities.find((e) => e.kind === 'arc')
    const [w, z] = [tangentAt(b, 1), arc && tangentAt(pieceOf(arc, locator(sketchOf(two))), 0)]
    expect(w.x * (z?.y ?? 1) - w.y * (z?.x ?? 1)).toBeCloseTo(0, 9)
  })

  test('carries points that lie on it', () => {
    const part = flask()
    const free = curveOf(part).id
    const pointed = must(
      part,
      drawDraft('point', SKETCH, { points: { '~p': { at: vec(30, 26) } }, entities: [] }),
    )
    const point = sketchOf(pointed).points.at(-1)?.id ?? ''
    const on = must(pointed, constrain(SKETCH, 'pointOn', [free, point]))
    const sized = must(on, addSize(SKETCH, { kind: 'axialDistance', a: ORIGIN_ID, b: point }, '36'))
    const place = locator(sketchOf(sized))(point)
    expect(place.x).toBeCloseTo(36, 9)
    expect(nearestOn(pieceIn(sized), place).distance).toBeLessThan(1e-8)
  })

  test('keeps its shape where it is divided or trimmed', () => {
    const part = flask()
    const whole = pieceIn(part)
    const middle = pointAt(whole, 0.4)
    const halves = must(part, split(SKETCH, curveOf(part).id, middle))
    const [one, two] = [pieceIn(halves, 0), pieceIn(halves, 1)]
    expect(distance(one.to, two.from)).toBeLessThan(1e-12)
    expect(lengthOf(one) + lengthOf(two)).toBeCloseTo(lengthOf(whole), 9)
    for (const t of [0.2, 0.6]) {
      expect(nearestOn(whole, pointAt(one, t)).distance).toBeLessThan(1e-9)
      expect(nearestOn(whole, pointAt(two, t)).distance).toBeLessThan(1e-9)
    }
    const crossed = must(
      part,
      drawDraft('line', SKETCH, {
        points: { '~p': { at: vec(30, 0) }, '~q': { at: vec(30, 40) } },
        entities: [{ id: '~l', kind: 'line', from: '~p', to: '~q', role: 'outline' }],
      }),
    )
    const late = pointAt(whole, 0.8)
    const shown = trimmedStretch(sketchOf(crossed), curveOf(crossed).id, late)
    expect(shown?.from.x).toBeCloseTo(30, 9)
    const trimmed = must(crossed, trim(SKETCH, curveOf(crossed).id, late))
    const rest = pieceIn(trimmed)
    expect(rest.to.x).toBeCloseTo(30, 9)
    expect(nearestOn(whole, pointAt(rest, 0.5)).distance).toBeLessThan(1e-9)
  })

  test('is mirrored with its handles, which stay alike', () => {
    const part = drawn({
      points: {
        '~a': { at: vec(0, 20) },
        '~h': { at: vec(8, 30) },
        '~k': { at: vec(16, 12) },
        '~b': { at: vec(24, 20) },
        '~c': { at: vec(30, 0), on: [AXIS_ID] },
        '~d': { at: vec(30, 10) },
      },
      entities: [
        curve('~1', '~a', '~b', '~h', '~k'),
        { id: '~2', kind: 'line', from: '~c', to: '~d', role: 'centre' },
      ],
      ties: [{ kind: 'radial', line: '~2' }],
    })
    const line = sketchOf(part).entities.find((e) => e.kind === 'line')?.id ?? ''
    const both = must(part, mirrorItems(SKETCH, [curveOf(part).id], line))
    const sized = must(
      both,
      addSize(SKETCH, { kind: 'diameter', point: curveOf(both).fromHandle }, '70'),
    )
    const [one, other] = [pieceIn(sized, 0), pieceIn(sized, 1)]
    const about = sketchOf(sized).entities.find((e) => e.kind === 'line')
    const x = locator(sketchOf(sized))(about?.from ?? '').x
    for (const t of [0, 0.3, 0.7, 1]) {
      const p = pointAt(one, t)
      expect(nearestOn(other, vec(2 * x - p.x, p.y)).distance).toBeLessThan(1e-8)
    }
  })

  /** A curve over a base and an end, with its handles somewhere. */
  const over = (h: readonly [number, number], k: readonly [number, number]): Part =>
    drawn({
      points: {
        '~a': { at: vec(0, 0), on: [AXIS_ID] },
        '~b': { at: vec(0, 20) },
        '~h': { at: vec(...h) },
        '~k': { at: vec(...k) },
        '~c': { at: vec(50, 20) },
        '~d': { at: vec(50, 0), on: [AXIS_ID] },
      },
      entities: [
        { id: '~1', kind: 'line', from: '~a', to: '~b', role: 'outline' },
        curve('~2', '~b', '~c', '~h', '~k'),
        { id: '~3', kind: 'line', from: '~c', to: '~d', role: 'outline' },
      ],
    })

  test('that loops is told to cross itself, and encloses nothing', () => {
    const looped = must(over([70, 40], [-40, 40]), addRevolve(SKETCH))
    expect(stepIn(looped)?.problem?.message).toMatch(/curve 2 crosses itself at 21.053/)
    expect(evaluate(looped).bodies[0]?.solid).toBeUndefined()
  })

  test('that reaches below the axis is told once, and cut there', () => {
    const deep = over([20, -30], [40, -30])
    const faults = evaluate(deep).sketches.get(SKETCH)?.profile.faults ?? []
    expect(faults.map((f) => f.kind)).toEqual(['belowAxis'])
    const cut = must(deep, cutAtAxis(SKETCH, [curveOf(deep).id]))
    expect(sketchOf(cut).entities.filter((e) => e.kind === 'curve')).toHaveLength(2)
    const both = must(cut, addRevolve(SKETCH))
    expect(stepIn(both)?.problem).toBeUndefined()
    expect(sectionIn(both).regions).toHaveLength(2)
  })

  test('is refused what it has no sense for, in words', () => {
    const part = flask()
    const free = curveOf(part).id
    const result = perform(part, extend(SKETCH, free, vec(60, 12)))
    expect(result.ok ? '' : result.problem.message).toMatch(/free curve/)
  })

  test('is kept by part files, and files from before it are read', () => {
    const part = turned()
    const read = readPartFile(writePartFile(part))
    expect(read.ok && read.value).toEqual(part)
    const older = readPart({ ...toDocument(must(createPart({ name: 'Float' }))), version: 7 })
    expect(older.ok).toBe(true)
  })
})

describe('what is turned from a free curve', () => {
  test('has the volume of its exact integral, and one face for the curve', () => {
    const part = turned()
    const whole = pieceIn(part)
    // Simpson over the parameter of the whole curve, which knows nothing of its parts.
    const n = 2000
    let sum = 0
    for (let i = 0; i < n; i++) {
      const [a, m, b] = [i / n, (i + 0.5) / n, (i + 1) / n].map((t) => pointAt(whole, t))
      if (a && m && b) sum += ((b.x - a.x) * Math.PI * (a.y ** 2 + 4 * m.y ** 2 + b.y ** 2)) / 6
    }
    expect(volume(part) / (sum + Math.PI * 144 * 12)).toBeCloseTo(1, 7)
    const faces = edgesOf(sectionIn(part)).filter((e) => e.piece.kind === 'cubic')
    expect(new Set(faces.map((e) => edgeKey(e.name))).size).toBe(1)
    expect(faces.map((e) => faceWords(e, part.units))[0]).toMatch(/^curve ⌀/)
    // Where its parts meet there is no edge.
    expect(cornersOf(sectionIn(part))).toHaveLength(3)
  })

  test('is rounded where the curve meets a line, tangent to both', () => {
    const part = turned()
    const corner = cornersOf(sectionIn(part)).find((c) => Math.abs(c.at.x) < 1e-9)
    const round: NewStep = {
      ...{ kind: 'fillet', body: bodyId },
      sets: [{ pick: { kind: 'corners', corners: [corner?.key ?? ''] }, radius: '3' }],
    }
    const rounded = must(part, addStep(round))
    expect(stepIn(rounded)?.problem).toBeUndefined()
    const arc = edgesOf(sectionIn(rounded)).find((e) => e.piece.kind === 'arc')
    expect(arc && 1 / Math.abs(curvatureAt(arc.piece, 0))).toBeCloseTo(3, 7)
    expect(cornersOf(sectionIn(rounded))).toHaveLength(2)
    expect(volume(rounded)).toBeLessThan(volume(part))
    const much: NewStep = {
      ...round,
      sets: [{ pick: { kind: 'corners', corners: [corner?.key ?? ''] }, radius: '300' }],
    }
    expect(stepIn(must(part, addStep(much)))?.problem?.mend).toMatch(/mm|radius/i)
  })

  test('is hollowed to one thickness all along', () => {
    const part = turned()
    const open = edgesOf(sectionIn(part)).find((e) => e.piece.from.x > 71 && e.piece.to.x > 71)
    const shell: NewStep = {
      ...{ kind: 'shell', body: bodyId, side: 'inside', thickness: '1.5', follow: 'turn' },
      ...{ open: open ? [edgeKey(open.name)] : [], faces: [], corners: 'sharp' },
    }
    const hollow = must(part, addStep(shell))
    expect(stepIn(hollow)?.problem).toBeUndefined()
    const edges = edgesOf(sectionIn(hollow))
    const outside = edges.filter((e) => e.name.role === 'drawn' && e.piece.kind === 'cubic')
    const inside = edges.filter((e) => e.name.role === 'made' && e.piece.kind === 'cubic')
    expect(inside.length).toBeGreaterThan(1)
    for (const { piece } of inside) {
      for (const t of [0.1, 0.5, 0.9]) {
        const far = outside.map((o) => nearestOn(o.piece, pointAt(piece, t)).distance)
        expect(Math.abs(Math.min(...far) - 1.5)).toBeLessThan(1e-6)
      }
    }
    expect(sectionArea(sectionIn(hollow))).toBeLessThan(sectionArea(sectionIn(part)))
  })

  test('as a wall has the area of its length times its thickness', () => {
    const alone = drawn({
      points: {
        '~a': { at: vec(0, 20) },
        '~h': { at: vec(15, 34) },
        '~k': { at: vec(35, 12) },
        '~b': { at: vec(50, 26) },
      },
      entities: [curve('~1', '~a', '~b', '~h', '~k')],
    })
    const wall = {
      ...{ kind: 'wall', sketch: SKETCH, side: 'middle', thickness: '2', inner: '' },
      ...{ corners: 'sharp', ends: 'flat', effect: 'add', body: alone.bodies[0]?.id ?? '' },
      ...{ turn: '', turnTo: '', turnSide: 'one', back: '', phase: '' },
    } as NewStep
    const walled = must(alone, addStep(wall))
    expect(stepIn(walled)?.problem).toBeUndefined()
    // By half to both sides the turns take from one what they add to the other.
    expect(sectionArea(sectionIn(walled))).toBeCloseTo(2 * lengthOf(pieceIn(alone)), 4)
  })

  test('is built on by later sketches, as rounds are: they follow what they lie on', () => {
    const part = turned()
    const corner = cornersOf(sectionIn(part)).find((c) => Math.abs(c.at.x) < 1e-9)
    const fillet = (radius: string): NewStep => ({
      ...{ kind: 'fillet', body: bodyId },
      sets: [{ pick: { kind: 'corners', corners: [corner?.key ?? ''] }, radius }],
    })
    const rounded = must(part, addStep(fillet('3')), addSketch())
    const second = (p: Part) => sketchOf(p, 1)
    const edges = edgesOf(sectionIn(rounded))
    const ends = (['arc', 'cubic'] as const).map((kind) => {
      const edge = edges.find((e) => e.piece.kind === kind)
      if (!edge) throw new Error(`there is no ${kind}`)
      const link = {
        profile: SECTION_ID,
        item: edgeKey(edge.name),
        guide: guideOf(edge, sectionIn(rounded)),
      }
      return { at: pointAt(edge.piece, 0.5), link } as End
    })
    const [from, to] = ends
    if (!from || !to) throw new Error('there are no ends')
    const linked = must(
      rounded,
      drawPiece({ sketch: second(rounded).id, from, to, role: 'outline' }),
    )
    expect(
      second(linked)
        .entities.map((e) => e.kind)
        .sort(),
    ).toEqual(['arc', 'curve', 'line'])
    const step = linked.route.find((s) => s.kind === 'fillet')
    const larger = must(
      linked,
      changeStep(step?.id ?? '', (s) => ({ ...s, ...fillet('5') }) as typeof s),
      addSize(SKETCH, { kind: 'diameter', point: curveOf(linked).fromHandle }, '90'),
    )
    const locate = locator(second(larger))
    const line = second(larger).entities.find((e) => e.kind === 'line')
    const [a, b] = [locate(line?.from ?? ''), locate(line?.to ?? '')]
    const now = edgesOf(sectionIn(larger))
    const arc = now.find((e) => e.piece.kind === 'arc')?.piece
    expect(arc?.kind === 'arc' && distance(a, arc.centre)).toBeCloseTo(5, 8)
    expect(nearestOn(pieceIn(larger), b).distance).toBeLessThan(1e-8)
    const gone = must(larger, removeStep(step?.id ?? ''))
    expect(lostCorners(gone, evaluate(gone), second(gone))).toHaveLength(3)
    // The curve is followed on the whole curve, whose key the fillet did not change.
    expect(readPartFile(writePartFile(gone)).ok).toBe(true)
  })
})

import { describe, expect, test } from 'vitest'
import {
  addRevolve,
  addSize,
  changeSize,
  constrain,
  copyItems,
  createHistory,
  drawChain,
  drawCurve,
  edit,
  fittingSizes,
  mirrorItems,
  nudgePoints,
  offsetChain,
  perform,
  removeItems,
  setCurveEnd,
  setPointCount,
  shift,
  split,
  trim,
  turnWay,
  undo,
  type Command,
} from '@lathica/core/edit'
import { nearestOn, pointAt, type Piece } from '@lathica/core/geometry'
import { readPart, readPartFile, toDocument, writePartFile } from '@lathica/core/formats'
import { createPart, type Part } from '@lathica/core/part'
import { evaluate, sketchStates } from '@lathica/core/route'
import { locator, piecesOf, type SketchParallel } from '@lathica/core/sketch'
import { must, placeIn, sketchOf, splineIn } from './support/parts'
import { strip } from './support/strip'

const SKETCH = 'sketch2'
const at = (x: number, y: number) => ({ at: { x, y } })

const pieces = (part: Part, id: string): readonly Piece[] => {
  const sketch = sketchOf(part)
  const entity = sketch.entities.find((e) => e.id === id)
  return entity ? piecesOf(entity, locator(sketch)) : []
}

function parallelIn(part: Part, number = 0): SketchParallel {
  const found = sketchOf(part).entities.filter((e) => e.kind === 'parallel')[number]
  if (found?.kind !== 'parallel') throw new Error('nothing lies beside')
  return found
}

/** How far what lies beside its curve is off the distance it should have, everywhere along it. */
function offBy(part: Part, wanted: number, number = 0): number {
  const beside = parallelIn(part, number)
  const curve = pieces(part, beside.of)
  const own = pieces(part, beside.id)
  expect(own.length).toBeGreaterThan(0)
  return Math.max(
    ...own.flatMap((piece) =>
      Array.from({ length: 201 }, (_, i) => {
        const p = pointAt(piece, i / 200)
        return Math.abs(Math.min(...curve.map((q) => nearestOn(q, p).distance)) - wanted)
      }),
    ),
  )
}

const freedoms = (part: Part): number => sketchStates(part).get(SKETCH)?.solution.freedoms ?? NaN
const disagreements = (part: Part) => sketchStates(part).get(SKETCH)?.solution.disagreements

/** A free curve by itself, with what lies 3 mm below it. */
function belly(way: 'through' | 'frame'): Part {
  const drawn = must(
    createPart({ name: 'Vase' }),
    drawCurve({
      ...{ sketch: SKETCH, way, role: 'outline', square: false },
      places: [at(0, 22), at(15, 34), at(40, 42), at(70, 30), at(95, 18), at(120, 24)],
    }),
  )
  const ids = [splineIn(drawn).id]
  return must(drawn, offsetChain({ sketch: SKETCH, ids, formula: '3', side: { x: 40, y: 30 } }))
}

/** A foot and a neck of lines with a free curve between, smoothly, and what lies beside all of it. */
function bottle(): Part {
  const foot = must(
    createPart({ name: 'Bottle' }),
    drawChain(SKETCH, [at(0, 30), at(40, 30)], [['axial']]),
  )
  const point = sketchOf(foot).points.at(-1)?.id ?? ''
  const shoulder = must(
    foot,
    drawCurve({
      ...{ sketch: SKETCH, way: 'through', role: 'outline', square: false },
      places: [{ ...at(40, 30), point }, at(56, 27), at(72, 16), at(86, 12)],
    }),
  )
  const { id, from, to } = splineIn(shoulder)
  const neck = must(
    shoulder,
    drawChain(SKETCH, [{ ...at(86, 12), point: to }, at(110, 12)], [['axial']]),
  )
  const smooth = must(
    neck,
    setCurveEnd(SKETCH, id, from, 'smooth'),
    setCurveEnd(SKETCH, id, to, 'smooth'),
  )
  const ids = sketchOf(smooth).entities.map((e) => e.id)
  return must(smooth, offsetChain({ sketch: SKETCH, ids, formula: '2', side: { x: 20, y: 20 } }))
}

describe.each(['through', 'frame'] as const)('what lies exactly beside a free curve %s', (way) => {
  const part = belly(way)

  test('is 3 mm from it everywhere, by one size, with no other freedom', () => {
    expect(offBy(part, 3)).toBeLessThan(2e-6)
    expect(sketchOf(part).sizes.map((s) => s.kind)).toEqual(['gap'])
    expect(freedoms(part)).toBe(12)
    expect(disagreements(part)).toEqual([])
    expect(
      sketchStates(part)
        .get(SKETCH)
        ?.measured.get(sketchOf(part).sizes[0]?.id ?? ''),
    ).toBeCloseTo(3, 9)
  })

  test('follows the curve as it is pushed, and its distance as it is typed', () => {
    const third = splineIn(part).by[1] ?? ''
    const pushed = must(part, nudgePoints(SKETCH, [third], { x: 2, y: 5 }))
    expect(placeIn(pushed, third).y).toBeCloseTo(placeIn(part, third).y + 5, 9)
    expect(offBy(pushed, 3)).toBeLessThan(2e-6)
    const size = sketchOf(pushed).sizes[0]?.id ?? ''
    const thick = must(pushed, changeSize(SKETCH, size, '5.5'))
    expect(offBy(thick, 5.5)).toBeLessThan(2e-6)
    // Farther than the curve bends it is refused, with the greatest distance that goes.
    const far = perform(pushed, changeSize(SKETCH, size, '300'))
    expect(far.ok || far.problem.code).toBe('offset.tight')
    expect(far.ok || far.problem.mend).toMatch(/^Take less than [\d.]+ mm/)
    // Pulled at an end it pulls the curve along, as far as that is free.
    const own = parallelIn(part).from
    const pulled = must(part, nudgePoints(SKETCH, [own], { x: 0, y: 4 }))
    expect(offBy(pulled, 3)).toBeLessThan(2e-6)
    expect(placeIn(pulled, own).y).toBeCloseTo(placeIn(part, own).y + 4, 6)
  })

  test('stays beside it when it is led otherwise, by fewer points, and goes with it', () => {
    const curve = splineIn(part).id
    for (const command of [turnWay(SKETCH, curve), setPointCount(SKETCH, curve, 5)]) {
      const led = must(part, command)
      expect(parallelIn(led).along).toBe(sketchOf(led).entities.find((e) => e.id === curve))
      expect(offBy(led, 3)).toBeLessThan(2e-6)
    }
    const thinned = must(part, removeItems(SKETCH, [splineIn(part).by[1] ?? '']))
    expect(offBy(thinned, 3)).toBeLessThan(2e-6)
    const gone = must(part, removeItems(SKETCH, [curve]))
    expect(sketchOf(gone).entities).toEqual([])
    expect(sketchOf(gone).points).toEqual([])
    const alone = must(part, removeItems(SKETCH, [parallelIn(part).id]))
    expect(sketchOf(alone).entities.map((e) => e.id)).toEqual([curve])
    expect(sketchOf(alone).points).toHaveLength(6)
  })

  test('is kept with the part by the name of its curve, and is as it was', () => {
    const text = writePartFile(part)
    expect(text).not.toContain('along')
    const read = readPartFile(text)
    expect(read.ok && sketchOf(read.value)).toEqual(sketchOf(part))
    const bad = JSON.parse(JSON.stringify(toDocument(part))) as {
      sketches: { entities: { of?: string }[] }[]
    }
    for (const e of bad.sketches[0]?.entities ?? []) if (e.of !== undefined) e.of = 'none'
    expect(readPart(bad).ok).toBe(false)
    const history = edit(createHistory(part), removeItems(SKETCH, [splineIn(part).id]))
    expect(history.ok && undo(history.value).part).toBe(part)
  })

  test('is copied with its curve, and what it cannot do says so', () => {
    const { id } = parallelIn(part)
    const both = must(
      part,
      copyItems(SKETCH, [splineIn(part).id, id], shift({ x: 0, y: 50 }), true),
    )
    expect(offBy(both, 3, 1)).toBeLessThan(2e-6)
    expect(parallelIn(both, 1).of).not.toBe(splineIn(part).id)
    const codes = [
      copyItems(SKETCH, [id], shift({ x: 0, y: 50 }), true),
      mirrorItems(SKETCH, [id], 'axis'),
      trim(SKETCH, id, { x: 40, y: 38 }),
      split(SKETCH, id, { x: 40, y: 38 }),
      offsetChain({ sketch: SKETCH, ids: [id], formula: '1', side: { x: 0, y: 0 } }),
    ].map((command: Command) => {
      const done = perform(part, command)
      return done.ok ? '' : done.problem.code
    })
    expect(codes).toEqual([
      ...['copy.nothing', 'copy.parallel', 'trim.parallel', 'split.parallel', 'offset.parallel'],
    ])
  })

  test('holds points of other pieces on it', () => {
    const drawn = must(part, drawChain(SKETCH, [at(52, 20), at(52, 33)], []))
    const point = sketchOf(drawn).points.at(-1)?.id ?? ''
    const { id } = parallelIn(drawn)
    const held = must(drawn, constrain(SKETCH, 'pointOn', [id, point]))
    const off = Math.min(
      ...pieces(held, id).map((p) => nearestOn(p, placeIn(held, point)).distance),
    )
    expect(off).toBeLessThan(1e-5)
    expect(freedoms(held)).toBe(freedoms(drawn) - 1)
  })
})

describe('what lies beside a chain of lines and a free curve', () => {
  const part = bottle()

  test('is one chain at one distance, which follows it exactly', () => {
    expect(sketchOf(part).entities.map((e) => e.kind)).toEqual([
      ...['line', 'spline', 'line', 'line', 'parallel', 'line'],
    ])
    expect(disagreements(part)).toEqual([])
    expect(offBy(part, 2)).toBeLessThan(2e-6)
    const pushed = must(part, nudgePoints(SKETCH, [splineIn(part).by[0] ?? ''], { x: 0, y: 3 }))
    expect(offBy(pushed, 2)).toBeLessThan(2e-6)
    const sized = sketchOf(part).sizes.find((s) => s.formula === '2')
    const thick = must(pushed, changeSize(SKETCH, sized?.id ?? '', '3'))
    expect(offBy(thick, 3)).toBeLessThan(2e-6)
  })

  test('closes to a wall whose volume is that between both', () => {
    const { entities } = sketchOf(part)
    const lines = entities.flatMap((e) => (e.kind === 'line' ? [e] : []))
    const [, , inner, last] = lines
    const ends = [
      [lines[0]?.from, inner?.from],
      [lines[1]?.to, last?.to],
    ]
    const closed = ends.reduce((here, [a = '', b = '']) => {
      const [p, q] = [placeIn(here, a), placeIn(here, b)]
      return must(
        here,
        drawChain(
          SKETCH,
          [
            { at: p, point: a },
            { at: q, point: b },
          ],
          [],
        ),
      )
    }, part)
    const made = must(closed, addRevolve(SKETCH))
    const { bodies, steps } = evaluate(made)
    expect(steps[0]?.problem).toBeUndefined()
    const run = entities.slice(0, 3).flatMap((e) => [...pieces(made, e.id)])
    const wanted = run.reduce((sum, piece) => sum + strip(piece, 2), 0)
    expect((bodies[0]?.solid?.volume ?? 0) / wanted).toBeCloseTo(1, 5)
  })

  test('where the curve meets a corner it gets a curve of its own, as it does with a number of points', () => {
    const foot = must(
      createPart({ name: 'Cup' }),
      drawChain(SKETCH, [at(0, 10), at(0, 30)], [['radial']]),
    )
    const point = sketchOf(foot).points.at(-1)?.id ?? ''
    const cup = must(
      foot,
      drawCurve({
        ...{ sketch: SKETCH, way: 'through', role: 'outline', square: false },
        places: [{ ...at(0, 30), point }, at(30, 36), at(60, 40)],
      }),
    )
    const ids = sketchOf(cup).entities.map((e) => e.id)
    const beside = { sketch: SKETCH, ids, formula: '2', side: { x: 10, y: 20 } }
    const own = must(cup, offsetChain(beside))
    expect(sketchOf(own).entities.map((e) => e.kind)).toEqual(['line', 'spline', 'line', 'spline'])
    const counted = must(
      belly('through'),
      offsetChain({ ...beside, ids: [splineIn(belly('through')).id], count: 4 }),
    )
    expect(sketchOf(counted).entities.map((e) => e.kind)).toEqual(['spline', 'parallel', 'spline'])
  })

  test('its distance is sized where it has none, once', () => {
    const { id, of } = parallelIn(part)
    expect(fittingSizes(sketchOf(part), [id])).toEqual([{ kind: 'gap', item: id, to: of }])
    expect(fittingSizes(sketchOf(part), [of, id])).toEqual([{ kind: 'gap', item: id, to: of }])
    const bare = must(
      belly('frame'),
      removeItems(SKETCH, [sketchOf(belly('frame')).sizes[0]?.id ?? '']),
    )
    expect(freedoms(bare)).toBe(13)
    const [offer] = fittingSizes(sketchOf(bare), [parallelIn(bare).id])
    const sized = offer && must(bare, addSize(SKETCH, offer, '4'))
    expect(sized && offBy(sized, 4)).toBeLessThan(2e-6)
  })
})

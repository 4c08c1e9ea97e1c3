import { beforeAll, describe, expect, test } from 'vitest'
import {
  coursesOf,
  cubic,
  line,
  place,
  simplePieces,
  vec,
  type Piece,
} from '@lathica/core/geometry'
import { AXIS_ID, ORIGIN_ID } from '@lathica/core/sketch'
import { profileOf, solidProperties, type Section } from '@lathica/core/section'
import { packText, type SolidTool } from '@lathica/core/solid'
import { createPart, type Part } from '@lathica/core/part'
import { evaluate } from '@lathica/core/route'
import { addRevolve, drawChain, drawCurve, drawDraft, type End } from '@lathica/core/edit'
import { recoverPart } from '@lathica/core/recover'
import { writeStep } from '@lathica/core/formats'
import { builtGeometry, type Kernel } from '../src'
import { outline, run, watertight } from './support'
import { sharedKernel } from './support/kernel'

let kernel: Kernel
beforeAll(async () => {
  kernel = await sharedKernel()
})

/** A flask whose side swells and narrows, in one free curve, with a mouth. */
const SIDE = cubic(vec(0, 18), vec(22, 34), vec(26, 3), vec(52, 9))
const flask = (): Section => {
  const pieces: Piece[] = [
    line(vec(60, 9), vec(52, 9)),
    ...simplePieces({ ...SIDE, from: SIDE.to, to: SIDE.from, start: 1, end: 0 }),
    line(vec(0, 18), vec(0, 0)),
    line(vec(0, 0), vec(60, 0)),
    line(vec(60, 0), vec(60, 9)),
  ]
  const edges = pieces.map((piece, i) => ({
    piece,
    name: { step: 's', entity: `e${i}`, role: 'drawn' as const },
  }))
  return profileOf(edges, 's').section
}

function bySketch(): Part {
  const part = createPart({ name: 'Ink flask' })
  const sketch = part.sketches[0]?.id ?? ''
  return run(
    part,
    drawDraft('draw', sketch, {
      points: {
        '~o': { at: vec(0, 0), point: ORIGIN_ID },
        '~a': { at: vec(0, 18) },
        '~h': { at: vec(22, 34) },
        '~k': { at: vec(26, 3) },
        '~b': { at: vec(52, 9) },
        '~c': { at: vec(60, 9) },
        '~d': { at: vec(60, 0) },
      },
      entities: [
        { id: '~1', kind: 'line', from: '~o', to: '~a', role: 'outline' },
        {
          ...{ id: '~2', kind: 'curve', from: '~a', to: '~b', role: 'outline' },
          ...{ fromHandle: '~h', toHandle: '~k' },
        },
        { id: '~3', kind: 'line', from: '~b', to: '~c', role: 'outline' },
        { id: '~4', kind: 'line', from: '~c', to: '~d', role: 'outline' },
      ],
    }),
    addRevolve(sketch),
  )
}

describe('a section of free curves', () => {
  test('is lifted with its exact volume, area and moments, and is watertight', () => {
    const built = kernel.build({ base: flask(), ops: [] }, 0.05)
    const exact = solidProperties(flask())
    expect(built.valid).toBe(true)
    const { figures } = built
    expect((figures?.volume ?? 0) / (exact?.volume ?? 1)).toBeCloseTo(1, 10)
    expect((figures?.area ?? 0) / (exact?.area ?? 1)).toBeCloseTo(1, 9)
    expect(figures?.centreX).toBeCloseTo(exact?.centreX ?? 0, 7)
    expect((figures?.inertiaAxis ?? 0) / (exact?.inertiaAxis ?? 1)).toBeCloseTo(1, 9)
    expect(watertight(built.mesh)).toBe(true)
  })

  test('is drilled across: the hole ends on the curve on both sides', () => {
    const [radius, at] = [3, 20]
    const drill: SolidTool = {
      kind: 'turned',
      section: outline('h', [0, 0], [200, 0], [200, radius], [0, radius]),
      frame: { at: place(-100, 0, at), x: place(0, 1, 0), z: place(1, 0, 0) },
      mark: '',
    }
    const ops = [{ kind: 'combine' as const, step: 'h', effect: 'cut' as const, tools: [drill] }]
    const built = kernel.build({ base: flask(), ops }, 0.05)
    expect(built.valid).toBe(true)
    expect(watertight(built.mesh)).toBe(true)
    // Slice by slice along the axis, the hole takes a strip out of a disc.
    const outside = simplePieces(SIDE).flatMap((piece) => coursesOf(piece, 'x'))
    const slices = 20_000
    let taken = 0
    for (let i = 0; i < slices; i++) {
      const x = at - radius + ((i + 0.5) * 2 * radius) / slices
      const half = Math.sqrt(radius * radius - (x - at) * (x - at))
      const r = outside.find((c) => c.low <= x && x <= c.high)?.at(x) ?? 0
      const strip = 2 * (half * Math.sqrt(r * r - half * half) + r * r * Math.asin(half / r))
      taken += (strip * 2 * radius) / slices
    }
    const whole = solidProperties(flask())?.volume ?? 0
    expect((built.figures?.volume ?? 0) / (whole - taken)).toBeCloseTo(1, 6)
  })
})

describe('a part drawn with a free curve', () => {
  test('goes out as STEP and comes back as that curve, in ink', () => {
    const part = bySketch()
    const state = evaluate(part)
    const volume = state.bodies[0]?.solid?.volume ?? 0
    expect(volume).toBeCloseTo(solidProperties(flask())?.volume ?? 1, 6)
    for (const text of [
      writeStep(state, new Date('2026-11-02T10:42:00Z')),
      builtGeometry(kernel, state, 0.05).step,
    ]) {
      if (text === undefined) throw new Error('there is nothing to write')
      const [solid] = kernel.read(text)
      expect((solid?.volume ?? 0) / volume).toBeCloseTo(1, 8)
      const { part: found, solids } = recoverPart('Came in', kernel.read(text), packText(text))
      expect(solids).toMatchObject([{ isTurned: true, isKept: false }])
      const kinds = found.sketches.flatMap((s) => s.entities.map((e) => e.kind))
      expect(kinds).toContain('curve')
      expect(kinds).not.toContain('arc')
      const state = evaluate(found)
      // Sizes are told to a millionth of a millimetre.
      expect((state.bodies[0]?.solid?.volume ?? 0) / volume).toBeCloseTo(1, 7)
      expect([...state.sketches.values()].map((s) => s.solution.freedoms)).toEqual([0])
    }
  })
})

describe('a part with a free curve of many places', () => {
  const SKETCH = 'sketch2'
  const BELLY = [
    [0, 22],
    [18, 36],
    [40, 33],
    [62, 12],
    [80, 15],
  ] as const
  const ended = (x: number, y: number, on?: string): End => ({
    at: vec(x, y),
    ...(on === undefined ? {} : { on: [on] }),
  })
  const drawn = (way: 'through' | 'frame'): Part => {
    const part = run(
      createPart({ name: 'Ink bottle' }),
      drawChain(SKETCH, [ended(0, 0, AXIS_ID), ended(0, 22)], [['radial']]),
    )
    const corner = part.sketches[0]?.points[1]?.id ?? ''
    const belly = BELLY.slice(1).map(([x, y]) => ended(x, y))
    const side = run(
      part,
      drawCurve({
        ...{ sketch: SKETCH, way, role: 'outline', square: false },
        places: [{ at: { x: 0, y: 22 }, point: corner }, ...belly],
      }),
    )
    const mouth = side.sketches[0]?.entities.at(-1)
    const end = mouth?.kind === 'spline' ? mouth.to : ''
    return run(
      side,
      drawChain(SKETCH, [{ at: { x: 80, y: 15 }, point: end }, ended(80, 0, AXIS_ID)], [[]]),
      addRevolve(SKETCH),
    )
  }

  test.each(['through', 'frame'] as const)(
    '%s: goes out as one surface and comes back as one curve over a frame, of its size',
    (way) => {
      const state = evaluate(drawn(way))
      const volume = state.bodies[0]?.solid?.volume ?? 0
      const text = writeStep(state, new Date('2026-11-02T10:42:00Z'))
      if (text === undefined) throw new Error('there is something to write')
      expect(text.match(/SURFACE_OF_REVOLUTION/g)).toHaveLength(1)
      const [solid] = kernel.read(text)
      // Two ends and the side.
      expect(solid?.faces).toHaveLength(3)
      expect((solid?.volume ?? 0) / volume).toBeCloseTo(1, 9)
      const poles = solid?.faces.flatMap((f) => f.spline?.poles ?? []) ?? []
      if (way === 'frame') {
        expect(poles).toHaveLength(BELLY.length)
        poles.forEach(({ x, y, z }, i) => {
          // The outline runs round the material the other way.
          const drawn = BELLY[BELLY.length - 1 - i]
          expect(Math.hypot(x, y)).toBeCloseTo(drawn?.[1] ?? NaN, 9)
          expect(z).toBeCloseTo(drawn?.[0] ?? NaN, 9)
        })
      }
      const { part: found } = recoverPart('Came in', kernel.read(text), packText(text))
      const entities = found.sketches.flatMap((s) => s.entities)
      expect(entities.map((e) => e.kind).sort()).toEqual(['line', 'line', 'spline'])
      const curve = entities.find((e) => e.kind === 'spline')
      const asked = way === 'frame' ? 3 : 5
      expect(curve?.kind === 'spline' && [curve.way, curve.by.length]).toEqual(['frame', asked])
      const again = evaluate(found)
      expect((again.bodies[0]?.solid?.volume ?? 0) / volume).toBeCloseTo(1, 7)
    },
  )
})

import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import {
  AXIS_ID,
  addRevolve,
  addStep,
  createPart,
  distance,
  drawChain,
  drawCurve,
  edgesOf,
  evaluate,
  lengthOf,
  locator,
  nearestOn,
  offeredRidges,
  piecesOf,
  placePoints,
  pointAt,
  readPart,
  tangentAt,
  toDocument,
  type End,
  type NewStep,
  type Part,
  type Piece,
  type SectionEdge,
  type Vec,
} from '../src'
import { must, sketchOf } from './support/parts'

const SKETCH = 'sketch2'
const at = (x: number, y: number, more: Partial<End> = {}): End => ({ at: { x, y }, ...more })
const onAxis = (x: number): End => at(x, 0, { on: [AXIS_ID] })

/** A solid with one slanted or level side of lines. */
const block = (left: number, right: number): Part =>
  must(
    createPart({ name: 'Setting knob' }),
    drawChain(SKETCH, [onAxis(0), at(0, left), at(60, right), onAxis(60)], [[], [], []]),
    addRevolve(SKETCH),
  )

/** A pot whose side is a free curve, between two flat ends. */
function pot(): Part {
  const foot = must(createPart({ name: 'Pot' }), drawChain(SKETCH, [onAxis(0), at(0, 25)], [[]]))
  const end = sketchOf(foot).points.at(-1)?.id ?? ''
  const side = must(
    foot,
    drawCurve({
      ...{ sketch: SKETCH, way: 'through', role: 'outline', square: false },
      places: [at(0, 25, { point: end }), at(25, 42), at(60, 38), at(90, 30)],
    }),
  )
  const curve = sketchOf(side).entities.at(-1)
  const mouth = curve?.kind === 'spline' ? curve.to : ''
  return must(
    side,
    drawChain(SKETCH, [at(90, 30, { point: mouth }), onAxis(90)], [[]]),
    addRevolve(SKETCH),
  )
}

const edges = (part: Part): readonly SectionEdge[] => {
  const section = evaluate(part).bodies[0]?.section
  return section ? edgesOf(section) : []
}
const volume = (part: Part): number => evaluate(part).bodies[0]?.solid?.volume ?? NaN
/** The edge that reaches farthest out: the side. */
const side = (part: Part): SectionEdge => {
  const all = edges(part).filter((e) => Math.abs(e.piece.from.x - e.piece.to.x) > 1)
  const out = all.sort((a, b) => pointAt(b.piece, 0.5).y - pointAt(a.piece, 0.5).y)[0]
  if (!out) throw new Error('there is a side')
  return out
}

function ridged(part: Part, more: Partial<Extract<NewStep, { kind: 'ridges' }>> = {}): Part {
  const section = evaluate(part).bodies[0]?.section
  if (!section) throw new Error('there is a body')
  const step = { ...offeredRidges('body1', side(part), section, part.units), ...more } as NewStep
  return must(part, addStep(step))
}
const last = (part: Part) => evaluate(part).steps.at(-1)

describe('ridges', () => {
  test.each([
    [20, 20, 'out'],
    [20, 20, 'in'],
    [24, 16, 'out'],
    [24, 16, 'in'],
  ] as const)('from ⌀%d to ⌀%d, %s: vees add what Pappus says', (left, right, way) => {
    const plain = block(left, right)
    const [count, height] = [10, 1.2]
    const made = ridged(plain, {
      ...{ shape: 'vee', side: way, count: String(count), height: String(height) },
    })
    expect(last(made)?.status).toBe('done')
    const length = Math.hypot(60, right - left)
    const out = { x: (left - right) / length, y: 60 / length }
    const sign = way === 'out' ? 1 : -1
    let added = 0
    for (let i = 0; i < count; i++) {
      const middle = left + ((right - left) * (i + 0.5)) / count
      // The centroid of a triangle lies a third of its height above its foot.
      const radius = middle + (sign * out.y * height) / 3
      added += 2 * Math.PI * radius * ((length / count) * height) * 0.5
    }
    expect((volume(made) - volume(plain)) / (sign * added)).toBeCloseTo(1, 9)
  })

  test('round ones are segments of circles, waves are cosines to within a hundredth of their height', () => {
    const plain = block(20, 20)
    const round = ridged(plain, { shape: 'round', count: '6', height: '3' })
    const [half, high] = [5, 3]
    const radius = (half ** 2 + high ** 2) / (2 * high)
    const arcs = edges(round).filter((e) => e.piece.kind === 'arc')
    expect(arcs).toHaveLength(6)
    for (const { piece } of arcs) {
      expect(piece.kind === 'arc' && distance(piece.centre, piece.from)).toBeCloseTo(radius, 9)
    }
    const wave = ridged(plain, { shape: 'wave', count: '6', height: '3' })
    const waves = edges(wave).filter((e) => e.piece.kind === 'cubic')
    expect(waves.length).toBeGreaterThanOrEqual(12)
    for (const { piece } of waves) {
      for (const t of [0, 0.25, 0.5, 0.75, 1]) {
        const p = pointAt(piece, t)
        const wanted = 20 + 1.5 * (1 - Math.cos((2 * Math.PI * p.x) / 10))
        expect(Math.abs(p.y - wanted)).toBeLessThan(0.03)
      }
    }
  })

  test.each(['round', 'vee', 'wave'] as const)(
    'of shape %s stand on a free surface, evenly by the length along it, and square to it',
    (shape) => {
      const plain = pot()
      const made = ridged(plain, { shape, count: '14', height: '1.5' })
      expect(last(made)?.status).toBe('done')
      const curve = sketchOf(plain).entities.find((e) => e.kind === 'spline')
      if (!curve) throw new Error('it is drawn')
      const base: readonly Piece[] = piecesOf(curve, locator(sketchOf(plain)))
      const off = (p: Vec): number => Math.min(...base.map((b) => nearestOn(b, p).distance))
      const own = edges(made).filter((e) => e.name.entity.startsWith('ridge'))
      const feet = own
        .flatMap((e) => [e.piece.from, e.piece.to])
        .filter((p) => off(p) < 1e-5)
        .map((p) => farAlong(base, p))
      const whole = base.reduce((s, p) => s + lengthOf(p), 0)
      feet.forEach((far) => {
        const steps = far / (whole / 14)
        expect(Math.abs(steps - Math.round(steps))).toBeLessThan(1e-4)
      })
      expect(
        Math.max(...own.map((e) => off(pointAt(e.piece, shape === 'round' ? 0.5 : 1)))),
      ).toBeCloseTo(1.5, 3)
      expect(volume(made)).toBeGreaterThan(volume(plain))
      expect(volume(ridged(plain, { shape, side: 'in', height: '1.5' }))).toBeLessThan(
        volume(plain),
      )
    },
  )

  test('property: of any number and height they stand, or are refused, and never take away what they should add', () => {
    const plain = pot()
    const whole = volume(plain)
    fc.assert(
      fc.property(
        fc.constantFrom('round', 'vee', 'wave') as fc.Arbitrary<'round' | 'vee' | 'wave'>,
        fc.constantFrom('out', 'in') as fc.Arbitrary<'out' | 'in'>,
        fc.integer({ min: 1, max: 60 }),
        fc.integer({ min: 2, max: 40 }),
        (shape, way, count, tenths) => {
          const more = { shape, side: way, count: String(count), height: String(tenths / 10) }
          const made = ridged(plain, more)
          const state = last(made)
          if (state?.status !== 'done') {
            return ['ridges.high', 'ridges.crossing', 'ridges.wide'].includes(
              state?.problem?.code ?? '',
            )
          }
          return way === 'out' ? volume(made) > whole : volume(made) < whole
        },
      ),
      { numRuns: 60 },
    )
  })

  test('by a pitch fill their face evenly, and say how many they are', () => {
    const made = ridged(block(20, 20), { by: 'pitch', pitch: '7', shape: 'vee', height: '1' })
    expect(last(made)?.notes.join()).toContain('9 at a pitch of 6.667 mm')
    const crests = new Set(
      edges(made)
        .flatMap((e) => [e.piece.from, e.piece.to])
        .filter((p) => p.y > 20.5)
        .map((p) => p.x.toFixed(6)),
    )
    expect(crests.size).toBe(9)
  })

  test('fade towards the ends of their face', () => {
    const made = ridged(block(20, 20), { shape: 'vee', count: '12', height: '2', fade: '15' })
    const crests = edges(made)
      .filter((e) => e.name.entity.startsWith('ridge') && tangentAt(e.piece, 0).y !== 0)
      .flatMap((e) => [e.piece.from, e.piece.to])
      .filter((p) => p.y > 20 + 1e-6)
    for (const { x, y } of crests) {
      expect(y - 20).toBeCloseTo(2 * Math.min(1, Math.min(x, 60 - x) / 15), 6)
    }
  })

  test('that cannot stand are refused with a mend, and follow what changes before', () => {
    const plain = block(20, 20)
    const code = (more: Parameters<typeof ridged>[1]): string | undefined =>
      last(ridged(plain, more))?.problem?.code
    expect(code({ count: '0' })).toBeDefined()
    expect(code({ count: '501' })).toBe('ridges.many')
    expect(code({ by: 'pitch', pitch: '0.01' })).toBe('ridges.many')
    expect(code({ fade: '40' })).toBe('ridges.fade')
    expect(code({ shape: 'round', count: '30', height: '1.1' })).toBe('ridges.high')
    expect(code({ side: 'in', count: '2', height: '22', shape: 'vee' })).toBe('ridges.crossing')
    expect(code({ on: 'step1/gone' })).toBe('step.lost')
    expect(code({ height: '-1' })).toBeDefined()
    const made = ridged(plain)
    const read = readPart(toDocument(made))
    expect(read.ok && read.value).toEqual(made)
    // They stay on their face when it changes.
    const [point] = sketchOf(made).points.filter((p) => p.y === 20)
    const wider = must(made, placePoints(SKETCH, [point?.id ?? ''], { y: 26 }))
    expect(last(wider)?.status).toBe('done')
    expect(volume(wider)).toBeGreaterThan(volume(made))
  })
})

/** How far along pieces a place on them lies, in mm. */
function farAlong(pieces: readonly Piece[], place: Vec): number {
  let before = 0
  for (const piece of pieces) {
    const near = nearestOn(piece, place)
    if (near.distance < 1e-4) {
      const n = 4000
      let along = 0
      for (let i = 0; i < n; i++) {
        along += distance(pointAt(piece, (near.t * i) / n), pointAt(piece, (near.t * (i + 1)) / n))
      }
      return before + along
    }
    before += lengthOf(piece)
  }
  return NaN
}

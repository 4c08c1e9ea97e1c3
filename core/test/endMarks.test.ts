import { describe, expect, it } from 'vitest'
import {
  METRIC,
  ORIGIN_ID,
  PART_FRAME,
  SECTION_ID,
  addRevolve,
  addSketch,
  addStep,
  arc,
  changeSize,
  cornersOf,
  createPart,
  drawPiece,
  edgesOf,
  endMarkAt,
  endMarks,
  endMarksBefore,
  evaluate,
  faceWords,
  line,
  locator,
  lostCorners,
  offeredCrossHole,
  offeredHoles,
  offeredSlot,
  offeredStep,
  place,
  prismTool,
  removeStep,
  steppedShaft,
  drawDraft,
  vec,
  type BodyTool,
  type EndMark,
  type EndMarks,
  type EndRing,
  type NewStep,
  type Part,
  type Section,
  type SectionEdge,
  type Sketch,
  type SketchPlane,
  type SolidOp,
  type SolidPlan,
  type SolidTool,
  isEndSketch,
} from '../src'
import { must } from './support/parts'
import { outlineOf, rectangle } from './support/sections'

/** A spindle of ⌀40 × 20 and ⌀20 × 30. */
function spindle(): Part {
  const part = createPart({ name: 'Spindle' })
  const lands = [
    [40, 20],
    [20, 30],
  ].map(([d = 0, l = 0]) => ({
    diameter: { formula: String(d), value: d },
    length: { formula: String(l), value: l },
  }))
  const sketch = part.sketches[0]?.id ?? ''
  const draft = steppedShaft({ at: { x: 0, y: 0 }, on: [ORIGIN_ID] }, lands)
  return must(part, drawDraft('draw spindle', sketch, draft), addRevolve(sketch))
}

const section = (part: Part) => evaluate(part).bodies[0]?.section ?? { regions: [] }
function face(part: Part, words: string): SectionEdge {
  const found = edgesOf(section(part)).find((e) => faceWords(e, METRIC) === words)
  if (!found) throw new Error(`there is no ${words}`)
  return found
}
const lastSketch = (part: Part): Sketch => {
  const sketch = part.sketches.at(-1)
  if (!sketch) throw new Error('there is no sketch')
  return sketch
}
function marksOf(part: Part): EndMarks {
  const sketch = lastSketch(part)
  if (!isEndSketch(sketch)) throw new Error('it is a profile')
  const [marks] = endMarksBefore(part, evaluate(part), sketch)
  if (!marks) throw new Error('there is no body')
  return marks
}
const seenFrom = (part: Part, plane: SketchPlane): EndMarks => marksOf(must(part, addSketch(plane)))
const radiiAbout = (marks: EndMarks, x: number, y: number): number[] =>
  marks.rings
    .filter((r) => Math.hypot(r.middle.at.x - x, r.middle.at.y - y) < 1e-9)
    .map((r) => r.rim.at.x - r.middle.at.x)
    .sort((a, b) => a - b)
const holes = (part: Part, more: object): NewStep => ({
  ...offeredHoles('body1', face(part, 'face at 20'), section(part), METRIC),
  ...{ circle: '30', count: '4', start: '0', diameter: '6', ...more },
})

/** A line from the rim of a ring to a place out there, tied to the ring. */
const lineFrom = (part: Part, ring: EndRing, x: number, y: number): Part => {
  const link = { profile: SECTION_ID, item: ring.rim.key, ring }
  return must(
    part,
    drawPiece({
      sketch: lastSketch(part).id,
      role: 'outline',
      from: { at: ring.rim.at, link },
      to: { at: { x, y } },
    }),
  )
}
const rimOf = (part: Part) => {
  const sketch = lastSketch(part)
  const circle = sketch.entities.find((e) => e.kind === 'circle')
  if (circle?.kind !== 'circle') throw new Error('there is no circle')
  const locate = locator(sketch)
  return { middle: locate(circle.centre), rim: locate(circle.rim), role: circle.role }
}

describe('the part seen from the end, to build on', () => {
  it('shows the circles of a full turn, each once', () => {
    const marks = seenFrom(spindle(), 'end')
    expect(radiiAbout(marks, 0, 0)).toEqual([10, 20])
    expect(marks.points).toEqual([])
    // Of corners on one circle each is found again, also where another is drawn for it.
    const part = spindle()
    for (const { key, at } of cornersOf(section(part))) {
      expect(endMarkAt(marks, key)).toEqual({ x: at.y, y: 0 })
    }
  })

  it('shows holes with their middles, up where the half-section is', () => {
    const part = spindle()
    const drilled = must(part, addStep(holes(part, { count: '1' })))
    const right = seenFrom(drilled, 'end')
    expect(radiiAbout(right, 0, 15)).toEqual([3])
    const quarter = must(part, addStep(holes(part, { count: '1', start: '90' })))
    // A quarter turn on lies to the left from the right, to the right from the left.
    expect(radiiAbout(seenFrom(quarter, 'end'), -15, 0)).toEqual([3])
    expect(radiiAbout(seenFrom(quarter, 'lesserEnd'), 15, 0)).toEqual([3])
    expect(seenFrom(must(part, addStep(holes(part, {}))), 'end').points).toHaveLength(4)
  })

  it('shows flats and keyways by their edges, cross holes by their middle line', () => {
    const part = spindle()
    const cylinder = face(part, 'cylinder ⌀20')
    const flats = {
      ...offeredStep('flats', 'body1', section(part), undefined, METRIC),
      ...{ count: '2', size: '16', measure: 'across', phase: '0' },
    } as NewStep
    const level = (marks: EndMarks, y: number): boolean =>
      marks.lines.some(([a, b]) => Math.abs(a.at.y - y) + Math.abs(b.at.y - y) < 1e-9)
    const flat = seenFrom(must(part, addStep(flats)), 'end')
    expect(level(flat, 8) && level(flat, -8)).toBe(true)
    const keyway = {
      ...offeredSlot('body1', cylinder, 'keyway', METRIC),
      ...{ width: '6', depth: '3', phase: '0' },
    } as NewStep
    const key = seenFrom(must(part, addStep(keyway)), 'end')
    expect(level(key, 7)).toBe(true)
    expect(key.points.some(({ at }) => Math.hypot(at.x - 3, at.y - 7) < 1e-9)).toBe(true)
    const cross = { ...offeredCrossHole('body1', cylinder, section(part), METRIC) } as NewStep
    const upright = ([a, b]: readonly [EndMark, EndMark]): boolean =>
      Math.abs(a.at.x) + Math.abs(b.at.x) < 1e-9
    expect(seenFrom(must(part, addStep(cross)), 'end').lines.some(upright)).toBe(true)
  })
})

describe('what is drawn on it', () => {
  it('follows a circle of the section', () => {
    const part = must(spindle(), addSketch('end'))
    const ring = marksOf(part).rings.find((r) => r.rim.at.x === 10)
    if (!ring) throw new Error('there is no ring')
    const drawn = lineFrom(part, ring, 30, 5)
    expect(rimOf(drawn)).toMatchObject({ rim: { x: 10, y: 0 }, role: 'construction' })
    const state = evaluate(drawn).sketches.get(lastSketch(drawn).id)
    expect(state?.solution.disagreements).toEqual([])
    // The ring stands; the line has its far end, and where it begins on the ring.
    expect(state?.solution.freedoms).toBe(3)
    const first = drawn.sketches[0]
    const size = first?.sizes.find((s) => s.formula === '20' && s.kind === 'diameter')
    if (!first || !size) throw new Error('there is no size of 20')
    const wider = must(drawn, changeSize(first.id, size.id, '26'))
    expect(rimOf(wider).rim.x).toBeCloseTo(13, 9)
    // Used twice it is one circle.
    const twice = lineFrom(drawn, ring, -30, 5)
    expect(lastSketch(twice).entities.filter((e) => e.kind === 'circle')).toHaveLength(1)
  })

  it('follows a hole of an earlier step, and tells when that goes', () => {
    const part = spindle()
    const drilled = must(must(part, addStep(holes(part, { count: '1' }))), addSketch('end'))
    const ring = marksOf(drilled).rings.find((r) => r.middle.at.y > 1)
    if (!ring) throw new Error('there is no ring')
    const drawn = lineFrom(drilled, ring, 30, 5)
    expect(rimOf(drawn).middle).toMatchObject({ x: 0, y: 15 })
    const id = drawn.route.at(-1)?.id ?? ''
    const gone = must(drawn, removeStep(id))
    expect(lostCorners(gone, evaluate(gone), lastSketch(gone))).toHaveLength(2)
    // It stays where it was.
    expect(rimOf(gone).middle.y).toBeCloseTo(15, 9)
  })
})

describe('what was brought, swept or leans, seen from the end', () => {
  const cut = (...tools: readonly SolidTool[]): SolidOp[] => [
    { kind: 'combine', step: 's', effect: 'cut', tools },
  ]
  const plan = (base: Section, ...tools: readonly SolidTool[]): SolidPlan => ({
    base,
    ops: cut(...tools),
  })
  const shaft = (radius: number): Section => rectangle(0, 0, 30, radius)
  const hole: SolidTool = {
    ...{ kind: 'turned', section: shaft(2), mark: '' },
    frame: { at: place(6, 0, 0), x: place(1, 0, 0), z: place(0, 0, 1) },
  }
  const body = (more: Partial<BodyTool>): SolidTool => ({
    ...{ kind: 'body', plan: plan(shaft(10), hole), frame: PART_FRAME, mark: '' },
    ...more,
  })
  const seen = (tool: SolidTool): EndMarks => endMarks(shaft(20), plan(shaft(20), tool), PART_FRAME)

  it('shows a body that was moved beside, turned and mirrored, with its holes', () => {
    // A quarter turn brings the hole up; the body stands 50 to the right.
    const frame = { at: place(50, 0, 7), x: place(0, 1, 0), z: place(0, 0, 1) }
    const moved = seen(body({ frame }))
    expect(radiiAbout(moved, 0, 0)).toEqual([20])
    expect(radiiAbout(moved, 50, 0)).toEqual([10])
    expect(radiiAbout(moved, 50, 6)).toEqual([2])
    const mirror = { at: place(0, 0, 0), normal: place(1, 0, 0) }
    expect(radiiAbout(seen(body({ frame, mirror })), 50, -6)).toEqual([2])
    // Keys hold while it moves on.
    const farther = seen(body({ frame: { ...frame, at: place(60, 0, 7) } }))
    const key = moved.rings.find((r) => r.middle.at.y > 5)?.rim.key ?? ''
    expect(endMarkAt(moved, key)).toEqual({ x: 52, y: 6 })
    expect(endMarkAt(farther, key)).toEqual({ x: 62, y: 6 })
    // One that lies across shows no circles.
    const across = { at: place(50, 0, 0), x: place(0, 1, 0), z: place(1, 0, 0) }
    expect(seen(body({ frame: across })).rings).toHaveLength(1)
  })

  it('shows the middle line of a rod, and where its pieces end', () => {
    const swept: SolidTool = {
      ...{ kind: 'swept', outline: shaft(1), without: { regions: [] }, mark: '' },
      path: [
        line({ x: 5, y: 20 }, { x: 5, y: 40 }),
        arc({ x: 5, y: 40 }, { x: 15, y: 40 }, { x: 10, y: 40 }, false),
      ],
      // Its second direction lies across the axis, its first along it.
      frame: { at: place(0, 0, 0), x: place(0, 0, 1), z: place(0, 1, 0) },
    }
    const { lines, points } = seen(swept)
    const ends = lines.map((l) => l.map((m) => m.at.x).sort((a, b) => a - b))
    expect(ends).toEqual([[20, 40]])
    expect(points.map((p) => p.at.x).sort((a, b) => a - b)).toEqual([20, 40])
  })

  it('shows leaning sides where they were drawn', () => {
    const square = outlineOf([vec(5, 5), vec(9, 5), vec(9, 9), vec(5, 9)].map((at) => ({ at })))
    const upright = prismTool(square, PART_FRAME, 0, 12, '')
    const leaning: SolidTool = { ...upright, draft: { angle: 0.2, at: 12 } } as SolidTool
    const lines = (marks: EndMarks) =>
      marks.lines.map((l) => l.map(({ at }) => `${at.x} ${at.y}`).sort()).sort()
    expect(lines(seen(leaning))).toEqual(lines(seen(upright)))
    expect(lines(seen(leaning))).toHaveLength(4)
  })
})

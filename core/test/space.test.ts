import * as fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import {
  PART_FRAME,
  addPlaces,
  barOf,
  byAngle,
  byLength,
  circleOf,
  crossPlaces,
  edgeKey,
  edgesOf,
  NOTHING_FOUND,
  foundFor,
  greatestRadius,
  halfPlane,
  inFrame,
  integrate,
  keySizes,
  latheMesh,
  lookingAlong,
  lookingIn,
  lookingOut,
  materialAlong,
  meshOutline,
  meshBends,
  movedFrame,
  withFound,
  outwards,
  place,
  planKey,
  planKeys,
  prismTool,
  rectangleOf,
  repeatedOp,
  secondOf,
  sliceMesh,
  slotOf,
  turned,
  turnedFrame,
  turnedOps,
  turnedTool,
  vec,
  type Frame,
  type Section,
  type SolidMesh,
  type SolidOp,
  type SolidPlan,
  type Vec,
  type EdgesOf,
} from '../src'
import { anySection, outlineOf, rectangle } from './support/sections'

const angle = fc.integer({ min: -720, max: 720 }).map((d) => (d * Math.PI) / 360)
const isUnit = ({ x, y, z }: { x: number; y: number; z: number }): void =>
  expect(Math.hypot(x, y, z)).toBeCloseTo(1, 12)

function isFrame({ x, z }: Frame): void {
  isUnit(x)
  isUnit(z)
  expect(x.x * z.x + x.y * z.y + x.z * z.z).toBeCloseTo(0, 12)
}

const areaOf = (section: Section): number =>
  edgesOf(section).reduce((sum, e) => sum + integrate(e.piece, 0).area, 0)
const loopArea = (loop: readonly Vec[]): number =>
  loop.reduce((sum, p, i) => {
    const q = loop[(i + 1) % loop.length] ?? p
    return sum + (p.x * q.y - q.x * p.y) / 2
  }, 0)

/** A turned section as a solid's mesh, its faces named by their numbers. */
function meshOf(section: Section, chord = 0.01): SolidMesh {
  const mesh = latheMesh(section, chord)
  return {
    ...mesh,
    faces: mesh.faces.map((f) => ({ name: `s/e${f.edge}`, start: f.start, count: f.count })),
  }
}

describe('frames', () => {
  test('stay right-handed however they are turned and moved', () => {
    fc.assert(
      fc.property(angle, angle, fc.integer({ min: -90, max: 90 }), (a, b, along) => {
        for (const frame of [
          PART_FRAME,
          halfPlane(a),
          lookingOut(a, along),
          lookingIn(a, along, 12),
          lookingAlong(place(3, 4, along), -1, a),
        ]) {
          isFrame(frame)
          isFrame(turnedFrame(frame, b))
          const { x, y, z } = crossPlaces(frame.x, secondOf(frame))
          expect(
            [x - frame.z.x, y - frame.z.y, z - frame.z.z].every((d) => Math.abs(d) < 1e-12),
          ).toBe(true)
        }
      }),
    )
  })

  test('look where they say', () => {
    const out = inFrame(lookingOut(Math.PI / 2, 7), place(2, 0, 5))
    expect([out.x, out.y, out.z]).toEqual([expect.closeTo(0, 12), expect.closeTo(5, 12), 9])
    const inwards = inFrame(lookingIn(0, 3, 10), place(0, 0, 4))
    expect([inwards.x, inwards.y, inwards.z]).toEqual([6, expect.closeTo(0, 12), 3])
    // The half-plane of an angle: x along the axis, y out at the angle.
    const at = inFrame(halfPlane(Math.PI), place(8, 5, 0))
    expect([at.x, at.y, at.z]).toEqual([-5, expect.closeTo(0, 12), 8])
    expect(addPlaces(outwards(0), place(1, 2, 3))).toEqual(place(2, 2, 3))
    expect(turned(place(1, 0, 4), Math.PI / 2).y).toBeCloseTo(1, 12)
    expect(movedFrame(PART_FRAME, 6).at).toEqual(place(0, 0, 6))
  })
})

describe('outlines of tools', () => {
  test('run counter-clockwise and have their areas', () => {
    expect(areaOf(rectangleOf('s', vec(-1, -2), vec(3, 5)))).toBeCloseTo(28, 12)
    expect(areaOf(slotOf('s', 0, 30, 8))).toBeCloseTo(22 * 8 + 16 * Math.PI, 9)
    expect(areaOf(circleOf('s', 6))).toBeCloseTo(9 * Math.PI, 9)
    expect(areaOf(barOf('s', 10, 6, 2))).toBeCloseTo(60 - (4 - Math.PI) * 4, 9)
    expect(areaOf(barOf('s', 10, 6, 0))).toBeCloseTo(60, 12)
  })
})

describe('plans', () => {
  const base = rectangle(0, 0, 30, 10)
  const op = (depth: number): SolidOp => ({
    ...{ kind: 'combine', step: 'h', effect: 'cut' },
    tools: [turnedTool(rectangleOf('h', vec(0, 0), vec(depth, 2)), PART_FRAME)],
  })
  const plan = (...depths: readonly number[]): SolidPlan => ({ base, ops: depths.map(op) })

  test('are the same by what is in them, and share the keys of what they have in common', () => {
    expect(planKey(plan(5, 6))).toBe(
      planKey({ base: rectangle(0, 0, 30, 10), ops: [op(5), op(6)] }),
    )
    expect(planKey(plan(5))).not.toBe(planKey(plan(6)))
    expect(planKey(plan(5, 6))).not.toBe(planKey(plan(6, 5)))
    expect(planKeys(plan(5, 6)).slice(0, 2)).toEqual(planKeys(plan(5, 7)).slice(0, 2))
    expect(planKeys(plan(5, 6))).toHaveLength(3)
    fc.assert(
      fc.property(anySection('s'), anySection('s'), (a, b) => {
        const same = JSON.stringify(a) === JSON.stringify(b)
        expect(planKey({ base: a, ops: [] }) === planKey({ base: b, ops: [] })).toBe(same)
      }),
    )
  })

  test('keep what was found of them, by content', () => {
    expect(foundFor(NOTHING_FOUND, plan(3.25))).toBeUndefined()
    const problem = { code: 'kernel.test', message: 'No.', mend: 'Change it.' }
    const found = withFound(NOTHING_FOUND, plan(3.25), { ok: false, problem })
    expect(foundFor(found, plan(3.25))).toEqual({ ok: false, problem })
    expect(foundFor(found, plan(3.26))).toBeUndefined()
    expect(NOTHING_FOUND.plans.size).toBe(0)
    // Of very many the newest are kept.
    let many = found
    for (let i = 0; i < 2100; i++) many = withFound(many, plan(i), { ok: false, problem })
    expect(many.plans.size).toBe(2000)
    expect(foundFor(many, plan(3.25))).toBeUndefined()
    expect(foundFor(many, plan(2099))).toBeDefined()
  })

  test('are repeated with their tools moved and marked', () => {
    const prism: SolidOp = {
      ...{ kind: 'combine', step: 'f', effect: 'cut' },
      tools: [prismTool(base, PART_FRAME, 0, 5, '@1')],
    }
    const sources = new Map([['f', [prism]]])
    const as = (n: number) => ({ step: 'r', mark: `@r.${n}`, sources })
    const again = repeatedOp(prism, as(2), byAngle(Math.PI / 2))
    expect(again).toMatchObject({ step: 'r', tools: [{ mark: '@1@r.2', from: 0, to: 5 }] })
    const along = repeatedOp(prism, as(3), byLength(12))
    expect(along).toMatchObject({ tools: [{ frame: { at: { x: 0, y: 0, z: 12 } } }] })
    const facets: SolidOp = {
      ...{ kind: 'combine', step: 'p', effect: 'add' },
      tools: [{ kind: 'facets', section: base, sides: 6, phase: 0, mark: '' }],
    }
    expect(repeatedOp(facets, as(2), byAngle(1))).toMatchObject({ tools: [{ phase: 1 }] })
    const shell: SolidOp = { kind: 'shell', step: 'w', thickness: 1, open: [] }
    expect(repeatedOp(shell, as(2), byAngle(1))).toBeUndefined()
  })

  test('on edges go with what is repeated, by the names of its faces', () => {
    const [edge] = edgesOf(base)
    const drawn = edge ? edgeKey(edge.name) : ''
    const step = edge?.name.step ?? ''
    const cut: SolidOp = {
      ...{ kind: 'combine', step, effect: 'cut' },
      tools: [prismTool(base, PART_FRAME, 0, 5, '@1')],
    }
    const as = { step: 'r', mark: '@r.2', sources: new Map<string, SolidOp[]>([[step, [cut]]]) }
    const work = { kind: 'round', radius: 1 } as const
    const on = (of: EdgesOf): SolidOp => ({ kind: 'edges', step: 'e', sets: [{ of, work }] })
    const faces = (a: string, b: string) => on({ kind: 'faces', edges: [{ faces: [a, b] }] })
    // Drawn faces keep their name, others take that of the step that does it again.
    const again = repeatedOp(faces(`${drawn}@1`, `${step}/last@1`), as, byAngle(1))
    expect(again).toMatchObject({
      ...{ step: 'r' },
      sets: [{ of: { edges: [{ faces: [`${drawn}@1@r.2`, `r/last@1@r.2`] }] } }],
    })
    const beside = repeatedOp(faces(`${drawn}@1`, 'base/e7'), as, byAngle(1))
    expect(beside).toMatchObject({
      sets: [{ of: { edges: [{ faces: [`${drawn}@1@r.2`, 'base/e7'] }] } }],
    })
    expect(repeatedOp(faces('base/e6', 'base/e7'), as, byAngle(1))).toBeUndefined()
    const all = repeatedOp(on({ kind: 'step', step }), as, byAngle(1))
    expect(all).toMatchObject({ sets: [{ of: { copy: { by: 'r', mark: '@r.2' } } }] })
    expect(repeatedOp(on({ kind: 'step', step: 'else' }), as, byAngle(1))).toBeUndefined()
  })

  test('of full turns take away what the section lost and add what it gained', () => {
    const empty = { regions: [] }
    expect(turnedOps('s', empty, empty)).toEqual([])
    expect(turnedOps('s', base, empty)).toMatchObject([{ effect: 'cut' }])
    expect(turnedOps('s', base, base)).toMatchObject([{ effect: 'cut' }, { effect: 'add' }])
  })
})

describe('ways through a section', () => {
  const tube = outlineOf([vec(0, 4), vec(30, 4), vec(30, 10), vec(0, 10)].map((at) => ({ at })))

  test('tell where they run in material', () => {
    expect(materialAlong(tube, vec(15, 0), vec(0, 1), 20)).toEqual([
      [expect.closeTo(4, 9), expect.closeTo(10, 9)],
    ])
    expect(materialAlong(tube, vec(-5, 7), vec(1, 0), 50)).toEqual([
      [expect.closeTo(5, 9), expect.closeTo(35, 9)],
    ])
    expect(materialAlong(tube, vec(-5, 12), vec(1, 0), 50)).toEqual([])
  })

  test('and how far out it goes, between two places too', () => {
    const cone = outlineOf([{ at: vec(0, 0) }, { at: vec(20, 0) }, { at: vec(0, 20) }])
    expect(greatestRadius(cone)).toBe(20)
    expect(greatestRadius(cone, 5, 10)).toBeCloseTo(15, 6)
    expect(greatestRadius(tube, 40, 50)).toBe(0)
  })
})

describe('a mesh cut by a plane', () => {
  test('shows the rings of a tube across its axis, hollows the other way round', () => {
    const tube = outlineOf([vec(0, 4), vec(30, 4), vec(30, 10), vec(0, 10)].map((at) => ({ at })))
    const loops = sliceMesh(meshOf(tube, 0.001), {
      ...{ at: place(0, 0, 12), x: place(1, 0, 0), z: place(0, 0, 1) },
    })
    const areas = loops.map(loopArea).sort((a, b) => a - b)
    expect(areas).toHaveLength(2)
    expect((areas[0] ?? 0) / (-16 * Math.PI)).toBeCloseTo(1, 3)
    expect((areas[1] ?? 0) / (100 * Math.PI)).toBeCloseTo(1, 3)
  })

  test('through the axis shows the half-section on both sides', () => {
    fc.assert(
      fc.property(anySection('s'), angle, (section, a) => {
        // Off the planes in which the mesh has its own vertices.
        const loops = sliceMesh(meshOf(section, 0.005), halfPlane(a + 0.0123))
        const total = loops.reduce((sum, l) => sum + loopArea(l), 0)
        expect(total / (2 * areaOf(section))).toBeCloseTo(1, 2)
      }),
      { numRuns: 60 },
    )
  })

  test('beside the part shows nothing', () => {
    const frame = { at: place(0, 0, 99), x: place(1, 0, 0), z: place(0, 0, 1) }
    expect(sliceMesh(meshOf(rectangle(0, 0, 30, 10)), frame)).toEqual([])
  })
})

describe('the outline of a mesh', () => {
  test('of a cylinder from the side is two lines along it, from the end none', () => {
    const rims = meshBends(meshOf(rectangle(0, 0, 30, 10)))
    const side = meshOutline(rims, { along: place(0.31, 0.95, 0) })
    expect(side.length).toBe(12)
    const radii = [0, 3, 6, 9].map((i) => Math.hypot(side[i] ?? 0, side[i + 1] ?? 0))
    for (const r of radii) expect(r).toBeCloseTo(10, 4)
    expect(meshOutline(rims, { along: place(0, 0, 1) }).length).toBe(0)
    expect(meshOutline(rims, { at: place(200, 30, 15) }).length).toBe(12)
  })
})

describe('sizes of keyways and half-round seats', () => {
  test('grow with the shaft, and never come near its axis', () => {
    for (const form of ['keyway', 'woodruff'] as const) {
      let width = 0
      for (let d = 6; d <= 130; d++) {
        const sizes = keySizes(form, d)
        expect(sizes.width).toBeGreaterThanOrEqual(form === 'keyway' ? width : 1)
        expect(sizes.depth).toBeLessThan(d / 2)
        expect(sizes.width).toBeLessThan(d)
        expect(sizes.depth).toBeLessThanOrEqual(sizes.cutter / 2)
        width = sizes.width
      }
    }
    expect(keySizes('keyway', 30)).toMatchObject({ width: 8, depth: 4 })
    expect(keySizes('keyway', 30.1)).toMatchObject({ width: 10, depth: 5 })
  })
})

import { beforeAll, describe, expect, test } from 'vitest'
import { ORIGIN_ID, type SketchPlane } from '@lathica/core/sketch'
import { edgeKey, edgesOf } from '@lathica/core/section'
import type { ExtrudeStep, HolesStep, NewStep, Part } from '@lathica/core/part'
import { evaluate } from '@lathica/core/route'
import {
  addSketch,
  addStep,
  circle,
  drawDraft,
  endExtrudeOf,
  extrudeOf,
  polygon,
  rectangle,
  offeredHoles,
  sketchHoles,
  type Draft,
} from '@lathica/core/edit'
import type { Kernel } from '../src'
import { bodyOf, builtBy, changeBy, key, problemOf, run, spindle } from './support'
import { sharedKernel } from './support/kernel'

let kernel: Kernel
beforeAll(async () => {
  kernel = await sharedKernel()
})

const change = (part: Part): number => changeBy(kernel, part)
const END = 'face at 90'
const SHOULDER = 'face at 20'

/** The spindle of ⌀40, ⌀30 and ⌀20 with an end sketch of its own. */
function sketched(...drafts: readonly Draft[]): { readonly part: Part; readonly id: string } {
  return sketchedFrom('end', ...drafts)
}

function sketchedFrom(
  plane: SketchPlane,
  ...drafts: readonly Draft[]
): { readonly part: Part; readonly id: string } {
  const part = run(spindle(), addSketch(plane))
  const id = part.sketches.at(-1)?.id ?? ''
  return { part: run(part, ...drafts.map((d) => drawDraft('draw', id, d))), id }
}

function extruded(
  effect: 'add' | 'cut',
  words: string,
  more: Partial<ExtrudeStep>,
  ...drafts: readonly Draft[]
): Part {
  return extrudedIn(sketched(...drafts), effect, words, more)
}

function extrudedIn(
  { part, id }: ReturnType<typeof sketched>,
  effect: 'add' | 'cut',
  words: string,
  more: Partial<ExtrudeStep>,
): Part {
  const { section } = bodyOf(part)
  const face = edgesOf(section).find((e) => edgeKey(e.name) === key(part, words))
  if (!face) throw new Error('there is no such face')
  const step = endExtrudeOf(id, 'body1', effect, edgeKey(face.name), section, part.units)
  return run(part, addStep({ ...step, ...more } as NewStep, 1))
}

const square = rectangle({ at: { x: -3, y: -2 } }, { at: { x: 3, y: 2 } })
const round = circle({ at: { x: 2, y: 4 } }, 3)

describe('an end sketch', () => {
  test('encloses all it draws, on both sides of the centre', () => {
    const { part, id } = sketched(square)
    const state = evaluate(part).sketches.get(id)
    expect(state?.profile.faults).toEqual([])
    expect(state?.profile.section.regions).toHaveLength(1)
  })

  test('is cut into the face it lies on, or added out of it', () => {
    expect(change(extruded('cut', END, { length: '5' }, square))).toBeCloseTo(-24 * 5, 6)
    expect(change(extruded('add', END, { length: '5' }, square))).toBeCloseTo(24 * 5, 6)
    // Out of the shoulder at 20 it stands just clear of the land of ⌀30.
    const boss = rectangle({ at: { x: 15, y: -2 } }, { at: { x: 19, y: 2 } })
    const lug = change(extruded('add', SHOULDER, { length: '5' }, boss))
    expect(lug).toBeCloseTo(16 * 5, 6)
  })

  test('takes circles whole', () => {
    const hole = change(extruded('cut', END, { length: '7' }, round))
    expect(hole).toBeCloseTo(-Math.PI * 9 * 7, 6)
  })

  test('goes through all, up to a face, to both sides, and off its face', () => {
    expect(change(extruded('cut', END, { reach: 'through' }, square))).toBeCloseTo(-24 * 90, 5)
    const upTo = key(spindle(), SHOULDER)
    expect(change(extruded('cut', END, { reach: 'face', upTo }, square))).toBeCloseTo(-24 * 70, 5)
    const both = { side: 'both', length: '5', back: '4' } as const
    expect(change(extruded('add', END, both, square))).toBeCloseTo(24 * 5, 6)
    expect(change(extruded('cut', END, { offset: '-10', length: '5' }, square))).toBeCloseTo(
      -24 * 5,
      6,
    )
  })

  test('leans by its draft, smaller away from the sketch', () => {
    const tan = Math.tan((5 * Math.PI) / 180)
    const [length, a, b] = [6, 6, 4]
    const [c, d] = [a - 2 * length * tan, b - 2 * length * tan]
    // A prismatoid: ends, and four times the middle.
    const middle = ((a + c) / 2) * ((b + d) / 2)
    const volume = (length / 6) * (a * b + 4 * middle + c * d)
    const drafted = { length: '6', draft: '5' }
    expect(change(extruded('add', END, drafted, square))).toBeCloseTo(volume, 6)
    expect(change(extruded('cut', END, drafted, square))).toBeCloseTo(-volume, 6)
    const cone = (Math.PI * 6 * (9 + 3 * (3 - 6 * tan) + (3 - 6 * tan) ** 2)) / 3
    expect(change(extruded('add', END, drafted, round))).toBeCloseTo(cone, 6)
  })

  test('lies as it is seen from the end: up is where the half-section is', () => {
    const up = rectangle({ at: { x: -1, y: 5 } }, { at: { x: 1, y: 8 } })
    const { figures } = builtBy(kernel, extruded('cut', END, { length: '5' }, up))
    // Less there means that the centre of mass moves down, along −x of the part.
    expect(figures?.centre.x).toBeLessThan(-1e-4)
    expect(Math.abs(figures?.centre.y ?? 1)).toBeLessThan(1e-9)
    const right = rectangle({ at: { x: 5, y: -1 } }, { at: { x: 8, y: 1 } })
    const other = builtBy(kernel, extruded('cut', END, { length: '5' }, right)).figures
    // To the right is −y of a lying part: the mass moves to +y.
    expect(other?.centre.y).toBeGreaterThan(1e-4)
  })

  test('on a face that looks to the lesser end is seen from there', () => {
    const at = (draft: Draft, words: string, effect: 'add' | 'cut', more: Partial<ExtrudeStep>) =>
      builtBy(kernel, extrudedIn(sketchedFrom('lesserEnd', draft), effect, words, more)).figures
    const right = rectangle({ at: { x: 5, y: -1 } }, { at: { x: 8, y: 1 } })
    const START = 'face at 0'
    const whole = bodyOf(spindle()).solid?.volume ?? 0
    const pocket = at(right, START, 'cut', { length: '5' })
    expect((pocket?.volume ?? 0) - whole).toBeCloseTo(-6 * 5, 6)
    // To the right is y here, so the mass moves to −y.
    expect(pocket?.centre.y).toBeLessThan(-1e-4)
    expect((at(right, START, 'add', { length: '4' })?.volume ?? 0) - whole).toBeCloseTo(6 * 4, 6)
    const through = at(right, START, 'cut', { reach: 'through' })
    expect((through?.volume ?? 0) - whole).toBeCloseTo(-6 * 90, 5)
    const upTo = key(spindle(), END)
    const face = at(right, START, 'cut', { reach: 'face', upTo })
    expect((face?.volume ?? 0) - whole).toBeCloseTo(-6 * 90, 5)
    const off = at(right, START, 'cut', { offset: '-10', length: '5' })
    expect((off?.volume ?? 0) - whole).toBeCloseTo(-6 * 5, 6)
  })

  test('a polygon makes a socket', () => {
    const six = polygon({ at: { x: 0, y: 0 }, point: ORIGIN_ID }, { at: { x: 5, y: 0 } }, 6)
    const area = (3 * Math.sqrt(3) * 25) / 2
    expect(change(extruded('cut', END, { length: '4' }, six))).toBeCloseTo(-area * 4, 6)
  })

  test('is not turned, and what does not fit is refused in words', () => {
    const { part, id } = sketched(square)
    const turned = extrudeOf(id, 'body1', 'add', { regions: [] }, part.units)
    expect(turned.kind).toBe('extrude')
    expect(problemOf(extruded('cut', END, { reach: 'face' }, square))).toContain('is missing')
    expect(problemOf(extruded('cut', END, { draft: '90' }, square))).toContain('less than 90°')
    expect(
      problemOf(extruded('add', END, { side: 'symmetric', length: '4', draft: '3' }, square)),
    ).toContain('one side only')
    const upTo = key(spindle(), END)
    expect(problemOf(extruded('cut', END, { reach: 'face', upTo }, square))).toContain(
      'begins on the face',
    )
    const revolve = {
      ...{ kind: 'revolve', sketch: id, regions: 'all', effect: 'add', body: 'body1' },
      ...{ axis: 'axis', turn: '', side: 'one', back: '', facets: '', facetTo: 'flats', phase: '' },
    } as NewStep
    expect(problemOf(run(part, addStep(revolve, 1)))).toContain('lies square to the axis')
  })

  test('too much draft is refused by the kernel', () => {
    const part = extruded('add', END, { length: '20', draft: '30' }, square)
    expect(() => builtBy(kernel, part)).toThrow('cannot lean')
  })
})

describe('a half-section drawn out', () => {
  test('goes through all both ways, and begins off its plane', () => {
    const part = run(spindle(), addSketch())
    const id = part.sketches.at(-1)?.id ?? ''
    const drawn = run(
      part,
      drawDraft('draw', id, rectangle({ at: { x: 70, y: 0 } }, { at: { x: 74, y: 2 } })),
    )
    const step = extrudeOf(id, 'body1', 'cut', bodyOf(drawn).section, drawn.units)
    const cut = (more: Partial<ExtrudeStep>): number =>
      change(run(drawn, addStep({ ...step, ...more } as NewStep, 1)))
    /** What a plane slot from the axis to 2 out takes of a round of 10, on one side. */
    const half = 4 * (0.5 * (2 * Math.sqrt(96) + 100 * Math.asin(0.2)))
    expect(cut({ reach: 'through', side: 'both' })).toBeCloseTo(-2 * half, 5)
    expect(cut({ reach: 'through', side: 'one' })).toBeCloseTo(-half, 5)
    expect(cut({ side: 'one', length: '2', offset: '1' })).toBeCloseTo(-2 * 4 * 2, 6)
    expect(problemOf(run(drawn, addStep({ ...step, reach: 'face' } as NewStep, 1)))).toContain(
      'is missing',
    )
  })
})

describe('holes by an end sketch', () => {
  function drilled(more: Partial<HolesStep>, ...drafts: readonly Draft[]): Part {
    const { part, id } = sketched(...drafts)
    const { section } = bodyOf(part)
    const face = edgesOf(section).find((e) => edgeKey(e.name) === key(part, END))
    if (!face) throw new Error('there is no such face')
    const step = sketchHoles(id, offeredHoles('body1', face, section, part.units))
    const sizes = { diameter: '2', reach: 'depth', depth: '6', tip: 'flat' } as const
    return run(part, addStep({ ...step, ...sizes, ...more } as NewStep, 1))
  }
  const point = (x: number, y: number): Draft => ({
    ...{ points: { '~p': { at: { x, y } } }, entities: [], constraints: [], sizes: [] },
  })

  test('stand at its free points and the centres of its circles', () => {
    const part = drilled({}, point(5, 5), point(-6, 0), circle({ at: { x: 0, y: -5 } }, 1))
    expect(change(part)).toBeCloseTo(-3 * Math.PI * 6, 6)
    const tools = bodyOf(part).plan?.ops.flatMap((op) => (op.kind === 'combine' ? op.tools : []))
    const places = tools?.map((t) => (t.kind === 'turned' ? t.frame.at : undefined))
    // Seen from the right: up is x, to the right is −y.
    expect(places?.map((p) => [p?.x, p?.y].map((v) => Number(v?.toFixed(6))))).toEqual([
      [5, -5],
      [0, 6],
      [-5, 0],
    ])
  })

  test('are none at construction circles, nor where lines end', () => {
    const part = drilled({}, circle({ at: { x: 0, y: 5 } }, 4, 'construction'), square)
    expect(problemOf(part)).toContain('no free points and no circles')
    expect(problemOf(drilled({ sketch: 'gone' }, point(5, 5)))).toContain('is gone')
    expect(problemOf(drilled({}, point(50, 5)))).toContain('misses the face')
  })
})

describe('edges of a solid picked one by one', () => {
  const pocketed = (): Part => extruded('cut', END, { length: '5' }, square)
  /** The names of the pocket's faces on the mesh, without those of the spindle. */
  const namesOf = (part: Part): readonly string[] => {
    const step = part.route[1]?.id ?? ''
    const { rims } = builtBy(kernel, part).mesh
    return (rims ?? []).map((r) => r.key).filter((k) => k.includes(step))
  }
  const finished = (part: Part, edges: readonly string[], change: object = {}): Part =>
    run(
      part,
      addStep({
        ...{ kind: 'fillet', body: 'body1' },
        sets: [{ pick: { kind: 'solid', edges }, radius: '1', ...change }],
      } as NewStep),
    )

  test('are named after the two faces that meet in them', () => {
    const part = pocketed()
    const [, step] = part.route
    const names = namesOf(part)
    // Four upright ones, four round the floor, four round the mouth.
    expect(names).toHaveLength(12)
    expect(names.filter((n) => n.split(`${step?.id}/`).length === 3)).toHaveLength(8)
    expect(new Set(names).size).toBe(12)
  })

  test('are rounded alone: a corner of a pocket, the rest stays sharp', () => {
    const part = pocketed()
    const step = part.route[1]?.id ?? ''
    const upright = namesOf(part).filter((n) => !/(first|last)/.test(n))
    const inner = upright.filter((n) => n.split(`${step}/`).length === 3)
    expect(inner).toHaveLength(4)
    const one = change(finished(part, inner.slice(0, 1)))
    const all = change(finished(part, inner))
    // Material stays in the corner: a square less a quarter of a round, over the depth.
    const corner = (1 - Math.PI / 4) * 5
    expect(one).toBeCloseTo(-24 * 5 + corner, 6)
    expect(all).toBeCloseTo(-24 * 5 + 4 * corner, 6)
  })

  test('are bevelled, and told when they are gone or the size does not fit', () => {
    const part = pocketed()
    const [edge = ''] = namesOf(part).filter((n) => n.includes('first') || n.includes('last'))
    const sets = [{ pick: { kind: 'solid', edges: [edge] }, along: '1', across: '', angle: '45' }]
    const bevelled = run(part, addStep({ kind: 'chamfer', body: 'body1', sets } as NewStep))
    expect(change(bevelled)).toBeGreaterThan(-24 * 5)
    const plan = (p: Part) => bodyOf(p).plan
    const gone = plan(finished(part, [`${edge}x`]))
    expect(() => gone && kernel.build(gone, 0.05)).toThrow('no longer there')
    const large = plan(finished(part, [edge], { radius: '30' }))
    expect(() => large && kernel.build(large, 0.05)).toThrow('does not fit')
    expect(problemOf(finished(part, []))).toContain('No edge is picked')
  })

  test('of a body that was a full turn till then work as well', () => {
    const part = spindle()
    const corner = `${key(part, END)}&${key(part, 'cylinder ⌀20')}`
    const [a = '', b = ''] = corner.split('&')
    const rounded = finished(part, [[a, b].sort().join('&')])
    // A rounded rim takes away the square less the quarter round, at its own radius (Guldin).
    const cut = change(rounded)
    expect(cut).toBeLessThan(-(1 - Math.PI / 4) * 2 * Math.PI * 9)
    expect(cut).toBeGreaterThan(-(1 - Math.PI / 4) * 2 * Math.PI * 10)
  })
})

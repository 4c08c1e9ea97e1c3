import { describe, expect, test } from 'vitest'
import {
  FULL_WALL,
  NOTHING_FOUND,
  withFound,
  solidProperties,
  AXIS_ID,
  METRIC,
  ORIGIN_ID,
  addRevolve,
  addSketch,
  addStep,
  changeStep,
  cornersOf,
  createPart,
  drawChain,
  drawDraft,
  duplicateStep,
  edgeKey,
  edgesOf,
  evaluate,
  faceWords,
  intoNewBody,
  moveStep,
  offeredGroove,
  rectangle,
  removeStep,
  revolveOf,
  setAside,
  setValue,
  type GrooveStep,
  type NewStep,
  type Part,
  type Section,
  type Step,
  type StepState,
} from '../src'
import { must, sketchOf } from './support/parts'

const cylinder = (d: number, l: number): number => (Math.PI * d * d * l) / 4

/** A stepped pin: ⌀20 to x = 30, ⌀40 from there to 80, drawn from the datum end. */
function pin(): Part {
  const part = createPart({ name: 'Pin' })
  const { id } = sketchOf(part)
  const at = (x: number, y: number) => ({ at: { x, y } })
  return must(
    part,
    drawChain(
      id,
      [
        { ...at(0, 0), point: ORIGIN_ID },
        at(0, 10),
        at(30, 10),
        at(30, 20),
        at(80, 20),
        { ...at(80, 0), on: [AXIS_ID] },
      ],
      [['radial'], ['axial'], ['radial'], ['axial'], ['radial']],
    ),
    addRevolve(id),
  )
}

const section = (part: Part, body = 0): Section => {
  const found = evaluate(part).bodies[body]
  if (!found) throw new Error('no such body')
  return found.section
}
const volume = (part: Part, body = 0): number => evaluate(part).bodies[body]?.solid?.volume ?? 0
const last = (part: Part): StepState => {
  const state = evaluate(part).steps.at(-1)
  if (!state) throw new Error('no step')
  return state
}
const lastStep = (part: Part): Step => {
  const step = part.route.at(-1)
  if (!step) throw new Error('no step')
  return step
}
/** The key of the face that is called so. */
const face = (part: Part, words: string): string => {
  const edge = edgesOf(section(part)).find((e) => faceWords(e, part.units) === words)
  if (!edge) throw new Error(`no ${words}`)
  return edgeKey(edge.name)
}
const bodyId = 'body1'
const groove = (on: string, change: Partial<GrooveStep> = {}): NewStep =>
  ({
    kind: 'groove',
    body: bodyId,
    on,
    form: 'rectangular',
    place: { from: 'start', second: '', to: 'near', distance: '5' },
    sizes: { width: '4', depth: '3', bottom: '', radius: '' },
    count: '1',
    pitch: '',
    ...change,
  }) as NewStep
const PIN = cylinder(20, 30) + cylinder(40, 50)

describe('a revolve', () => {
  const notched = (effect: 'add' | 'cut' | 'common'): Part => {
    const start = must(pin(), addSketch())
    const { id } = sketchOf(start, 1)
    return must(
      start,
      drawDraft(
        'draw rectangle',
        id,
        rectangle({ at: { x: 70, y: 15 } }, { at: { x: 90, y: 30 } }),
      ),
      addStep(revolveOf(id, bodyId, effect)),
    )
  }
  const ring = cylinder(60, 20) - cylinder(30, 20)
  const shared = cylinder(40, 10) - cylinder(30, 10)

  test('adds, cuts or keeps what is common, and its kind can be changed', () => {
    expect(volume(notched('add'))).toBeCloseTo(PIN + ring - shared, 6)
    const cut = notched('cut')
    expect(volume(cut)).toBeCloseTo(PIN - shared, 6)
    expect(volume(notched('common'))).toBeCloseTo(shared, 6)
    const back = must(
      cut,
      changeStep(lastStep(cut).id, (s) => ({ ...s, effect: 'add' }) as Step),
    )
    expect(volume(back)).toBeCloseTo(PIN + ring - shared, 6)
    expect(last(cut).massChange).toBeCloseTo(-shared * 7.85e-3, 6)
  })

  test('makes a body of its own, which may nest in another without touching it', () => {
    const added = notched('cut')
    const apart = must(added, intoNewBody(lastStep(added).id))
    expect(volume(apart)).toBeCloseTo(PIN, 6)
    expect(volume(apart, 1)).toBeCloseTo(ring, 6)
    expect(apart.bodies.map((b) => b.name)).toEqual(['body 1', 'body 2'])
  })

  test('says when it removes all, parts the body, or takes nothing', () => {
    const parted = must(pin(), addSketch())
    const { id } = sketchOf(parted, 1)
    const slit = must(
      parted,
      drawDraft('draw', id, rectangle({ at: { x: 40, y: 0 } }, { at: { x: 50, y: 30 } })),
      addStep(revolveOf(id, bodyId, 'cut')),
    )
    expect(last(slit).notes).toEqual(['Parts body 1 into 2 pieces.'])
    expect(section(slit).regions).toHaveLength(2)
    const clear = must(
      parted,
      drawDraft('draw', id, rectangle({ at: { x: 140, y: 0 } }, { at: { x: 150, y: 30 } })),
      addStep(revolveOf(id, bodyId, 'cut')),
    )
    expect(last(clear).notes).toEqual(['Takes nothing away: it lies clear of the body.'])
    const all = must(
      parted,
      drawDraft('draw', id, rectangle({ at: { x: -1, y: 0 } }, { at: { x: 150, y: 30 } })),
      addStep(revolveOf(id, bodyId, 'cut')),
    )
    expect(last(all).notes).toEqual(['Removes all of body 1.'])
  })

  test('by part or with facets is planned for the solid kernel, and has no mass until it tells', () => {
    const part = pin()
    for (const change of [{ turn: '90' }, { turn: '90', side: 'symmetric' }, { facets: '6' }]) {
      const turned = must(
        part,
        changeStep(lastStep(part).id, (s) => ({ ...s, ...change }) as Step),
      )
      expect(last(turned).status).toBe('done')
      const [body] = evaluate(turned).bodies
      expect(body?.plan?.base.regions).toEqual([])
      expect(body?.plan?.ops).toHaveLength(1)
      expect(body?.mass).toBeNaN()
      if (!body?.plan) continue
      const round = solidProperties(body.section)
      if (!round) throw new Error('there is nothing as a full turn')
      const figures = { ...round, centre: { x: 1, y: 0, z: 2 }, pieces: 1, volume: 1000 }
      const before = evaluate(turned)
      const after = evaluate(
        turned,
        withFound(NOTHING_FOUND, body.plan, { ok: true, value: figures }),
      )
      expect(after.bodies[0]?.mass).toBeGreaterThan(0)
      // A state stays what it was when more is known.
      expect(before.bodies[0]?.mass).toBeNaN()
    }
  })

  test('by more than a turn, with too few sides or about a lost line is refused', () => {
    const part = pin()
    const told = (change: Partial<Step>): string => {
      const turned = must(
        part,
        changeStep(lastStep(part).id, (s) => ({ ...s, ...change }) as Step),
      )
      return last(turned).problem?.message ?? ''
    }
    expect(told({ turn: '400' } as Partial<Step>)).toContain('more than a full turn')
    expect(told({ turn: '0' } as Partial<Step>)).toContain('greater than zero')
    expect(told({ facets: '2' } as Partial<Step>)).toContain('from 3 to 60 sides')
    expect(told({ facets: '6', turn: '90' } as Partial<Step>)).toContain('right round')
    expect(told({ axis: 'l99' } as Partial<Step>)).toContain('is gone')
  })
})

describe('a groove', () => {
  test('stands at its distance from a shoulder, to its near side, middle or far side', () => {
    const part = pin()
    const on = face(part, 'cylinder ⌀40')
    const shoulder = face(part, 'face at 30')
    for (const [to, from] of [
      ['near', 35],
      ['middle', 33],
      ['far', 31],
    ] as const) {
      const cut = must(
        part,
        addStep(groove(on, { place: { from: shoulder, second: '', to, distance: '5' } })),
      )
      expect(volume(cut)).toBeCloseTo(PIN - cylinder(40, 4) + cylinder(34, 4), 6)
      const floor = edgesOf(section(cut)).find((e) => e.name.entity === 'floor')
      expect(Math.min(floor?.piece.from.x ?? 0, floor?.piece.to.x ?? 0)).toBeCloseTo(from, 9)
    }
  })

  test('is told by its bottom diameter, from the far end, or between two faces', () => {
    const part = pin()
    const on = face(part, 'cylinder ⌀40')
    const sizes = { width: '4', depth: '', bottom: '30', radius: '1' }
    const between = { from: 'start', second: 'end', to: 'middle' as const, distance: '' }
    const cut = must(part, addStep(groove(on, { sizes, place: between })))
    expect(faceWordsOf(cut)).toContain('cylinder ⌀30')
    const floor = edgesOf(section(cut)).find((e) => e.name.entity === 'floor')
    expect(((floor?.piece.from.x ?? 0) + (floor?.piece.to.x ?? 0)) / 2).toBeCloseTo(55, 9)
    const end = { from: 'end', second: '', to: 'far' as const, distance: '5' }
    const back = must(part, addStep(groove(on, { place: end })))
    const there = edgesOf(section(back)).find((e) => e.name.entity === 'floor')
    expect(Math.min(there?.piece.from.x ?? 0, there?.piece.to.x ?? 0)).toBeCloseTo(75, 9)
  })

  test('is repeated at a pitch, and every one keeps its name when the pitch changes', () => {
    const part = pin()
    const on = face(part, 'cylinder ⌀40')
    const cut = must(part, addStep(groove(on, { count: '3', pitch: '10' })))
    expect(volume(cut)).toBeCloseTo(PIN - 3 * (cylinder(40, 4) - cylinder(34, 4)), 6)
    const names = edgesOf(section(cut)).map((e) => e.name.entity)
    expect(names).toEqual(expect.arrayContaining(['floor', 'floor.2', 'floor.3']))
    const wide = must(
      cut,
      changeStep(lastStep(cut).id, (s) => ({ ...s, pitch: '12' }) as Step),
    )
    expect(volume(wide)).toBeCloseTo(volume(cut), 6)
  })

  test('of every form takes away the area of its outline', () => {
    const part = pin()
    const on = edgesOf(section(part)).find((e) => faceWords(e, part.units) === 'cylinder ⌀40')
    if (!on) throw new Error('no cylinder')
    for (const form of [
      'rectangular',
      'round',
      'vee',
      'belt',
      'rope',
      'oring',
      'retaining',
      'relief',
    ] as const) {
      const cut = must(part, addStep(offeredGroove(bodyId, on, form, METRIC)))
      expect(last(cut).problem).toBeUndefined()
      expect(volume(cut)).toBeLessThan(PIN)
    }
    const rope = must(
      part,
      addStep(
        groove(edgeKey(on.name), {
          form: 'rope',
          sizes: { radius: '3', angle: '60deg', depth: '6', bottom: '' },
        }),
      ),
    )
    const half = Math.PI / 6
    const touch = 3 - 3 + 3 + 3 * Math.sin(half)
    const rim = 3 * Math.cos(half) + touch * Math.tan(half)
    // Pappus would need the centroid; the section's own area is told directly.
    const trapezium = (3 * Math.cos(half) + rim) * touch
    const segment = (9 / 2) * (Math.PI - 2 * half - Math.sin(Math.PI - 2 * half))
    const taken = evaluate(rope).steps.at(-1)?.tool
    expect(taken && areaOf(taken)).toBeCloseTo(trapezium + segment, 9)
  })

  test('goes into faces and bores as well', () => {
    const part = pin()
    const shoulder = face(part, 'face at 80')
    const place = { from: 'axis', second: '', to: 'near' as const, distance: '20' }
    const cut = must(part, addStep(groove(shoulder, { place })))
    expect(volume(cut)).toBeCloseTo(PIN - cylinder(28, 3) + cylinder(20, 3), 6)
  })

  test('is refused off the end, below the axis, into its neighbour, and without its face', () => {
    const part = pin()
    const on = face(part, 'cylinder ⌀20')
    const code = (step: NewStep): string | undefined =>
      last(must(part, addStep(step))).problem?.code
    expect(
      code(groove(on, { place: { from: 'start', second: '', to: 'near', distance: '28' } })),
    ).toBe('groove.off')
    expect(code(groove(on, { sizes: { width: '4', depth: '12' } }))).toBe('groove.axis')
    expect(code(groove(on, { count: '3', pitch: '2' }))).toBe('groove.pitch')
    expect(code(groove(on, { count: '0' }))).toBe('step.count')
    expect(code(groove(on, { sizes: { width: '-4', depth: '1' } }))).toBe('step.notPositive')
    expect(code(groove('step3/gone'))).toBe('step.lost')
  })
})

describe('a bore', () => {
  const bored = (change: object): Part =>
    must(
      pin(),
      addStep({
        ...{ kind: 'bore', body: bodyId, end: 'left', parts: [{ diameter: '8', depth: '' }] },
        ...{ upTo: '', tip: 'flat', tipAngle: '118deg', sinkDiameter: '', sinkAngle: '90deg' },
        ...change,
      } as NewStep),
    )

  test('goes through, or to its depth with a flat or cone tip beyond', () => {
    expect(volume(bored({}))).toBeCloseTo(PIN - cylinder(8, 80), 6)
    const parts = [{ diameter: '8', depth: '20' }]
    expect(volume(bored({ parts }))).toBeCloseTo(PIN - cylinder(8, 20), 6)
    const cone = cylinder(8, 4) / 3
    expect(volume(bored({ parts, tip: 'cone', tipAngle: '90deg', end: 'right' }))).toBeCloseTo(
      PIN - cylinder(8, 20) - cone,
      6,
    )
  })

  test('has a counterbore, a countersink, and goes up to a face', () => {
    const parts = [
      { diameter: '14', depth: '5' },
      { diameter: '8', depth: '' },
    ]
    expect(volume(bored({ parts }))).toBeCloseTo(PIN - cylinder(14, 5) - cylinder(8, 75), 6)
    const sunk = bored({ sinkDiameter: '12' })
    const frustum = (Math.PI * 2 * (36 + 24 + 16)) / 3
    expect(volume(sunk)).toBeCloseTo(PIN - cylinder(8, 78) - frustum, 6)
    expect(volume(bored({ upTo: face(pin(), 'face at 30') }))).toBeCloseTo(PIN - cylinder(8, 30), 6)
  })

  test('is refused with depths that do not grow, and says when it removes all', () => {
    const parts = [
      { diameter: '14', depth: '5' },
      { diameter: '8', depth: '4' },
    ]
    expect(last(bored({ parts })).problem?.code).toBe('bore.order')
    expect(last(bored({ parts: [{ diameter: '50', depth: '' }] })).notes).toEqual([
      'Removes all of body 1.',
    ])
  })
})

describe('fillets, chamfers and shells', () => {
  const fillet = (radius: string, kind: 'inside' | 'outside' = 'inside'): NewStep => ({
    ...{ kind: 'fillet', body: bodyId },
    sets: [{ pick: { kind }, radius }],
  })

  test('take inside corners, outside ones, those of a step, or those picked', () => {
    const part = must(pin(), addStep(fillet('2')))
    // The ring between fillet and corner, by its centroid (Pappus).
    const area = 4 * (1 - Math.PI / 4)
    expect(volume(part) - PIN).toBeGreaterThan(2 * Math.PI * area * 10)
    expect(volume(part) - PIN).toBeLessThan(2 * Math.PI * area * 12)
    const chamfered = must(
      pin(),
      addStep({
        ...{ kind: 'chamfer', body: bodyId },
        sets: [
          {
            pick: { kind: 'corners', corners: [cornerAt(pin(), 80, 20)] },
            along: '2',
            across: '',
            angle: '45deg',
          },
        ],
      }),
    )
    const taken = cylinder(40, 2) - ((Math.PI * 2) / 3) * (400 + 360 + 324)
    expect(volume(chamfered)).toBeCloseTo(PIN - taken, 6)
  })

  test('too large for the corner say the largest that fits', () => {
    const part = must(pin(), addStep(fillet('25')))
    expect(last(part).problem).toMatchObject({
      code: 'corner.large',
      mend: 'The largest that fits is 10 mm.',
    })
  })

  test('keep to their corners when sizes change, and say when one is gone', () => {
    const value = must(pin(), setValue({ name: 'r', measure: 'length', formula: '2' }))
    const key = cornerAt(value, 30, 10)
    const picked = { kind: 'corners' as const, corners: [key] }
    const round = must(
      value,
      addStep({ kind: 'fillet', body: bodyId, sets: [{ pick: picked, radius: 'r' }] }),
    )
    const larger = must(round, setValue({ name: 'r', measure: 'length', formula: '3' }))
    expect(volume(larger)).toBeGreaterThan(volume(round))
    const gone = must(
      round,
      changeStep(lastStep(round).id, (s) =>
        s.kind === 'fillet'
          ? {
              ...s,
              sets: [{ pick: { kind: 'corners', corners: ['step9/l1|step9/l2'] }, radius: 'r' }],
            }
          : s,
      ),
    )
    expect(last(gone).problem?.code).toBe('step.lost')
    // Later steps go on where they can.
    const more = must(gone, addStep(fillet('1')))
    expect(evaluate(more).steps.map((s) => s.status)).toEqual(['done', 'failed', 'done'])
  })

  test('a shell after a fillet differs from one before it, and the order can be swapped', () => {
    const open = [face(pin(), 'face at 80')]
    const shell: NewStep = {
      ...{ kind: 'shell', body: bodyId, side: 'inside', thickness: '3', follow: 'turn' },
      ...{ open, faces: [], corners: 'sharp' },
    }
    const round: NewStep = {
      kind: 'fillet',
      body: bodyId,
      sets: [{ pick: { kind: 'corners', corners: [cornerAt(pin(), 0, 10)] }, radius: '5' }],
    }
    const filletFirst = must(pin(), addStep(round), addStep(shell))
    const second = filletFirst.route[2]
    if (!second) throw new Error('no step')
    const shellFirst = must(filletFirst, moveStep(second.id, 1))
    expect(shellFirst.route.map((s) => s.kind)).toEqual(['revolve', 'shell', 'fillet'])
    expect(evaluate(shellFirst).steps.every((s) => s.status === 'done')).toBe(true)
    // With the fillet first the inside carries R2; without, it has a sharp corner and less material.
    expect(volume(filletFirst)).toBeGreaterThan(volume(shellFirst))
    expect(faceWordsOf(filletFirst)).toContain('round R2')
    expect(faceWordsOf(shellFirst)).not.toContain('round R2')
  })

  test('a shell thicker than the wall is refused', () => {
    const part = must(
      pin(),
      addStep({
        ...{ kind: 'shell', body: bodyId, side: 'inside', thickness: '60', follow: 'turn' },
        ...{ open: [], faces: [], corners: 'sharp' },
      }),
    )
    expect(last(part).problem?.code).toBe('shell.thick')
  })
})

describe('walls, mirrors, repeats and lengths', () => {
  test('a wall is a chain with a thickness, outside, inside or on both sides', () => {
    const start = createPart({ name: 'Tube' })
    const { id } = sketchOf(start)
    const chain = must(
      start,
      drawChain(id, [{ at: { x: 0, y: 20 } }, { at: { x: 50, y: 20 } }], [['axial']]),
    )
    const wall = (change: object): number =>
      volume(
        must(
          chain,
          addStep({
            ...{ kind: 'wall', sketch: id, side: 'outside', thickness: '2', inner: '1' },
            ...{ corners: 'sharp', ends: 'flat', effect: 'add', body: bodyId },
            ...FULL_WALL,
            ...change,
          } as NewStep),
        ),
      )
    expect(wall({})).toBeCloseTo(cylinder(44, 50) - cylinder(40, 50), 6)
    expect(wall({ side: 'inside' })).toBeCloseTo(cylinder(40, 50) - cylinder(36, 50), 6)
    expect(wall({ side: 'middle' })).toBeCloseTo(cylinder(42, 50) - cylinder(38, 50), 6)
    expect(wall({ side: 'both' })).toBeCloseTo(cylinder(44, 50) - cylinder(38, 50), 6)
  })

  test('a mirror joins the image to the body; a repeat does steps again; an end gets a length', () => {
    const part = pin()
    const about = face(part, 'face at 80')
    const mirror: NewStep = {
      ...{ kind: 'mirror', way: 'across', body: bodyId, about, at: '', angle: '', into: bodyId },
      steps: [],
    }
    const twice = must(part, addStep(mirror))
    expect(volume(twice)).toBeCloseTo(2 * PIN, 5)
    const grooved = must(part, addStep(groove(face(part, 'cylinder ⌀40'))))
    const again = must(
      grooved,
      addStep({ kind: 'repeat', steps: [lastStep(grooved).id], count: '4', pitch: '6' }),
    )
    expect(volume(again)).toBeCloseTo(PIN - 4 * (cylinder(40, 4) - cylinder(34, 4)), 6)
    const shorter = must(
      part,
      addStep({ kind: 'length', body: bodyId, end: 'right', length: '70' }),
    )
    expect(volume(shorter)).toBeCloseTo(PIN - cylinder(40, 10), 6)
    const longer = must(part, addStep({ kind: 'length', body: bodyId, end: 'left', length: '90' }))
    expect(volume(longer)).toBeCloseTo(PIN + cylinder(20, 10), 6)
  })
})

describe('the route', () => {
  test('numbers steps so that one goes between, and anew where there is no room', () => {
    const part = must(pin(), addStep(groove('x')), addStep(groove('y')))
    expect(part.route.map((s) => s.number)).toEqual([10, 20, 30])
    const between = must(part, addStep(groove('z'), 1))
    expect(between.route.map((s) => s.number)).toEqual([10, 15, 20, 30])
    const full = Array.from({ length: 5 }).reduce<Part>(
      (p) => must(p, addStep(groove('w'), 1)),
      between,
    )
    const numbers = full.route.map((s) => s.number)
    expect(numbers).toEqual([...numbers].sort((a, b) => a - b))
    expect(new Set(numbers).size).toBe(numbers.length)
  })

  test('runs again only what a change reaches', () => {
    const part = must(pin(), addStep(groove('step3/gone')), addStep(groove('step3/gone')))
    const before = evaluate(part)
    const changed = must(part, setAside(part.route[2]?.id ?? '', true))
    const after = evaluate(changed)
    expect(after.steps[0]?.bodies[0]?.section).toBe(before.steps[0]?.bodies[0]?.section)
    expect(after.steps[2]?.status).toBe('aside')
  })

  test('is copied, deleted and refused to locked bodies', () => {
    const part = pin()
    const on = face(part, 'cylinder ⌀40')
    const cut = must(part, addStep(groove(on)))
    const twice = must(cut, duplicateStep(lastStep(cut).id))
    expect(twice.route).toHaveLength(3)
    expect(volume(twice)).toBeCloseTo(volume(cut), 9)
    expect(must(twice, removeStep(lastStep(twice).id)).route).toHaveLength(2)
  })
})

function areaOf(s: Section): number {
  return edgesOf(s).reduce((sum, { piece }) => {
    const chord = (piece.from.x * piece.to.y - piece.to.x * piece.from.y) / 2
    if (piece.kind !== 'arc') return sum + chord
    const r = Math.hypot(piece.from.x - piece.centre.x, piece.from.y - piece.centre.y)
    const half = Math.hypot(piece.to.x - piece.from.x, piece.to.y - piece.from.y) / 2
    const angle = 2 * Math.asin(Math.min(1, half / r))
    const way = piece.counterClockwise ? 1 : -1
    return sum + chord + (way * r * r * (angle - Math.sin(angle))) / 2
  }, 0)
}

const faceWordsOf = (part: Part): string[] =>
  edgesOf(section(part)).map((e) => faceWords(e, part.units))

function cornerAt(part: Part, x: number, y: number): string {
  const corner = cornersOf(section(part)).find((c) => Math.hypot(c.at.x - x, c.at.y - y) < 1e-6)
  if (!corner) throw new Error(`no corner at ${x}, ${y}`)
  return corner.key
}

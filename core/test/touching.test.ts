import { describe, expect, it } from 'vitest'
import {
  METRIC,
  arc,
  combine,
  createPart,
  cubic,
  edgesOf,
  evaluate,
  lengthOf,
  line,
  movedAlong,
  newBody,
  offsetSection,
  profileOf,
  sectionArea,
  shellOf,
  simplePieces,
  stepMarks,
  unsoundness,
  wallOf,
  type Part,
  type Piece,
  type Section,
  type Vec,
} from '../src'

const V = (x: number, y: number): Vec => ({ x, y })
const named = (step: string, pieces: readonly Piece[]): Section =>
  profileOf(
    pieces.map((piece, i) => ({ piece, name: { step, entity: `e${i}`, role: 'drawn' as const } })),
    step,
  ).section
const polygon = (step: string, corners: readonly (readonly [number, number])[]): Section =>
  named(
    step,
    corners.map(([x, y], i) => {
      const [u, v] = corners[(i + 1) % corners.length] ?? [x, y]
      return line(V(x, y), V(u, v))
    }),
  )
const disc = (x: number, y: number, r: number): Section =>
  named('d', [
    arc(V(x - r, y), V(x + r, y), V(x, y), true),
    arc(V(x + r, y), V(x - r, y), V(x, y), true),
  ])
const halfBall = named('h', [arc(V(15, 0), V(3, 0), V(9, 0), true)])
const ball = disc(9, 8, 2)
const area = (s: Section | undefined): number => (s ? sectionArea(s) : NaN)

describe('bodies that touch', () => {
  const shaft = polygon('r', [
    [0, 0],
    [20, 0],
    [20, 6],
    [0, 6],
  ])
  const block = polygon('b', [
    [0, 0],
    [20, 0],
    [20, 10],
    [0, 10],
  ])
  const [H, B] = [(Math.PI * 36) / 2, Math.PI * 4]
  it.each([
    ['a ring on a shaft, and the ring', combine(shaft, ball, 'add'), ball, 120 + B, B, 120],
    ['a ball on half a ball, and the ball', combine(halfBall, ball, 'add'), ball, H + B, B, H],
    ['a ball on half a ball, and the half', combine(halfBall, ball, 'add'), halfBall, H + B, H, B],
    [
      'a block with a hole up to its face, and what was in it',
      combine(block, ball, 'cut'),
      ball,
      200,
      0,
      200 - B,
    ],
  ])('stay whole: %s', (_, one, two, all, both, rest) => {
    expect(one).toBeDefined()
    if (!one) return
    expect(area(combine(one, two, 'add'))).toBeCloseTo(all, 6)
    expect(area(combine(one, two, 'common'))).toBeCloseTo(both, 6)
    expect(area(combine(one, two, 'cut'))).toBeCloseTo(rest, 6)
    expect(area(combine(one, one, 'common'))).toBeCloseTo(area(one), 6)
  })

  it('stay whole through the steps of a part', () => {
    const base = createPart({ name: 'float' })
    const sketch = { plane: 'half' as const, nextId: 99, constraints: [], sizes: [] }
    const round = { id: 'e0', role: 'outline' as const }
    const turn = {
      aside: false,
      kind: 'revolve',
      regions: 'all',
      axis: 'axis',
      turn: '',
      turnTo: '',
      side: 'one',
      back: '',
      facets: '',
      facetTo: 'flats',
      phase: '',
    }
    const part = {
      ...base,
      bodies: [...base.bodies, newBody('body2', 'body 2', base.materials[0]?.id ?? '')],
      sketches: [
        {
          ...sketch,
          id: 'half',
          name: 'A',
          points: [
            { id: 'a', x: 3, y: 0 },
            { id: 'b', x: 15, y: 0 },
            { id: 'c', x: 9, y: 0 },
          ],
          entities: [
            { ...round, kind: 'arc', from: 'b', to: 'a', centre: 'c', counterClockwise: true },
          ],
        },
        {
          ...sketch,
          id: 'ball',
          name: 'B',
          points: [
            { id: 'c', x: 9, y: 8 },
            { id: 'r', x: 11, y: 8 },
          ],
          entities: [{ ...round, kind: 'circle', centre: 'c', rim: 'r' }],
        },
      ],
      route: [
        { ...turn, id: 's1', number: 10, sketch: 'half', effect: 'add', body: 'body1' },
        { ...turn, id: 's2', number: 20, sketch: 'ball', effect: 'add', body: 'body1' },
        { ...turn, id: 's3', number: 30, sketch: 'half', effect: 'add', body: 'body2' },
        {
          id: 's4',
          number: 40,
          aside: false,
          kind: 'combine',
          body: 'body1',
          other: 'body2',
          effect: 'add',
          keep: false,
        },
      ],
    } as unknown as Part
    const state = evaluate(part)
    expect(state.steps.map((s) => s.status)).toEqual(['done', 'done', 'done', 'done'])
    expect(area(state.bodies[0]?.section)).toBeCloseTo(H + B, 6)
  })
})

describe('outlines that all but coincide', () => {
  const shapes: readonly (readonly [string, (step: string, by: number) => Section])[] = [
    [
      'a triangle',
      (step, by) =>
        polygon(step, [
          [11 + by, 8],
          [10 + by, 2],
          [3 + by, 0],
        ]),
    ],
    [
      'one with an arc',
      (step, by) => {
        const [p, q, r] = [V(18 + by, 1), V(18 + by, 6), V(17 + by, 4)]
        const h = (1 - 0.2 * 0.2) / (4 * -0.2)
        const centre = V((p.x + q.x) / 2 - (q.y - p.y) * h, (p.y + q.y) / 2 + (q.x - p.x) * h)
        return named(step, [arc(p, q, centre, false), line(q, r), line(r, p)])
      },
    ],
  ]
  it.each(shapes)('are neither lost nor doubled: %s', (_, make) => {
    for (const by of [1e-9, 1e-8, 1e-7, 5e-7, 9e-7, 1e-6, 1.2e-6, 2e-6, 1e-5]) {
      const [a, b] = [make('a', 0), make('b', -by)]
      const whole = area(a)
      for (const effect of ['add', 'common'] as const) {
        expect(Math.abs(area(combine(a, b, effect)) - whole)).toBeLessThan(40 * by + 1e-4)
      }
      expect(area(combine(a, b, 'cut'))).toBeLessThan(40 * by + 1e-4)
    }
  })

  it('of free curves, hardly moved, leave what is between them', () => {
    const wavy = (by: number): Section => {
      const waves = [4, 3, 2, 1].flatMap((i) =>
        simplePieces(cubic(V(10 * i, 5), V(10 * i - 3, 8), V(10 * i - 6, 3), V(10 * (i - 1), 5))),
      )
      const section = named('s', [
        line(V(0, 0), V(40, 0)),
        line(V(40, 0), V(40, 5)),
        ...waves,
        line(V(0, 5), V(0, 0)),
      ])
      return movedAlong(section, by, (n) => ({ ...n, step: by === 0 ? 's' : 't' }))
    }
    for (const by of [1e-7, 1e-6, 3e-6, 1e-5, 1e-4, 1e-2]) {
      const [a, b] = [wavy(0), wavy(by)]
      const [all, both] = [area(combine(a, b, 'add')), area(combine(a, b, 'common'))]
      expect(Math.abs(all + both - 2 * area(a))).toBeLessThan(2e-4)
      expect(all - both).toBeLessThan(40 * by + 2e-4)
    }
  })
})

describe('at the axis', () => {
  it.each([
    [
      'a cone',
      [
        [0, 0],
        [10, 0],
        [0, 5],
      ],
      11,
    ],
    [
      'a disc with a leaning face',
      [
        [0, 0],
        [7.55, 0],
        [6, 7],
        [0, 7],
      ],
      8.55,
    ],
    [
      'a disc with square faces',
      [
        [0, 0],
        [5, 0],
        [5, 7],
        [0, 7],
      ],
      6,
    ],
  ] as const)('%s grows by the same at its pole as everywhere', (_, corners, reach) => {
    const grown = offsetSection(polygon('s', corners), 1, 'round', 'o')
    const poles = grown ? edgesOf(grown).flatMap((e) => [e.piece.from, e.piece.to]) : []
    const far = Math.max(...poles.filter((p) => Math.abs(p.y) < 1e-6).map((p) => p.x))
    expect(far).toBeCloseTo(reach, 9)
    const spec = {
      step: 'w',
      thickness: 1,
      open: new Set<string>(),
      faces: new Map<string, number>(),
      corners: 'round' as const,
    }
    const wall = shellOf(polygon('s', corners), { ...spec, side: 'outside' })
    expect(area(wall)).toBeCloseTo(area(grown) - area(polygon('s', corners)), 6)
  })
})

describe('walls along curves with sharp places', () => {
  it('have about the area that is drawn over, whatever is at their ends', () => {
    const curve = cubic(V(1.4253, 5.492), V(1.4253, 5.492), V(4.4506, 8.9572), V(7.1742, 8.5895))
    for (const [left, right, ends] of [
      [0, 0.644, 'flat'],
      [0.644, 0.644, 'flat'],
      [0.3, 0.3, 'round'],
      [0.3, 0.3, 'flat'],
    ] as const) {
      const made = wallOf([{ piece: curve, name: { step: 's', entity: 'c', role: 'drawn' } }], {
        step: 'w',
        left,
        right,
        corners: 'round',
        ends,
      })
      const caps = ends === 'round' ? Math.PI * 0.09 : 0
      const about = (left + right) * lengthOf(curve) + caps
      expect(made?.regions).toHaveLength(1)
      // The inner side of a bend loses what the outer gains.
      expect(Math.abs(area(made) - about)).toBeLessThan(0.14 * about)
    }
  })

  it('stay one piece round a cusp', () => {
    const cusp = cubic(V(1.579, 7.8623), V(7.4464, 4.9456), V(2.3793, 8.8902), V(6.6462, 3.9177))
    for (const t of [0.1, 0.2, 0.437, 0.6]) {
      const made = wallOf([{ piece: cusp, name: { step: 's', entity: 'c', role: 'drawn' } }], {
        step: 'w',
        left: t,
        right: t,
        corners: 'round',
        ends: 'flat',
      })
      expect(made?.regions).toHaveLength(1)
      const about = 2 * t * lengthOf(cusp)
      expect(Math.abs(area(made) - about)).toBeLessThan(0.02 * about)
    }
  })
})

describe('the check of every result', () => {
  it('finds what no section may be', () => {
    const sound = polygon('s', [
      [0, 0],
      [4, 0],
      [4, 3],
      [0, 3],
    ])
    expect(unsoundness(sound)).toBeUndefined()
    const [region] = sound.regions
    if (!region) throw new Error('a rectangle has a region')
    const backwards = [...region.outer]
      .reverse()
      .map((e) => ({ ...e, piece: line(e.piece.to, e.piece.from) }))
    expect(unsoundness({ regions: [{ outer: backwards, holes: [] }] })).toContain('inside out')
    expect(unsoundness({ regions: [{ outer: region.outer.slice(1), holes: [] }] })).toContain(
      'not closed',
    )
    expect(unsoundness({ regions: [{ outer: region.outer, holes: [region.outer] }] })).toContain(
      'hole',
    )
    const low = region.outer.map((e) => ({
      ...e,
      piece: line(V(e.piece.from.x, e.piece.from.y - 1), V(e.piece.to.x, e.piece.to.y - 1)),
    }))
    expect(unsoundness({ regions: [{ outer: low, holes: [] }] })).toContain('below the axis')
  })
})

describe('values out of all reason', () => {
  const shelled = (thickness: string, side: string): string => {
    const turn = {
      aside: false,
      kind: 'revolve',
      regions: 'all',
      axis: 'axis',
      turn: '',
      turnTo: '',
      side: 'one',
      back: '',
      facets: '',
      facetTo: 'flats',
      phase: '',
    }
    const corners = [
      [0, 0],
      [10, 0],
      [10, 5],
      [0, 8],
    ] as const
    const part = {
      ...createPart({ name: 'float' }),
      sketches: [
        {
          id: 'sk',
          name: 'A',
          plane: 'half',
          nextId: 99,
          constraints: [],
          sizes: [],
          points: corners.map(([x, y], i) => ({ id: `p${i}`, x, y })),
          entities: corners.map((_, i) => ({
            id: `e${i}`,
            kind: 'line',
            from: `p${i}`,
            to: `p${(i + 1) % 4}`,
            role: 'outline',
          })),
        },
      ],
      route: [
        { ...turn, id: 's1', number: 10, sketch: 'sk', effect: 'add', body: 'body1' },
        {
          id: 's2',
          number: 20,
          aside: false,
          kind: 'shell',
          body: 'body1',
          side,
          thickness,
          open: [],
          faces: [],
          corners: 'round',
          follow: 'turn',
        },
      ],
    } as unknown as Part
    const step = evaluate(part).steps[1]
    return step?.status === 'failed' ? `${step.problem?.code} ${step.problem?.mend}` : 'done'
  }
  it.each([
    ['1e12', 'inside', 'step.huge'],
    ['1e12', 'outside', 'step.huge'],
    ['500000', 'outside', 'step.huge'],
    ['1e-9', 'inside', 'step.tiny'],
    ['999999', 'inside', 'shell.thick'],
    ['0.5', 'inside', 'done'],
    ['0.5', 'outside', 'done'],
  ])('a shell of %s mm %s is %s', (thickness, side, told) => {
    expect(shelled(thickness, side)).toContain(told)
  })
})

describe('a bevel on a slanted land', () => {
  it('is called on the drawing what was asked for: the leg along the land, and the angle with it', () => {
    const turn = {
      ...{ aside: false, kind: 'revolve', regions: 'all', axis: 'axis', turn: '', turnTo: '' },
      ...{ side: 'one', back: '', facets: '', facetTo: 'flats', phase: '' },
    }
    const corners = [
      [0, 0],
      [30, 0],
      [30, 10],
      [0, 6],
    ] as const
    const outline = corners.map((_, i) => ({
      ...{ id: `e${i}`, kind: 'line', from: `p${i}`, to: `p${(i + 1) % 4}`, role: 'outline' },
    }))
    const sketch = { id: 'sk', name: 'A', plane: 'half', nextId: 99, constraints: [], sizes: [] }
    const points = corners.map(([x, y], i) => ({ id: `p${i}`, x, y }))
    const bevels = (along: string, across: string): string[] => {
      const sets = [{ pick: { kind: 'outside' }, along, across, angle: '45' }]
      const part = {
        ...createPart({ name: 'float' }),
        sketches: [{ ...sketch, points, entities: outline }],
        route: [
          { ...turn, id: 's1', number: 10, sketch: 'sk', effect: 'add', body: 'body1' },
          { id: 's2', number: 20, aside: false, kind: 'chamfer', body: 'body1', sets },
        ],
      } as unknown as Part
      const state = evaluate(part).steps[1]
      return state ? stepMarks(state, METRIC).map((m) => m.words) : []
    }
    expect(bevels('2', '')).toEqual(['2 × 45°', '2 × 45°'])
    expect(bevels('2', '1')).toEqual(['2 × 1', '2 × 1'])
  })
})

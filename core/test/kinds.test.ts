import { describe, expect, it } from 'vitest'
import {
  CONSTRAINT_KINDS,
  SIZE_KINDS,
  constrain,
  describeItem,
  entityMap,
  fittingConstraints,
  locator,
  measureSize,
  perform,
  referencesOf,
  renamed,
  solve,
  type Constraint,
  type Entity,
  type Size,
  type Sketch,
  type Without,
} from '../src'
import {
  constraintResiduals,
  measured,
  natureOf,
  placesOf,
  sidesOf,
} from '../../fuzz/sketches/oracle'
import { createPart } from '../src'

const at = (places: Readonly<Record<string, readonly [number, number]>>): Sketch['points'] =>
  Object.entries(places).map(([id, [x, y]]) => ({ id, x, y }))

const role = 'outline' as const
const line = (id: string, from: string, to: string): Entity => ({
  id,
  kind: 'line',
  from,
  to,
  role,
})

/** A drawing in which nothing holds yet, with some of everything, slanted and the other way round as well. */
const drawing: Sketch = {
  ...{ id: 's', name: 'A', plane: 'half', nextId: 99, constraints: [], sizes: [] },
  points: at({
    ...{ a: [10, 12], b: [34, 20], c: [60, 41], d: [37, 31], e: [12, 45], f: [36, 46.5] },
    ...{ g: [70, 8], h: [71, 30], m: [90, 30], n: [101, 30], o: [91, 31], q: [95.5, 31] },
    ...{ r: [40, 70], s: [52, 70], t: [40, 82], u: [66, 70], v: [90, 52], w: [60, 74] },
    ...{ i: [5, 60], j: [12, 72], k: [20, 74], l: [28, 61], y: [30, 50], z: [22, 5] },
  }),
  entities: [
    line('slanted', 'a', 'b'),
    // Runs back, nearly parallel to the first.
    line('back', 'c', 'd'),
    line('level', 'e', 'f'),
    line('upright', 'g', 'h'),
    { id: 'large', kind: 'circle', centre: 'm', rim: 'n', role },
    { id: 'small', kind: 'circle', centre: 'o', rim: 'q', role },
    { id: 'arc', kind: 'arc', centre: 'r', from: 's', to: 't', counterClockwise: true, role },
    {
      id: 'clockwise',
      kind: 'arc',
      centre: 'r',
      from: 't',
      to: 's',
      counterClockwise: false,
      role,
    },
    line('onward', 's', 'u'),
    line('apart', 'v', 'u'),
    { id: 'free', kind: 'curve', from: 'i', fromHandle: 'j', toHandle: 'k', to: 'l', role },
    line('tail', 'l', 'y'),
  ],
}

const SIZES: readonly Without<Size, 'id' | 'name' | 'formula' | 'reference'>[] = [
  { kind: 'length', line: 'slanted' },
  { kind: 'length', line: 'level' },
  { kind: 'distance', a: 'b', b: 'd' },
  { kind: 'axialDistance', a: 'c', b: 'a' },
  { kind: 'axialDistance', a: 'a', b: 'c' },
  { kind: 'axialDistance', a: 'origin', b: 'z' },
  { kind: 'radialDistance', a: 'c', b: 'a' },
  { kind: 'radialDistance', a: 'a', b: 'f' },
  { kind: 'diameter', point: 'd' },
  { kind: 'span', point: 'e', about: 'slanted' },
  { kind: 'span', point: 'z', about: 'slanted' },
  { kind: 'span', point: 'a', about: 'back' },
  { kind: 'span', point: 'c', about: 'upright' },
  { kind: 'gap', item: 'e', to: 'slanted' },
  { kind: 'gap', item: 'z', to: 'back' },
  { kind: 'gap', item: 'slanted', to: 'back' },
  { kind: 'gap', item: 'large', to: 'small' },
  { kind: 'gap', item: 'small', to: 'large' },
  { kind: 'radius', curve: 'arc' },
  { kind: 'radius', curve: 'large' },
  { kind: 'curveDiameter', curve: 'small' },
  { kind: 'curveDiameter', curve: 'clockwise' },
  { kind: 'arcLength', curve: 'arc' },
  { kind: 'arcLength', curve: 'clockwise' },
  { kind: 'arcLength', curve: 'free' },
  { kind: 'greatestDiameter', curve: 'free' },
  { kind: 'leastDiameter', curve: 'free' },
  { kind: 'greatestAt', curve: 'free' },
  { kind: 'leastAt', curve: 'free' },
  { kind: 'leastRadius', curve: 'free' },
  { kind: 'angle', line: 'slanted', to: 'upright', reversed: false },
  { kind: 'angle', line: 'upright', to: 'slanted', reversed: false },
  { kind: 'angle', line: 'upright', to: 'slanted', reversed: true },
  { kind: 'angle', line: 'back', to: 'axis', reversed: false },
]

const CONSTRAINTS: readonly Without<Constraint, 'id'>[] = [
  { kind: 'coincident', a: 'b', b: 'd' },
  { kind: 'coincident', a: 'z', b: 'origin' },
  { kind: 'axial', line: 'slanted' },
  { kind: 'radial', line: 'upright' },
  { kind: 'pointOn', point: 'd', curve: 'slanted' },
  { kind: 'pointOn', point: 'z', curve: 'axis' },
  { kind: 'pointOn', point: 'c', curve: 'large' },
  { kind: 'pointOn', point: 'w', curve: 'arc' },
  { kind: 'fixed', point: 'd', x: 38, y: 30 },
  { kind: 'linked', point: 'd', profile: 'other', source: 'p1', x: 38, y: 30 },
  { kind: 'inLine', a: 'b', b: 'd', along: 'axial' },
  { kind: 'inLine', a: 'b', b: 'd', along: 'radial' },
  { kind: 'parallel', line: 'slanted', to: 'level' },
  { kind: 'parallel', line: 'slanted', to: 'back' },
  { kind: 'parallel', line: 'back', to: 'axis' },
  { kind: 'perpendicular', line: 'slanted', to: 'upright' },
  { kind: 'perpendicular', line: 'upright', to: 'back' },
  { kind: 'equal', curve: 'slanted', to: 'back' },
  { kind: 'equal', curve: 'small', to: 'arc' },
  { kind: 'tangent', curve: 'large', to: 'small' },
  { kind: 'tangent', curve: 'small', to: 'large' },
  { kind: 'tangent', curve: 'small', to: 'arc' },
  { kind: 'tangent', curve: 'upright', to: 'large' },
  { kind: 'tangent', curve: 'onward', to: 'arc' },
  { kind: 'tangent', curve: 'large', to: 'upright' },
  { kind: 'tangent', curve: 'apart', to: 'large' },
  { kind: 'tangent', curve: 'arc', to: 'onward' },
  { kind: 'curvature', curve: 'free', to: 'tail' },
  { kind: 'concentric', curve: 'large', to: 'small' },
  { kind: 'midpoint', point: 'd', line: 'slanted' },
  { kind: 'symmetric', a: 'e', b: 'z', about: 'slanted' },
  { kind: 'symmetric', a: 'e', b: 'z', about: 'axis' },
  { kind: 'symmetric', a: 'e', b: 'c', about: 'd' },
  { kind: 'symmetric', a: 'e', b: 'c', about: 'upright' },
  { kind: 'repeat', points: ['a', 'b'], copies: [['e', 'f']], along: 'radial' },
  { kind: 'repeat', points: ['a', 'b'], copies: [['d', 'c']], along: 'axial' },
  {
    kind: 'repeat',
    points: ['a', 'b'],
    copies: [
      ['d', 'c'],
      ['v', 'w'],
    ],
    along: 'slanted',
  },
]

const KEEPS_SIDES = new Set([
  ...['parallel slanted level', 'parallel slanted back', 'parallel back axis'],
  ...['tangent large small', 'tangent small large', 'tangent large upright', 'tangent apart large'],
])

const called = (item: { readonly kind: string }): string => Object.values(item).flat(2).join(' ')
const worst = (all: readonly number[]): number => Math.max(...all.map(Math.abs))

/** Solves, and tells what the words of the constraints and sizes say of the places, by themselves. */
function solvedWith(sketch: Sketch, values: ReadonlyMap<string, number>) {
  const solution = solve(sketch, values)
  expect(solution.solved).toBe(true)
  const places = new Map([...solution.positions].map(([id, p]) => [id, { x: p.x, y: p.y }]))
  expect(
    worst(sketch.entities.flatMap((e) => (e.kind === 'curve' ? [] : natureOf(e, places)))),
  ).toBeLessThan(1e-8)
  return { solution, places }
}

/** The drawing with arcs and circles made round, which is all that holds in it. */
const round = ((): Sketch => {
  const { positions } = solve(drawing, new Map())
  return { ...drawing, points: drawing.points.map((p) => ({ ...p, ...positions.get(p.id) })) }
})()

describe.each(SIZES.map((s) => [called(s), s] as const))('a size of %s', (_, offer) => {
  const size = { ...offer, id: 's1', name: 'one', formula: '1', reference: false } as Size
  const sketch: Sketch = { ...round, sizes: [size] }
  const now = measured(sketch, size, placesOf(sketch))

  it('measures what its words say', () => {
    expect(measureSize(size, entityMap(sketch), locator(sketch))).toBeCloseTo(now, 10)
    expect(now).toBeGreaterThan(0.1)
  })

  it.each([0.9, 1, 1.07])('comes to %d times what it is, on its side', (times) => {
    const { places, solution } = solvedWith(sketch, new Map([['s1', now * times]]))
    expect(measured(sketch, size, places)).toBeCloseTo(now * times, 8)
    expect(sidesOf(sketch, places)).toEqual(sidesOf(sketch, placesOf(sketch)))
    expect(solution.freedoms).toBe(solve(round, new Map()).freedoms - 1)
  })
})

describe.each(CONSTRAINTS.map((c) => [called(c), c] as const))('%s', (_, bare) => {
  const constraint = { ...bare, id: 'c1' } as Constraint
  const sketch: Sketch = { ...round, constraints: [constraint] }

  it('holds as its words say, with the sides as they were', () => {
    const { places, solution } = solvedWith(sketch, new Map())
    const rows = constraintResiduals(sketch, constraint, places)
    expect(worst(rows)).toBeLessThan(1e-8)
    expect(solution.freedoms).toBe(solve(round, new Map()).freedoms - rows.length)
    expect(solution.disagreements).toEqual([])
    // Of curves that touch from outside no one cares which is the larger.
    if (KEEPS_SIDES.has(called(bare))) {
      expect(sidesOf(sketch, places)).toEqual(sidesOf(sketch, placesOf(sketch)))
    }
  })

  it('stands on the points and curves that it names, and goes with them when they are called otherwise', () => {
    const drawn = new Set([...round.points, ...round.entities].map((d) => d.id))
    const named = new Set(
      Object.values(bare)
        .flat(2)
        .filter((w) => drawn.has(String(w))),
    )
    expect(new Set(referencesOf(constraint))).toEqual(named)
    const other = renamed(constraint, (id) => (drawn.has(id) ? `~${id}` : id))
    expect(new Set(referencesOf(other))).toEqual(new Set([...named].map((id) => `~${id}`)))
    expect([other.kind, other.id]).toEqual([constraint.kind, 'c1'])
  })

  it('is told in words that name what it stands on', () => {
    const words = describeItem(sketch, constraint)
    expect(words).not.toContain('something deleted')
    expect(words.length).toBeGreaterThan(8)
  })
})

describe('where lines run straight already, so that less is left to ask', () => {
  const straight: readonly Constraint[] = [
    { id: 'k1', kind: 'axial', line: 'slanted' },
    { id: 'k2', kind: 'radial', line: 'back' },
    { id: 'k3', kind: 'axial', line: 'onward' },
    { id: 'k4', kind: 'radial', line: 'upright' },
  ]

  it.each(CONSTRAINTS.map((c) => [called(c), c] as const))('%s holds', (_, bare) => {
    // What says of a line what is said already, or the contrary, is another matter; so is what leaves one no length.
    const ofLines = ['axial', 'radial', 'parallel', 'perpendicular'].includes(bare.kind)
    const own = Object.values(bare).flat(2)
    const others = straight.filter((k) => {
      if (!('line' in k) || (ofLines && own.includes(k.line))) return false
      return bare.kind !== 'repeat' || k.line !== 'back'
    })
    const constraint = { ...bare, id: 'c1' } as Constraint
    const sketch: Sketch = { ...round, constraints: [...others, constraint] }
    const { places } = solvedWith(sketch, new Map())
    for (const c of sketch.constraints) {
      expect(worst(constraintResiduals(sketch, c, places))).toBeLessThan(1e-8)
    }
  })

  it.each(SIZES.map((z) => [called(z), z] as const))('a size of %s holds', (_, offer) => {
    const size = { ...offer, id: 's1', name: 'one', formula: '1', reference: false } as Size
    const sketch: Sketch = { ...round, constraints: straight, sizes: [size] }
    const level = solvedWith({ ...sketch, sizes: [] }, new Map()).places
    const wanted = 1.1 * measured(sketch, size, level)
    // An angle between lines that stand is what it is.
    if (size.kind === 'angle' && size.line !== 'back') return
    if (!(wanted > 1e-3) || size.kind === 'angle') return
    const { places } = solvedWith(sketch, new Map([['s1', wanted]]))
    expect(measured(sketch, size, places)).toBeCloseTo(wanted, 8)
  })
})

describe('a free curve', () => {
  const smooth = (to: Entity, ...more: readonly Constraint[]): Sketch => ({
    ...round,
    points: [...round.points, ...at({ x1: [40, 52], x2: [37, 57], x3: [52, 66], x4: [28, 49] })],
    entities: [...round.entities, to],
    constraints: [...more, { id: 'c1', kind: 'tangent', curve: 'free', to: to.id }],
  })
  const bend = (
    places: ReadonlyMap<string, { x: number; y: number }>,
    ids: readonly string[],
  ): number => {
    const [a, b, c] = ids.map((id) => places.get(id) ?? { x: NaN, y: NaN })
    if (!a || !b || !c) return NaN
    const [ux, uy, vx, vy] = [b.x - a.x, b.y - a.y, c.x - b.x, c.y - b.y]
    return Math.atan2(ux * vy - uy * vx, ux * vx + uy * vy)
  }
  /** Straight on, whichever way. */
  const inLine = (angle: number): number => Math.abs(Math.sin(angle))

  it.each([false, true])('goes on as a line that it meets at either end (level: %s)', (level) => {
    const lead = line('lead', 'x1', 'l')
    const more: Constraint[] = level ? [{ id: 'k', kind: 'axial', line: 'lead' }] : []
    const sketch = smooth(lead, ...more)
    const { places } = solvedWith(sketch, new Map())
    expect(inLine(bend(places, ['x1', 'l', 'k']))).toBeLessThan(1e-9)
    const from = smooth(line('lead', 'i', 'x1'), ...more)
    expect(inLine(bend(solvedWith(from, new Map()).places, ['x1', 'i', 'j']))).toBeLessThan(1e-9)
  })

  it('goes on as another one, their handles in line', () => {
    const other: Entity = {
      id: 'more',
      kind: 'curve',
      from: 'l',
      fromHandle: 'x1',
      toHandle: 'x2',
      to: 'x3',
      role,
    }
    const { places } = solvedWith(smooth(other), new Map())
    expect(inLine(bend(places, ['k', 'l', 'x1']))).toBeLessThan(1e-9)
    const level: Constraint = { id: 'k', kind: 'inLine', a: 'k', b: 'l', along: 'axial' }
    const held = solvedWith(smooth(other, level), new Map()).places
    expect(inLine(bend(held, ['k', 'l', 'x1']))).toBeLessThan(1e-9)
    expect(held.get('x1')?.y).toBeCloseTo(held.get('l')?.y ?? NaN, 9)
  })

  it('goes on as an arc, square to its radius', () => {
    const arc: Entity = {
      id: 'turn',
      kind: 'arc',
      centre: 'x1',
      from: 'l',
      to: 'x4',
      counterClockwise: true,
      role,
    }
    const { places } = solvedWith(smooth(arc), new Map())
    expect(Math.abs(Math.cos(bend(places, ['x1', 'l', 'k'])))).toBeLessThan(1e-9)
  })

  it('has no tangent to what it does not meet', () => {
    const { solution } = solvedWith(smooth(line('lead', 'x1', 'x2')), new Map())
    expect(solution.freedoms).toBe(solve(smooth(line('lead', 'x1', 'x2')), new Map()).freedoms)
    const { places } = solvedWith(smooth(line('lead', 'x1', 'x2')), new Map())
    expect(places.get('k')).toEqual({ x: 20, y: 74 })
  })
})

describe('two arcs that share an end', () => {
  const next: Entity = {
    id: 'next',
    kind: 'arc',
    centre: 'x1',
    from: 's',
    to: 'x2',
    counterClockwise: false,
    role,
  }
  const sketch = (...more: readonly Constraint[]): Sketch => ({
    ...round,
    points: [...round.points, ...at({ x1: [66, 75], x2: [65, 60] })],
    entities: [...round.entities, next],
    constraints: [...more, { id: 'c1', kind: 'tangent', curve: 'arc', to: 'next' }],
  })

  it.each([
    ['nothing', []],
    ['their first centre', [{ id: 'k', kind: 'inLine', a: 's', b: 'r', along: 'axial' }]],
    ['their second centre', [{ id: 'k', kind: 'inLine', a: 's', b: 'x1', along: 'radial' }]],
  ] as const)('go on from one another where the end is level with %s', (_, more) => {
    const { places } = solvedWith(sketch(...more), new Map())
    const [r, s, c] = ['r', 's', 'x1'].map((id) => places.get(id) ?? { x: NaN, y: NaN })
    const cross = r && s && c && (s.x - r.x) * (c.y - s.y) - (s.y - r.y) * (c.x - s.x)
    expect(Math.abs(cross ?? NaN)).toBeLessThan(1e-7)
  })
})

describe('every kind', () => {
  it('of constraint and of size has an example here', () => {
    expect(new Set(CONSTRAINTS.map((c) => c.kind))).toEqual(new Set(Object.keys(CONSTRAINT_KINDS)))
    expect(new Set(SIZES.map((s) => s.kind))).toEqual(new Set(Object.keys(SIZE_KINDS)))
  })
})

describe('what is picked', () => {
  const part = ((): ReturnType<typeof createPart> => {
    const empty = createPart({ name: 'Float' })
    const id = empty.sketches[0]?.id ?? ''
    return { ...empty, sketches: [{ ...round, id }] }
  })()
  const sketch = part.sketches[0] ?? round
  const fitting = (...picks: string[]): string[] => fittingConstraints(sketch, picks)
  const put = (kind: Constraint['kind'], ...picks: string[]): readonly Constraint[] => {
    const done = perform(part, constrain(sketch.id, kind, picks))
    return done.ok ? (done.value.sketches[0]?.constraints ?? []) : []
  }

  it.each([
    [['slanted'], ['axial', 'radial']],
    [
      ['slanted', 'back'],
      ['axial', 'radial', 'pointOn', 'parallel', 'perpendicular', 'equal'],
    ],
    [
      ['slanted', 'd'],
      ['pointOn', 'midpoint'],
    ],
    [['slanted', 'a'], ['pointOn']],
    [['a'], ['fixed']],
    [['origin'], []],
    [
      ['origin', 'a'],
      ['coincident', 'inLine'],
    ],
    [
      ['a', 'b', 'c'],
      ['coincident', 'fixed', 'inLine', 'symmetric'],
    ],
    [
      ['a', 'b', 'upright'],
      ['pointOn', 'symmetric'],
    ],
    [
      ['a', 'upright', 'b'],
      ['pointOn', 'symmetric'],
    ],
    [
      ['a', 'b', 'axis'],
      ['pointOn', 'symmetric'],
    ],
    [
      ['slanted', 'back', 'upright'],
      ['axial', 'radial', 'pointOn', 'parallel', 'perpendicular', 'equal', 'symmetric'],
    ],
    [
      ['large', 'small'],
      ['tangent', 'concentric', 'equal'],
    ],
    [
      ['large', 'small', 'axis'],
      ['tangent', 'symmetric'],
    ],
    [['large', 'upright'], ['tangent']],
    [['large', 'a'], ['pointOn']],
    [['axis', 'large'], ['tangent']],
    [['axis', 'slanted'], ['pointOn']],
    [['free', 'slanted'], ['pointOn']],
    [['free', 'i'], []],
    [['large', 'slanted', 'a'], []],
    [['large'], []],
    [[], []],
  ])('as %j fits %j', (picks, kinds) => {
    expect(new Set(fitting(...picks))).toEqual(new Set(kinds))
  })

  it('meets at the datum point, whichever was picked first', () => {
    const one = { a: 'z', b: 'origin' }
    expect(put('coincident', 'origin', 'z')).toMatchObject([one])
    expect(put('coincident', 'z', 'origin')).toMatchObject([one])
  })

  it('goes in line the way it nearly stands', () => {
    expect(put('inLine', 'e', 'f')).toMatchObject([{ along: 'axial' }])
    expect(put('inLine', 'g', 'h')).toMatchObject([{ along: 'radial' }])
  })

  it('gets just what was asked for', () => {
    expect(put('axial', 'slanted', 'back')).toMatchObject([
      { kind: 'axial', line: 'slanted' },
      { kind: 'axial', line: 'back' },
    ])
    const d = sketch.points.find((p) => p.id === 'd')
    expect(put('fixed', 'd')).toMatchObject([{ kind: 'fixed', point: 'd', x: d?.x, y: d?.y }])
    expect(put('midpoint', 'slanted', 'd')).toMatchObject([
      { kind: 'midpoint', point: 'd', line: 'slanted' },
    ])
    expect(put('tangent', 'large', 'small')).toMatchObject([
      { kind: 'tangent', curve: 'small', to: 'large' },
    ])
    expect(put('repeat', 'a', 'b')).toEqual([])
  })

  it('is tied to the first pick, each of the others', () => {
    expect(put('parallel', 'slanted', 'back', 'upright')).toMatchObject([
      { line: 'back', to: 'slanted' },
      { line: 'upright', to: 'slanted' },
    ])
    expect(put('equal', 'large', 'small')).toMatchObject([{ curve: 'small', to: 'large' }])
  })

  it('as lines, lies on a line by both ends, but for those it shares', () => {
    expect(put('pointOn', 'slanted', 'back').map((c) => 'point' in c && c.point)).toEqual([
      'c',
      'd',
    ])
    expect(put('pointOn', 'onward', 'apart').map((c) => 'point' in c && c.point)).toEqual(['v'])
  })

  it('as arcs mirrors centre and radius, as lines the ends that lie across', () => {
    expect(put('symmetric', 'large', 'small', 'axis')).toMatchObject([
      { kind: 'symmetric', a: 'm', b: 'o', about: 'axis' },
      { kind: 'equal', curve: 'small', to: 'large' },
    ])
    expect(put('symmetric', 'slanted', 'back', 'upright')).toMatchObject([
      { a: 'a', b: 'd' },
      { a: 'b', b: 'c' },
    ])
  })
})

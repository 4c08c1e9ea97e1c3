import { describe, expect, it } from 'vitest'
import {
  AXIS_ID,
  ORIGIN_ID,
  addRevolve,
  addSize,
  arcAbout,
  arcAlong,
  arcThrough,
  centredRectangle,
  changeSize,
  chamferCorner,
  constrain,
  copyItems,
  createPart,
  drawChain,
  drawDraft,
  evaluate,
  excerpt,
  extend,
  filletCorner,
  isCorner,
  lineOf,
  linesOf,
  locator,
  mirrorItems,
  missingItems,
  moveItems,
  moved,
  offsetChain,
  perform,
  pieceOf,
  piecesOf,
  polygon,
  radiusOf,
  rectangle,
  reflect,
  removeItems,
  repeatItems,
  scaleAll,
  setRepeatCount,
  setRole,
  shift,
  slot,
  solve,
  split,
  steppedShaft,
  tangentAt,
  trim,
  withProposals,
  turn,
  unbound,
  circle,
  cutAtAxis,
  freeMotion,
  setValue,
  type Draft,
  type End,
  type Part,
  type Vec,
} from '../src'
import { must, sketchOf } from './support/parts'

const SKETCH = 'sketch2'
const at = (x: number, y: number, extra: Partial<End> = {}): End => ({ at: { x, y }, ...extra })
const state = (part: Part) => evaluate(part).sketches.get(SKETCH)
const freedoms = (part: Part): number => state(part)?.solution.freedoms ?? -1
const regions = (part: Part): number => state(part)?.profile.section.regions.length ?? -1
const area = (part: Part): number =>
  evaluate(must(part, addRevolve(SKETCH))).bodies[0]?.solid?.area ?? 0
const draw = (...drafts: readonly Draft[]): Part =>
  must(createPart({ name: 'Spindle' }), ...drafts.map((d) => drawDraft('draw', SKETCH, d)))
const ids = (part: Part): string[] => sketchOf(part).entities.map((e) => e.id)
const place = (part: Part, id: string): Vec => locator(sketchOf(part))(id)
const sound = (part: Part): void => {
  expect(state(part)?.solution.disagreements).toEqual([])
  expect(state(part)?.profile.faults).toEqual([])
}
const problemOf = (part: Part, ...commands: Parameters<typeof perform>[1][]): string => {
  const [command] = commands
  const result = command ? perform(part, command) : undefined
  return result && !result.ok ? `${result.problem.message} ${result.problem.mend}` : ''
}

describe('shapes', () => {
  it('close, and have the freedoms one would count', () => {
    const cases: [Draft, number][] = [
      [rectangle(at(2, 5), at(30, 12)), 4],
      [centredRectangle(at(20, 15), at(30, 22)), 4],
      [circle(at(20, 15), 6), 3],
      [slot(at(10, 15), at(30, 16), 4), 6],
      [polygon(at(20, 20), at(28, 21), 6), 4],
    ]
    for (const [draft, free] of cases) {
      const part = draw(draft)
      expect(freedoms(part)).toBe(free)
      expect(regions(part)).toBe(1)
      sound(part)
    }
  })

  it('keep a polygon regular and a rectangle about its centre when one of them is sized', () => {
    const part = draw(polygon(at(20, 20), at(28, 21), 5))
    const [, side = ''] = ids(part)
    const sized = must(part, addSize(SKETCH, { kind: 'length', line: side }, '12'))
    const lengths = linesOf(sketchOf(sized)).map((l) => {
      const [a, b] = [place(sized, l.from), place(sized, l.to)]
      return Math.hypot(b.x - a.x, b.y - a.y)
    })
    lengths.forEach((l) => expect(l).toBeCloseTo(12, 8))
  })

  it('make arcs through three places, along a direction, and about a centre', () => {
    const through = arcThrough({ x: 5, y: 0 }, { x: 3, y: 4 }, { x: -3, y: 4 })
    expect(through).toMatchObject({ centre: { x: expect.closeTo(0, 12) }, counterClockwise: true })
    expect(arcThrough({ x: 0, y: 0 }, { x: 1, y: 1 }, { x: 2, y: 2 })).toBeUndefined()
    const along = arcAlong({ x: 0, y: 0 }, { x: 1, y: 0 }, { x: 5, y: -5 })
    expect(along).toMatchObject({ centre: { x: 0, y: -5 }, counterClockwise: false })
    expect(arcAlong({ x: 0, y: 0 }, { x: 1, y: 0 }, { x: 7, y: 0 })).toBeUndefined()
    const part = draw(arcAbout(at(20, 20), at(28, 20), -Math.PI / 2))
    const [arc] = sketchOf(part).entities
    if (arc?.kind !== 'arc') throw new Error('an arc is drawn')
    expect(place(part, arc.to)).toMatchObject({
      x: expect.closeTo(20, 9),
      y: expect.closeTo(12, 9),
    })
  })

  it('lay a stepped shaft from pairs, in ink but for its place', () => {
    const step = (d: number, l: number) => ({
      diameter: { formula: String(d), value: d },
      length: { formula: String(l), value: l },
    })
    const start = at(0, 0, { point: ORIGIN_ID })
    const part = draw(steppedShaft(start, [step(20, 24), step(28, 34), step(44, 8)]))
    expect(freedoms(part)).toBe(0)
    sound(part)
    const disc = (d: number, l: number): number => (Math.PI * d * d * l) / 4
    const volume = evaluate(must(part, addRevolve(SKETCH))).bodies[0]?.solid?.volume
    expect(volume).toBeCloseTo(disc(20, 24) + disc(28, 34) + disc(44, 8), 6)
  })
})

describe('trim, extend and split', () => {
  /** A rectangle crossed by a long axial line. */
  function crossed(): Part {
    return must(
      draw(rectangle(at(10, 5), at(30, 15))),
      drawChain(SKETCH, [at(0, 10), at(40, 10)], [['axial']]),
    )
  }

  it('cut a line off at what crosses it, and the new end lies on that', () => {
    const part = crossed()
    const long = ids(part)[4] ?? ''
    const cut = must(part, trim(SKETCH, long, { x: 36, y: 10 }))
    const line = lineOf(sketchOf(cut), long)
    expect(place(cut, line?.to ?? '').x).toBeCloseTo(30, 9)
    expect(sketchOf(cut).constraints.some((c) => c.kind === 'pointOn')).toBe(true)
    const both = must(part, trim(SKETCH, long, { x: 20, y: 10 }))
    expect(ids(both)).toHaveLength(6)
    const whole = must(
      both,
      ...ids(both)
        .slice(4)
        .map((id) => trim(SKETCH, id, place(both, lineOf(sketchOf(both), id)?.from ?? ''))),
    )
    expect(ids(whole)).toHaveLength(4)
  })

  it('leave an arc of a circle between two crossings', () => {
    const part = must(
      draw(circle(at(20, 20), 10)),
      drawChain(SKETCH, [at(0, 20), at(40, 20)], [['axial']]),
    )
    const [round = ''] = ids(part)
    const cut = must(part, trim(SKETCH, round, { x: 20, y: 30 }))
    const [arc] = sketchOf(cut).entities
    if (arc?.kind !== 'arc') throw new Error('an arc is left')
    expect(tangentAt(pieceOf(arc, locator(sketchOf(cut))), 0).y).toBeLessThan(0)
    const low = pieceOf(arc, locator(sketchOf(cut)))
    expect(low.kind === 'arc' && radiusOf(low)).toBeCloseTo(10, 9)
  })

  it('draw a loose end out to the next curve, and refuse where nothing lies', () => {
    const part = must(
      createPart({ name: 'Spindle' }),
      drawChain(SKETCH, [at(0, 10), at(12, 12)], [[]]),
      drawChain(SKETCH, [at(30, 0), at(30, 40)], [['radial']]),
    )
    const [short = ''] = ids(part)
    const out = must(part, extend(SKETCH, short, { x: 12, y: 12 }))
    expect(place(out, lineOf(sketchOf(out), short)?.to ?? '')).toMatchObject({
      x: expect.closeTo(30, 9),
      y: expect.closeTo(15, 9),
    })
    const [, upright = ''] = ids(out)
    expect(problemOf(out, extend(SKETCH, upright, { x: 30, y: 40 }))).toContain(
      'Nothing lies that way',
    )
  })

  it('divide a line so that its size goes on measuring the whole', () => {
    const part = must(
      createPart({ name: 'Spindle' }),
      drawChain(SKETCH, [at(0, 10), at(40, 10)], [['axial']]),
    )
    const [land = ''] = ids(part)
    const sized = must(part, addSize(SKETCH, { kind: 'length', line: land }, '50'))
    const two = must(sized, split(SKETCH, land, { x: 20, y: 10 }))
    expect(ids(two)).toHaveLength(2)
    expect(sketchOf(two).sizes).toMatchObject([{ kind: 'axialDistance', formula: '50' }])
    expect(freedoms(two)).toBe(freedoms(sized) + 1)
    expect(sketchOf(two).constraints.filter((c) => c.kind === 'axial')).toHaveLength(2)
    expect(state(two)?.solution.disagreements).toEqual([])
  })

  it('cut off at the axis what reaches below it', () => {
    const part = must(
      createPart({ name: 'Float' }),
      drawChain(SKETCH, [at(0, -5), at(0, 20), at(30, 20), at(30, -5)], [[], [], []]),
    )
    const faults = state(part)?.profile.faults ?? []
    expect(faults.map((f) => f.kind)).toContain('belowAxis')
    const low = faults.filter((f) => f.kind === 'belowAxis').flatMap((f) => f.entities)
    const cut = must(part, cutAtAxis(SKETCH, low))
    expect(regions(cut)).toBe(1)
    sound(cut)
  })
})

describe('corners', () => {
  const square = (): Part => draw(rectangle(at(0, 10), at(40, 30)))
  const corner = (part: Part, x: number, y: number): string =>
    sketchOf(part).points.find((p) => Math.hypot(p.x - x, p.y - y) < 1e-6)?.id ?? ''

  it('are rounded smoothly, with a radius that can be changed', () => {
    const drawn = square()
    expect(isCorner(sketchOf(drawn), corner(drawn, 40, 30))).toBe(true)
    const [bottom = '', side = ''] = ids(drawn)
    const part = must(
      drawn,
      addSize(SKETCH, { kind: 'length', line: bottom }, '40'),
      addSize(SKETCH, { kind: 'length', line: side }, '20'),
      addSize(
        SKETCH,
        { kind: 'diameter', point: lineOf(sketchOf(drawn), bottom)?.from ?? '' },
        '20',
      ),
    )
    const round = must(part, filletCorner(SKETCH, corner(part, 40, 30), '5'))
    expect(area(round)).toBeCloseTo(areaOfRing(5), 6)
    expect(freedoms(round)).toBe(freedoms(part))
    sound(round)
    const size = sketchOf(round).sizes.at(-1)
    const wider = must(round, changeSize(SKETCH, size?.id ?? '', '8'))
    expect(area(wider)).toBeCloseTo(areaOfRing(8), 6)
  })

  /** The surface of the square ring with one outer corner rounded. */
  function areaOfRing(r: number): number {
    const quarter = 2 * Math.PI * ((30 - r) * r * (Math.PI / 2) + r * r)
    const flats = Math.PI * ((30 - r) ** 2 - 10 ** 2) + Math.PI * (30 ** 2 - 10 ** 2)
    return quarter + flats + 2 * Math.PI * 30 * (40 - r) + 2 * Math.PI * 10 * 40
  }

  it('keep the meaning of sizes that measured to them', () => {
    const part = square()
    const [bottom = ''] = ids(part)
    const sized = must(
      part,
      addSize(SKETCH, { kind: 'length', line: bottom }, '60'),
      addSize(
        SKETCH,
        { kind: 'diameter', point: lineOf(sketchOf(part), bottom)?.from ?? '' },
        '30',
      ),
    )
    const round = must(
      sized,
      filletCorner(SKETCH, lineOf(sketchOf(sized), bottom)?.from ?? '', '4'),
    )
    expect(sketchOf(round).sizes.map((s) => s.kind)).toEqual([
      'axialDistance',
      'diameter',
      'radius',
    ])
    const left = sketchOf(round).sizes[1]
    expect(left?.kind === 'diameter' && 2 * place(round, left.point).y).toBeCloseTo(30, 9)
    sound(round)
  })

  it('are bevelled by one size, which the other side reads', () => {
    const part = must(square(), chamferCorner(SKETCH, corner(square(), 40, 30), '3'))
    sound(part)
    expect(sketchOf(part).sizes.map((s) => s.formula)).toEqual(['3', sketchOf(part).sizes[0]?.name])
    const size = sketchOf(part).sizes[0]?.id ?? ''
    const wider = must(part, changeSize(SKETCH, size, '6'))
    const bevel = linesOf(sketchOf(wider)).at(-1)
    const [a, b] = [place(wider, bevel?.from ?? ''), place(wider, bevel?.to ?? '')]
    expect(Math.hypot(b.x - a.x, b.y - a.y)).toBeCloseTo(6 * Math.SQRT2, 8)
  })

  it('refuse a radius that leaves nothing, with the most there is room for', () => {
    const part = square()
    // The limit is told in the part's own unit.
    const inches = { ...part, units: { ...part.units, length: 'in' as const } }
    expect(problemOf(inches, filletCorner(SKETCH, corner(part, 40, 30), '25'))).toMatch(
      /has to be less than 0\.\d+ in\.|has to be less than 1\.\d+ in\./,
    )
    const said = problemOf(part, filletCorner(SKETCH, corner(part, 40, 30), '25'))
    expect(said).toContain('leaves nothing')
    expect(said).toContain('less than 20')
    expect(problemOf(part, filletCorner(SKETCH, corner(part, 40, 30), '-1'))).toContain(
      'greater than',
    )
    expect(problemOf(part, filletCorner(SKETCH, 'origin', '1'))).toContain('No two lines meet')
  })
})

describe('copies', () => {
  it('go with their constraints and sizes, under names of their own', () => {
    const part = must(
      draw(rectangle(at(0, 10), at(40, 30))),
      setValue({ name: 'wide', measure: 'length', formula: '40' }),
    )
    const [bottom = '', side = ''] = ids(part)
    const sized = must(
      part,
      addSize(SKETCH, { kind: 'length', line: bottom }, 'wide'),
      addSize(SKETCH, { kind: 'length', line: side }, 'len1 / 2'),
    )
    const copied = must(sized, copyItems(SKETCH, ids(sized), shift({ x: 60, y: 5 }), true))
    const formulas = sketchOf(copied).sizes.map((s) => `${s.name}=${s.formula}`)
    expect(formulas).toEqual(['len1=wide', 'len2=len1 / 2', 'len3=wide', 'len4=len3 / 2'])
    expect(freedoms(copied)).toBe(2 * freedoms(sized))
    expect(regions(copied)).toBe(2)
  })

  it('paste what was cut elsewhere, without what tied it there', () => {
    const part = draw(rectangle(at(0, 10, { on: [AXIS_ID] }), at(40, 30)))
    const held = unbound(moved(excerpt(sketchOf(part), ids(part)), shift({ x: 5, y: 0 })), true)
    const pasted = must(createPart({ name: 'Float' }), drawDraft('paste', SKETCH, held))
    expect(freedoms(pasted)).toBe(4)
  })

  it('turn and flip: directions a turn contradicts are taken off, arcs turn the other way', () => {
    const part = draw(slot(at(10, 15), at(30, 16), 4))
    const turned = must(
      part,
      moveItems(SKETCH, ids(part), turn({ x: 20, y: 15 }, 1), 'turn', false),
    )
    sound(turned)
    const flipped = must(
      part,
      moveItems(SKETCH, ids(part), reflect({ x: 20, y: 0 }, { x: 20, y: 9 }), 'flip', true),
    )
    sound(flipped)
    const square = draw(rectangle(at(0, 10), at(40, 30)))
    const slanted = must(
      square,
      moveItems(SKETCH, ids(square), turn({ x: 0, y: 0 }, 0.4), 'turn', false),
    )
    expect(sketchOf(slanted).constraints).toEqual([])
    expect(problemOf(part, copyItems(SKETCH, [], shift({ x: 1, y: 1 }), true))).toContain(
      'Nothing is picked',
    )
  })
})

describe('mirroring', () => {
  it('keeps both sides alike, shares what lies on the line, and closes the profile', () => {
    const half = must(
      createPart({ name: 'Line sheave' }),
      drawChain(SKETCH, [at(20, 0, { on: [AXIS_ID] }), at(20, 60)], [['radial']]),
    )
    const [middle = ''] = ids(half)
    const profile = must(
      half,
      drawChain(
        SKETCH,
        [
          at(20, 10, { on: [middle] }),
          at(5, 10),
          at(5, 40),
          at(12, 38),
          at(20, 30, { on: [middle] }),
        ],
        [['axial'], ['radial'], [], []],
      ),
      setRole(SKETCH, [middle], 'centre'),
    )
    const half1 = ids(profile).slice(1)
    const whole = must(profile, mirrorItems(SKETCH, half1, middle))
    expect(regions(whole)).toBe(1)
    sound(whole)
    expect(freedoms(whole)).toBe(freedoms(profile))
    const side = lineOf(sketchOf(whole), half1[1])
    const wide = must(
      whole,
      addSize(SKETCH, { kind: 'span', point: side?.from ?? '', about: middle }, '30'),
      addSize(SKETCH, { kind: 'diameter', point: side?.to ?? '' }, '90'),
    )
    const xs = sketchOf(wide).points.map((p) => p.x)
    const mid = place(wide, lineOf(sketchOf(wide), middle)?.from ?? '').x
    expect(Math.max(...xs) - mid).toBeCloseTo(15, 8)
    expect(mid - Math.min(...xs)).toBeCloseTo(15, 8)
  })

  it('mirrors arcs and circles with their radii', () => {
    const part = draw(circle(at(10, 20), 5), arcAbout(at(30, 20), at(36, 20), 1.2))
    const both = must(part, mirrorItems(SKETCH, ids(part), AXIS_ID))
    expect(freedoms(both)).toBe(freedoms(part))
    const [round = ''] = ids(both)
    const sized = must(both, addSize(SKETCH, { kind: 'radius', curve: round }, '7'))
    const image = sketchOf(sized).entities[2]
    const [piece] = image ? piecesOf(image, locator(sketchOf(sized))) : []
    expect(piece?.kind === 'arc' && radiusOf(piece)).toBeCloseTo(7, 8)
    expect(piece?.kind === 'arc' && piece.centre.y).toBeLessThan(0)
  })
})

describe('repeats', () => {
  /** One tooth of a grip: up steeply and down again. */
  const tooth = (): Part =>
    must(
      createPart({ name: 'Winding grip' }),
      drawChain(SKETCH, [at(0, 20), at(3, 26), at(10, 20)], [[], []]),
    )

  it('share the points where one copy ends and the next begins', () => {
    const part = tooth()
    const five = must(part, repeatItems(SKETCH, ids(part), { count: 5, pitch: 10, along: 'axial' }))
    expect(ids(five)).toHaveLength(10)
    expect(sketchOf(five).points).toHaveLength(11)
    expect(sketchOf(five).sizes).toEqual([])
    // The tooth's ends are level now, since each is the next one's start.
    expect(freedoms(five)).toBe(freedoms(part) - 1)
    expect(solve(sketchOf(five), new Map()).disagreements).toEqual([])
    const [up = ''] = ids(five)
    const steep = must(
      five,
      addSize(SKETCH, { kind: 'length', line: up }, '9'),
      addSize(SKETCH, { kind: 'diameter', point: lineOf(sketchOf(five), up)?.to ?? '' }, '60'),
    )
    const tops = linesOf(sketchOf(steep)).filter((_, i) => i % 2 === 0)
    const places = tops.map((l) => place(steep, l.to))
    places.forEach((p) => expect(2 * p.y).toBeCloseTo(60, 8))
    const pitches = places.slice(1).map((p, i) => p.x - (places[i]?.x ?? 0))
    pitches.forEach((p) => expect(p).toBeCloseTo(pitches[0] ?? 0, 8))
  })

  it('that stand apart have a size for their pitch, and change all when one is changed', () => {
    const part = must(
      createPart({ name: 'Line sheave' }),
      drawChain(SKETCH, [at(0, 30), at(3, 24), at(6, 30)], [[], []]),
    )
    const three = must(
      part,
      repeatItems(SKETCH, ids(part), { count: 3, pitch: 9, along: 'axial', formula: '9' }),
    )
    expect(sketchOf(three).sizes).toMatchObject([{ kind: 'axialDistance', formula: '9' }])
    expect(freedoms(three)).toBe(freedoms(part))
    const size = sketchOf(three).sizes[0]?.id ?? ''
    const wider = must(three, changeSize(SKETCH, size, '12'))
    const bottoms = linesOf(sketchOf(wider))
      .filter((_, i) => i % 2 === 0)
      .map((l) => place(wider, l.to))
    expect(bottoms.map((p) => p.x - (bottoms[0]?.x ?? 0))).toEqual([
      0,
      expect.closeTo(12, 8),
      expect.closeTo(24, 8),
    ])
  })

  it('are lengthened and shortened afterwards', () => {
    const part = tooth()
    const five = must(part, repeatItems(SKETCH, ids(part), { count: 5, pitch: 10, along: 'axial' }))
    const repeat = sketchOf(five).constraints.find((c) => c.kind === 'repeat')?.id ?? ''
    const seven = must(five, setRepeatCount(SKETCH, repeat, 7))
    expect(ids(seven)).toHaveLength(14)
    expect(freedoms(seven)).toBe(freedoms(five))
    const three = must(seven, setRepeatCount(SKETCH, repeat, 3))
    expect(ids(three)).toHaveLength(6)
    expect(sketchOf(three).points).toHaveLength(7)
    expect(freedoms(three)).toBe(freedoms(five))
    expect(problemOf(three, setRepeatCount(SKETCH, repeat, 1))).toContain('2 to 200')
    expect(problemOf(three, setRepeatCount(SKETCH, 'gone', 4))).toContain('gone')
  })

  it('carry arcs, which stay round, and go square to the axis or along a line', () => {
    const base = draw(arcAbout(at(30, 30), at(36, 30), Math.PI))
    const part = must(
      base,
      repeatItems(SKETCH, ids(base), { count: 3, pitch: 15, along: 'radial' }),
    )
    expect(freedoms(part)).toBe(freedoms(base))
    const [arc = ''] = ids(part)
    const sized = must(part, addSize(SKETCH, { kind: 'radius', curve: arc }, '4'))
    for (const e of sketchOf(sized).entities) {
      const [piece] = piecesOf(e, locator(sketchOf(sized)))
      expect(piece?.kind === 'arc' && radiusOf(piece)).toBeCloseTo(4, 8)
    }
    const guide = must(base, drawChain(SKETCH, [at(0, 10), at(30, 40)], [[]]))
    const [first = '', line = ''] = ids(guide)
    const slanted = must(guide, repeatItems(SKETCH, [first], { count: 3, pitch: 20, along: line }))
    expect(freedoms(slanted)).toBe(freedoms(guide))
  })

  it('lose what is deleted from every copy, and go when their source goes', () => {
    const part = tooth()
    const five = must(part, repeatItems(SKETCH, ids(part), { count: 5, pitch: 10, along: 'axial' }))
    const gone = must(five, removeItems(SKETCH, ids(five).slice(0, 2)))
    sound(must(gone, removeItems(SKETCH, ids(gone))))
  })
})

describe('an offset', () => {
  it('keeps one distance all along, which one size drives', () => {
    const part = must(
      createPart({ name: 'Ink flask' }),
      drawChain(
        SKETCH,
        [at(0, 20), at(40, 20), at(40, 50), at(70, 62)],
        [['axial'], ['radial'], []],
      ),
    )
    const beside = must(
      part,
      offsetChain({ sketch: SKETCH, ids: ids(part), formula: '3', side: { x: 20, y: 10 } }),
    )
    expect(ids(beside)).toHaveLength(6)
    expect(state(beside)?.solution.disagreements).toEqual([])
    const [wall] = sketchOf(beside).sizes
    const thick = must(beside, changeSize(SKETCH, wall?.id ?? '', '5'))
    const [outer, , , inner] = linesOf(sketchOf(thick))
    const gap = place(thick, outer?.from ?? '').y - place(thick, inner?.from ?? '').y
    expect(gap).toBeCloseTo(5, 8)
    const measured = evaluate(thick).sketches.get(SKETCH)?.measured
    sketchOf(thick).sizes.forEach((s) => expect(measured?.get(s.id)).toBeCloseTo(5, 8))
    expect(
      problemOf(part, offsetChain({ sketch: SKETCH, ids: [], formula: '3', side: { x: 0, y: 0 } })),
    ).toContain('not one chain')
  })
})

describe('scaling all', () => {
  it('brings one size to a value and the rest in proportion, formulas too', () => {
    const part = draw(rectangle(at(0, 10), at(40, 30)))
    const [bottom = '', side = ''] = ids(part)
    const sized = must(
      part,
      setValue({ name: 'tall', measure: 'length', formula: '20' }),
      addSize(SKETCH, { kind: 'length', line: bottom }, '40'),
      addSize(SKETCH, { kind: 'length', line: side }, 'tall'),
    )
    const scaled = must(sized, scaleAll(SKETCH, sketchOf(sized).sizes[0]?.id ?? '', '100'))
    expect(sketchOf(scaled).sizes.map((s) => s.formula)).toEqual(['100', '(tall) * 2.5'])
    expect(
      evaluate(scaled)
        .sketches.get(SKETCH)
        ?.measured.get(sketchOf(scaled).sizes[1]?.id ?? ''),
    ).toBeCloseTo(50, 9)
  })
})

/** Lines through corners, closed, tied to nothing. */
const polygonThrough = (corners: readonly End[]): Draft => ({
  points: Object.fromEntries(corners.map((corner, i) => [`~p${i}`, corner])),
  entities: corners.map((_, i) => ({
    ...{ id: `~e${i}`, kind: 'line' as const, role: 'outline' as const },
    ...{ from: `~p${i}`, to: `~p${(i + 1) % corners.length}` },
  })),
})

describe('what is missing', () => {
  it('is proposed longest first and finishes the profile when taken', () => {
    const part = draw(rectangle(at(5, 10), at(40, 30)))
    const proposals = missingItems(part, SKETCH)
    expect(proposals).toHaveLength(freedoms(part))
    const extents = proposals.map((p) => p.extent)
    expect([...extents].sort((a, b) => b - a)).toEqual(extents)
    const done = proposals.reduce((here, p) => {
      const sizes = p.kind === 'size' ? [{ offer: p.offer, formula: '30' }] : []
      const ties = p.kind === 'tie' ? [p.tie] : []
      return must(here, drawDraft('take', SKETCH, { points: {}, entities: [], ties, sizes }))
    }, part)
    expect(freedoms(done)).toBe(0)
    expect(missingItems(done, SKETCH)).toEqual([])
  })

  it('of a shaft with many grooves is found and taken at once', () => {
    const corners = Array.from({ length: 60 }, (_, i) => {
      const [x, deep, high] = [5 * i, 8 + (i % 3), 12 + 0.1 * (i % 7)]
      return [at(x, high), at(x + 3, high), at(x + 3, deep), at(x + 5, deep)]
    }).flat()
    const ring = [at(0, 0), ...corners, at(300, 0)]
    const part = draw(polygonThrough(ring))
    const proposals = missingItems(part, SKETCH, new Set(), 2000)
    expect(proposals).toHaveLength(freedoms(part))
    const items = proposals.map((proposal) => ({
      proposal,
      formula: proposal.kind === 'size' ? String(proposal.extent) : '',
    }))
    const taken = withProposals(part, SKETCH, items)
    expect(taken && freedoms(taken)).toBe(0)
    const solution = taken && evaluate(taken).sketches.get(SKETCH)?.solution
    expect(solution?.disagreements).toEqual([])
    // One more of them says what is said already, and all of them do not stand together.
    const [first] = items
    expect(taken && first && withProposals(taken, SKETCH, [first])).toBeUndefined()
  })

  it('shows how it can still move: along its constraints, and not at all when nothing can', () => {
    const part = must(
      draw(rectangle(at(5, 10), at(40, 30))),
      constrain(SKETCH, 'fixed', [
        sketchOf(draw(rectangle(at(5, 10), at(40, 30)))).points[0]?.id ?? '',
      ]),
    )
    const motion = freeMotion(sketchOf(part), new Map())
    expect(motion.size).toBe(3)
    expect(Math.max(...[...motion.values()].map((v) => Math.hypot(v.x, v.y)))).toBeCloseTo(1, 9)
    const [, b, c] = sketchOf(part).points
    expect(motion.get(b?.id ?? '')?.x).toBeCloseTo(motion.get(c?.id ?? '')?.x ?? 0, 9)
    expect(motion.get(b?.id ?? '')?.y).toBeCloseTo(0, 9)
  })
})

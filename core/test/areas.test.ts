import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  addRevolve,
  changeStep,
  createPart,
  drawChain,
  evaluate,
  perform,
  profileOf,
  sectionArea,
  vec,
  type Command,
  type Part,
  type RevolveStep,
  type SectionEdge,
  type Step,
  type Vec,
} from '../src'
import { arc, line, type Piece } from '../src/geometry'

const edges = (pieces: readonly Piece[]): SectionEdge[] =>
  pieces.map((piece, i) => ({ piece, name: { step: 's', entity: `e${i + 1}`, role: 'drawn' } }))

const chain = (...places: readonly (readonly [number, number])[]): Piece[] =>
  places.slice(1).map(([x, y], i) => line(vec(...(places[i] ?? [0, 0])), vec(x, y)))

/** A turned bar of so much length and radius, open along the axis. */
const bar = (length: number, radius: number): Piece[] =>
  chain([0, 0], [0, radius], [length, radius], [length, 0])

const areaSum = (pieces: readonly Piece[]): number[] =>
  profileOf(edges(pieces), 's')
    .areas()
    .all.map((a) => sectionArea({ regions: [a.region] }))

describe('areas of a profile', () => {
  it('are those on both sides of a line down to the axis; both are material', () => {
    const profile = profileOf(edges([...bar(60, 10), ...chain([20, 10], [20, 0])]), 's')
    expect(profile.faults).toEqual([])
    expect(sectionArea(profile.section)).toBeCloseTo(600, 9)
    // The line that only divides leaves no edge, and what it parted is one again.
    expect(profile.section.regions[0]?.outer).toHaveLength(4)
    const { all, together, meant } = profile.areas()
    expect(all.map((a) => a.solid)).toEqual([true, true])
    expect(sectionArea(together(new Set([0])))).toBeCloseTo(200, 9)
    expect(sectionArea(together(new Set([1])))).toBeCloseTo(400, 9)
    expect(together(new Set([0, 1])).regions[0]?.outer).toHaveLength(4)
    expect([...meant([all[1]?.key ?? []])]).toEqual([1])
    // What was chosen before the line was drawn is still all of it.
    expect([...meant([['e1', 'e2', 'e3']])]).toEqual([0, 1])
  })

  it('are hollows as well, which are no material unless they are chosen', () => {
    const hollow = chain([20, 0], [20, 6], [40, 6], [40, 0])
    const profile = profileOf(edges([...bar(60, 10), ...hollow]), 's')
    expect(sectionArea(profile.section)).toBeCloseTo(600 - 120, 9)
    const { all, together } = profile.areas()
    expect(all.map((a) => a.solid)).toEqual([true, false])
    expect(sectionArea(together(new Set([0, 1])))).toBeCloseTo(600, 9)
    const holed = profileOf(edges([...bar(60, 10), ...ring(30, 5, 2)]), 's')
    expect(holed.areas().all.map((a) => a.solid)).toEqual([true, false])
    expect(holed.section.regions[0]?.holes).toHaveLength(1)
  })

  it('between dividing lines are material, and hollows beside them stay hollows', () => {
    const dividers = [...chain([20, 10], [20, 0]), ...chain([40, 10], [40, 0])]
    const two = profileOf(edges([...bar(60, 10), ...dividers]), 's')
    expect(sectionArea(two.section)).toBeCloseTo(600, 9)
    expect(two.areas().all.map((a) => a.solid)).toEqual([true, true, true])
    const hollow = chain([44, 0], [44, 6], [50, 6], [50, 0])
    const floating = chain([25, 4], [25, 6], [30, 6], [30, 4], [25, 4])
    const three = profileOf(edges([...bar(60, 10), ...dividers, ...hollow, ...floating]), 's')
    expect(sectionArea(three.section)).toBeCloseTo(600 - 36 - 10, 9)
    expect(three.areas().all.map((a) => a.solid)).toEqual([true, true, false, true, false])
  })

  it('in hollows in hollows are material again, on the axis as off it', () => {
    const nested = [1, 2, 3].flatMap((k) => {
      const [from, to, r] = [10 * k, 100 - 10 * k, 40 - 10 * k]
      return chain([from, 0], [from, r], [to, r], [to, 0])
    })
    const onAxis = profileOf(edges(nested), 's')
    expect(onAxis.areas().all.map((a) => a.solid)).toEqual([true, false, true])
    expect(sectionArea(onAxis.section)).toBeCloseTo(80 * 30 - 60 * 20 + 40 * 10, 9)
    const rings = [3, 2, 1].flatMap((r) => ring(50, 20, 4 * r))
    const inHollow = profileOf(
      edges([...bar(100, 50), ...chain([5, 0], [5, 45], [95, 45], [95, 0]), ...rings]),
      's',
    )
    expect(inHollow.areas().all.map((a) => a.solid)).toEqual([true, false, true, false, true])
  })

  it('with the same entities around them are told apart by their order', () => {
    const disc = [...ring(30, 10, 4), ...chain([30, 6], [30, 14])]
    const { all, meant } = profileOf(edges(disc), 's').areas()
    expect(all).toHaveLength(2)
    for (const [i, { key }] of all.entries()) expect([...meant([key])]).toEqual([i])
  })

  it('a line that ends in the air divides nothing and is told', () => {
    const profile = profileOf(edges([...bar(60, 10), ...chain([20, 10], [20, 5])]), 's')
    expect(profile.faults.map((f) => f.kind)).toEqual(['open'])
    expect(profile.areas().all).toHaveLength(1)
    expect(sectionArea(profile.section)).toBeCloseTo(600, 9)
  })

  it('lines that cross, or lie on one another in part, stay faults', () => {
    const over = profileOf(edges([...bar(60, 10), ...chain([20, 12], [20, 0])]), 's')
    expect(over.faults[0]?.kind).toBe('crossing')
    const along = profileOf(edges([...bar(60, 10), ...chain([20, 10], [30, 10])]), 's')
    expect(along.faults[0]?.kind).toBe('crossing')
    // A hollow whose corner touches the outline leaves no wall there.
    const touching = chain([20, 4], [25, 10], [30, 4], [20, 4])
    expect(profileOf(edges([...bar(60, 10), ...touching]), 's').faults[0]?.kind).toBe('crossing')
    expect(over.areas().all).toEqual([])
  })

  it('add up to the whole however a bar is divided', () => {
    const places = fc.uniqueArray(fc.integer({ min: 1, max: 59 }), { maxLength: 6 })
    fc.assert(
      fc.property(places, fc.integer({ min: 1, max: 9 }), (xs, height) => {
        const level = chain([0, height], [60, height])
        const upright = xs.flatMap((x) => chain([x, 10], [x, height]))
        const parts = areaSum([...bar(60, 10), ...level, ...upright])
        expect(parts).toHaveLength(xs.length + 2)
        expect(parts.reduce((sum, a) => sum + a, 0)).toBeCloseTo(600, 8)
      }),
    )
  })
})

/** A circle of two arcs. */
const ring = (x: number, y: number, r: number): Piece[] => [
  arc(vec(x, y - r), vec(x, y + r), vec(x, y), true),
  arc(vec(x, y + r), vec(x, y - r), vec(x, y), true),
]

describe('a step made from chosen areas', () => {
  const done = (part: Part, command: Command): Part => {
    const result = perform(part, command)
    if (!result.ok) throw new Error(result.problem.message)
    return result.value
  }
  const drawn = (part: Part, ...places: readonly Vec[]): Part =>
    done(
      part,
      drawChain(
        part.sketches[0]?.id ?? '',
        places.map((at) => ({ at })),
        [],
      ),
    )
  const choose = (part: Part, areas: readonly number[]): Part => {
    const step = part.route[0] as RevolveStep
    const { all } = evaluate(part).sketches.get(step.sketch)?.profile.areas() ?? { all: [] }
    const regions = areas.map((i) => [...(all[i]?.key ?? [])])
    return done(
      part,
      changeStep(step.id, (s) => ({ ...s, regions }) as Step),
    )
  }
  const area = (part: Part): number =>
    sectionArea(evaluate(part).bodies[0]?.section ?? { regions: [] })

  const outline = drawn(
    createPart({ name: 'Spindle' }),
    ...[vec(0, 0), vec(0, 10), vec(60, 10), vec(60, 0)],
  )
  const whole = done(outline, addRevolve(outline.sketches[0]?.id ?? ''))

  it('turns one side of a dividing line, and again the other', () => {
    const parted = drawn(whole, vec(20, 10), vec(20, 0))
    expect(area(parted)).toBeCloseTo(600, 8)
    const one = choose(parted, [0])
    expect(area(one)).toBeCloseTo(200, 8)
    expect(area(choose(one, [1]))).toBeCloseTo(400, 8)
    const key = evaluate(one).bodies[0]?.section.regions[0]?.outer.map((e) => e.name.role)
    expect(key?.filter((role) => role === 'axis')).toHaveLength(1)
  })

  it('keeps what was chosen when more lines are drawn in it', () => {
    const parted = choose(drawn(whole, vec(20, 10), vec(20, 0)), [1])
    const again = drawn(parted, vec(40, 10), vec(40, 0))
    const { all, meant } =
      evaluate(again)
        .sketches.get(again.sketches[0]?.id ?? '')
        ?.profile.areas() ?? {}
    expect(all).toHaveLength(3)
    const { regions } = again.route[0] as RevolveStep
    expect([...(meant?.(regions === 'all' ? [] : regions) ?? [])].length).toBeGreaterThan(0)
    expect(evaluate(again).steps[0]?.status).toBe('done')
  })
})

import { describe, expect, it } from 'vitest'
import {
  addRevolve,
  addSize,
  addSketch,
  changeSize,
  constrain,
  createPart,
  drawChain,
  evaluate,
  linesOf,
  nameItems,
  perform,
  removeItems,
  setAside,
  setMaterial,
  startDrag,
  STOCK_MATERIALS,
  valuesOf,
  withDragged,
  type End,
  type Part,
} from '../src'
import { must, sketchOf } from './support/parts'

const at = (x: number, y: number, extra: Partial<End> = {}): End => ({ at: { x, y }, ...extra })
/** A cylinder drawn in one profile: radial, axial, radial. */
function cylinder(part: Part, sketch: string, from: number, radius: number, length: number): Part {
  const ends = [
    at(from, 0, { on: ['axis'] }),
    at(from, radius),
    at(from + length, radius),
    at(from + length, 0, { on: ['axis'] }),
  ]
  return must(part, drawChain(sketch, ends, [['radial'], ['axial'], ['radial']]))
}

function twoBodies(): Part {
  const first = cylinder(createPart({ name: 'Float' }), 'sketch2', 0, 20, 50)
  const turned = must(first, addRevolve('sketch2'), addSketch())
  const second = sketchOf(turned, 1).id
  return must(cylinder(turned, second, 60, 5, 30), addRevolve(second))
}

describe('the route', () => {
  it('makes a body of each profile, and tells what mass each step added', () => {
    const part = twoBodies()
    const { steps, bodies } = evaluate(part)
    const density = STOCK_MATERIALS[0]?.density ?? 0
    const masses = [Math.PI * 400 * 50 * density, Math.PI * 25 * 30 * density]
    expect(part.route.map((s) => s.number)).toEqual([10, 20])
    expect(part.bodies.map((b) => b.name)).toEqual(['body 1', 'body 2'])
    masses.forEach((mass, i) => {
      expect(steps[i]?.massChange).toBeCloseTo(mass, 9)
      expect(bodies[i]?.mass).toBeCloseTo(mass, 9)
    })
  })

  it('names every edge after its step and the line it was drawn as', () => {
    const part = twoBodies()
    const { bodies } = evaluate(part)
    part.route.forEach((step, i) => {
      const names = bodies[i]?.section.regions[0]?.outer.map((e) => e.name) ?? []
      const drawn = sketchOf(part, i).entities.map((e) => e.id)
      expect(names.every((n) => n.step === step.id)).toBe(true)
      expect(
        names
          .filter((n) => n.role === 'drawn')
          .map((n) => n.entity)
          .sort(),
      ).toEqual(drawn.sort())
      expect(names.filter((n) => n.role === 'axis').map((n) => n.entity)).toEqual(['axis'])
    })
  })

  it('keeps the names when sizes change', () => {
    const part = twoBodies()
    const line = linesOf(sketchOf(part))[1]?.id ?? ''
    const names = (p: Part) => evaluate(p).bodies[0]?.section.regions[0]?.outer.map((e) => e.name)
    const sized = must(part, addSize('sketch2', { kind: 'length', line }, '80'))
    expect(names(sized)).toEqual(names(part))
  })

  it('runs later steps when an earlier one fails, and says what the failed one lost', () => {
    const part = twoBodies()
    const broken = must(part, removeItems('sketch2', [linesOf(sketchOf(part))[1]?.id ?? '']))
    const { steps, bodies } = evaluate(broken)
    expect(steps.map((s) => s.status)).toEqual(['failed', 'done'])
    expect(steps[0]?.problem?.code).toBe('profile.open')
    expect(bodies[0]?.mass).toBe(0)
    expect(bodies[1]?.mass).toBeGreaterThan(0)
  })

  it('gives no mass to a step that is set aside', () => {
    const part = twoBodies()
    const aside = must(part, setAside(part.route[0]?.id ?? '', true))
    expect(evaluate(aside).steps.map((s) => [s.status, s.massChange > 0])).toEqual([
      ['aside', false],
      ['done', true],
    ])
  })

  it('computes only what an edit concerns', () => {
    const part = twoBodies()
    const before = evaluate(part)
    const line = linesOf(sketchOf(part, 1))[1]?.id ?? ''
    const edited = must(part, addSize(sketchOf(part, 1).id, { kind: 'length', line }, '40'))
    const after = evaluate(edited)
    expect(evaluate(part)).toBe(before)
    expect(after.sketches.get('sketch2')).toBe(before.sketches.get('sketch2'))
    expect(after.bodies[0]?.section).toBe(before.bodies[0]?.section)
    expect(after.bodies[1]?.section).not.toBe(before.bodies[1]?.section)
  })

  it('weighs bodies of one shape in different materials', () => {
    const part = twoBodies()
    const lead = STOCK_MATERIALS.find((m) => m.id === 'lead')
    if (!lead) throw new Error('lead is in stock')
    const heavy = must(part, setMaterial(part.bodies[1]?.id ?? '', lead))
    const ratio = (p: Part): number => evaluate(p).bodies[1]?.mass ?? 0
    expect(ratio(heavy) / ratio(part)).toBeCloseTo(11.34 / 7.85, 9)
    expect(heavy.materials.map((m) => m.id).sort()).toEqual(['lead', 'steel-c45'])
    expect(must(heavy, setMaterial('body1', lead)).materials.map((m) => m.id)).toEqual(['lead'])
  })
})

describe('dragging within a part', () => {
  it('shows section and mass of every place it passes, as if the profile were drawn there', () => {
    const part = twoBodies()
    const sketch = sketchOf(part)
    const land = linesOf(sketch)[1]
    const session = startDrag(sketch, valuesOf(part).sizesOf(sketch.id).values, [land?.from ?? ''])
    for (const by of [3, 7, -5]) {
      const shown = withDragged(part, sketch.id, session.move({ x: 0, y: by }))
      const solid = evaluate(shown).bodies[0]?.solid
      expect(solid?.volume).toBeCloseTo(Math.PI * (20 + by) ** 2 * 50, 6)
      expect(evaluate(shown).sketches.get(sketch.id)?.solution.freedoms).toBe(3)
    }
  })
})

describe('sentences about a profile', () => {
  it('name a few constraints, and count many beside the sizes', () => {
    const part = twoBodies()
    const sketch = sketchOf(part)
    const ids = sketch.constraints.map((c) => c.id)
    expect(nameItems(sketch, ids.slice(0, 2))).toEqual(['point 1 on the axis', 'line 1 radial'])
    expect(nameItems(sketch, ids)).toHaveLength(ids.length)
    const line = linesOf(sketch)[1]?.id ?? ''
    const sized = sketchOf(must(part, addSize('sketch2', { kind: 'length', line }, '50')))
    const all = [...ids, ...sized.sizes.map((s) => s.id)]
    expect(nameItems(sized, all)).toEqual([
      'length of line 2, len1 = 50',
      `and ${ids.length} constraints`,
    ])
    expect(nameItems(sketch, ['gone'])).toEqual([])
  })

  it('refuse a size too many with its short list, and light all who are in it', () => {
    const part = twoBodies()
    const [, land] = linesOf(sketchOf(part))
    const offer = { kind: 'length' as const, line: land?.id ?? '' }
    const sized = must(part, addSize('sketch2', offer, '50'))
    const ends = { a: land?.from ?? '', b: land?.to ?? '' }
    const refused = perform(sized, addSize('sketch2', { kind: 'axialDistance', ...ends }, '50'))
    if (refused.ok) throw new Error('went through')
    expect(refused.problem.message).toContain('len1 = 50')
    expect(refused.problem.involves).toContain(sketchOf(sized).sizes[0]?.id)
  })

  it('let a point be fixed the way it is still free, and refuse it when it is held both ways', () => {
    const part = twoBodies()
    const point = linesOf(sketchOf(part))[1]?.from ?? ''
    const fixed = must(part, constrain('sketch2', 'fixed', [point]))
    expect(evaluate(fixed).sketches.get('sketch2')?.solution.pointFreedoms.get(point)).toBe(0)
    const again = perform(fixed, constrain('sketch2', 'fixed', [point]))
    expect(again.ok ? '' : again.problem.message).toContain('holds already')
  })

  it('keep a value that cannot hold as it was typed, with the last good places', () => {
    const drawn = must(
      createPart({ name: 'Cone' }),
      drawChain('sketch2', [at(0, 10), at(20, 25)], [[]]),
    )
    const [line] = linesOf(sketchOf(drawn))
    const sized = must(
      drawn,
      addSize('sketch2', { kind: 'length', line: line?.id ?? '' }, '30'),
      addSize('sketch2', { kind: 'axialDistance', a: line?.from ?? '', b: line?.to ?? '' }, '20'),
    )
    const length = sketchOf(sized).sizes[0]?.id ?? ''
    const short = must(sized, changeSize('sketch2', length, '10'))
    expect(sketchOf(short).points).toEqual(sketchOf(sized).points)
    expect(sketchOf(short).sizes[0]?.formula).toBe('10')
    const [disagreement] = evaluate(short).sketches.get('sketch2')?.solution.disagreements ?? []
    expect(disagreement?.kind).toBe('conflict')
    expect(new Set(disagreement?.members)).toEqual(new Set(sketchOf(short).sizes.map((s) => s.id)))
    const back = must(short, changeSize('sketch2', length, '25'))
    expect(evaluate(back).sketches.get('sketch2')?.solution.solved).toBe(true)
  })
})

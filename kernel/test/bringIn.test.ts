import { beforeAll, expect, test } from 'vitest'
import { edgesOf, extentOf } from '@lathica/core/section'
import { createPart, type NewStep, type Part } from '@lathica/core/part'
import { evaluate, faceWords, settle, type PartState } from '@lathica/core/route'
import { addStep, bringSolids, offeredHoles } from '@lathica/core/edit'
import { readPart, toDocument } from '@lathica/core/formats'
import { demoPart } from '../../core/test/support/demo'
import { KernelFault, builtGeometry, settlePlans, solidsFromFile, type Kernel } from '../src'
import { run, watertight } from './support'
import { sharedKernel } from './support/kernel'

let kernel: Kernel
let text: string
let wheel: Part
beforeAll(async () => {
  kernel = await sharedKernel()
  wheel = demoPart('winding-wheel')
  text = builtGeometry(kernel, settled(wheel), 0.1).step ?? ''
})

const brought = (): Part =>
  run(createPart({ name: 'Gauge' }), bringSolids(solidsFromFile(kernel, text), 'wheel'))
const bodyOf = (part: Part) => {
  const found = evaluate(part).bodies[1]
  if (!found) throw new Error('there is no such body')
  return found
}
const settled = (part: Part): PartState => settlePlans(part, (plan) => kernel.weigh(plan))
const volumeOf = (part: Part): number => settled(part).bodies[1]?.solid?.volume ?? 0

test('a solid of a file is a body of the open part, weighed, under its name', () => {
  const part = brought()
  expect(part.bodies.map((b) => [b.name, b.reference])).toEqual([
    ['body 1', false],
    ['wheel', false],
  ])
  const own = settled(wheel).bodies[0]?.solid
  expect(volumeOf(part) / (own?.volume ?? 1)).toBeCloseTo(1, 6)
  // Kept in a part file it comes back the same.
  const again = readPart(JSON.parse(JSON.stringify(toDocument(part))))
  expect(again.ok && again.value).toEqual(settle(part))
})

test('it has the half-section that it was turned to, and is drilled like any other', () => {
  const part = brought()
  const { section } = bodyOf(part)
  const words = edgesOf(section).map((e) => faceWords(e, part.units))
  expect(words).toContain('cylinder ⌀80')
  expect(extentOf(section)).toEqual([expect.closeTo(0, 6), expect.closeTo(24, 6)])
  const face = edgesOf(section).find((e) => {
    const { from, to } = e.piece
    return Math.abs(from.x - to.x) < 1e-6 && Math.max(from.y, to.y) > 30
  })
  if (!face) throw new Error('there is no end face')
  const holes = {
    ...offeredHoles(part.bodies[1]?.id ?? '', face, section, part.units),
    ...{
      circle: '44',
      count: '1',
      start: '30',
      diameter: '3',
      reach: 'depth',
      depth: '2',
      tip: 'flat',
    },
  } as NewStep
  const before = volumeOf(part)
  const drilled = run(part, addStep(holes))
  expect(evaluate(drilled).steps.at(-1)?.problem).toBeUndefined()
  expect(before - volumeOf(drilled)).toBeCloseTo((Math.PI / 4) * 9 * 2, 4)
  const { plan } = bodyOf(drilled)
  expect(plan && watertight(kernel.build(plan, 0.1).mesh)).toBe(true)
})

test('what is no full turn is told as a ring, as near to the axis and as far out as it goes', () => {
  const state = settled(demoPart('guide-segment'))
  const own = edgesOf(state.bodies[0]?.section ?? { regions: [] })
  const inner = Math.min(...own.map((e) => e.piece.from.y))
  const guide = builtGeometry(kernel, state, 0.1).step ?? ''
  const part = run(
    createPart({ name: 'Gauge' }),
    bringSolids(solidsFromFile(kernel, guide), 'guide'),
  )
  const { section } = bodyOf(part)
  const radii = edgesOf(section).map((e) => e.piece.from.y)
  expect(Math.min(...radii)).toBeCloseTo(inner, 6)
  // The straight run goes on for 30 along the tangent.
  const outer = Math.max(...own.map((e) => e.piece.from.y))
  expect(Math.max(...radii)).toBeCloseTo(Math.hypot(outer, 30), 6)
})

test('what is no file of solids is refused', () => {
  expect(() => solidsFromFile(kernel, 'nonsense')).toThrow(KernelFault)
})

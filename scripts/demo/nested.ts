import { AXIS_ID, ORIGIN_ID } from '@lathica/core/sketch'
import { createPart, type Part } from '@lathica/core/part'
import {
  addRevolve,
  addSize,
  addSketch,
  changeBody,
  constrain,
  drawDraft,
  setMaterial,
  steppedShaft,
} from '@lathica/core/edit'
import { chamfer, withSteps } from './finishing'
import { draw, material, run, sizeAndTurn } from './outline'

/** The roller that guides the float's line, caught in its ring: two bodies that do not touch. */
export function guideRoller(): Part {
  const start = createPart({ name: 'Guide roller', material: material('bronze-cusn8') })
  const rough = draw(start, [
    [0, 16],
    [0, 44],
    [24, 44],
    [24, 16],
    [22, 16],
    [22, 24.4],
    [2, 24.4],
    [2, 16],
  ])
  const { id: outline } = rough.sketches[0] ?? { id: '' }
  const first = rough.sketches[0]?.points[0]?.id ?? ''
  const placed = run(rough, constrain(outline, 'inLine', [first, ORIGIN_ID]))
  const ring = withSteps(
    sizeAndTurn(placed, [
      ['⌀', 1, '44'],
      ['⌀', 0, '16'],
      ['⌀', 5, '24.4'],
      ['along', 0, 2, '24'],
      ['along', 4, 3, '2'],
      ['along', 0, 7, '2'],
      ['⌀', 3, '16'],
    ]),
    chamfer('1', [
      [0, 44],
      [24, 44],
    ]),
  )
  const second = run(ring, addSketch())
  const own = second.sketches[1]?.id ?? ''
  const pairs = [
    [10, 8.15],
    [24, 19.7],
    [10, 8.15],
  ].map(([d = 0, l = 0]) => ({
    diameter: { formula: String(d), value: d },
    length: { formula: String(l), value: l },
  }))
  const shaft = steppedShaft({ at: { x: -6, y: 0 }, on: [AXIS_ID] }, pairs)
  const drawn = run(second, drawDraft('draw roller', own, shaft))
  const shoulder = drawn.sketches[1]?.points.find((p) => Math.abs(p.x - 2.15) < 1e-6)
  if (!shoulder) throw new Error('the roller is drawn')
  return run(
    drawn,
    addSize(own, { kind: 'axialDistance', a: ORIGIN_ID, b: shoulder.id }, '2.15'),
    addRevolve(own),
    changeBody('body1', { name: 'ring' }),
    changeBody(`body${drawn.nextId}`, { name: 'roller' }),
    setMaterial(`body${drawn.nextId}`, material('steel-1.4301')),
  )
}

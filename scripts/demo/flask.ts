import { AXIS_ID, ORIGIN_ID } from '@lathica/core/sketch'
import { createPart, type Part } from '@lathica/core/part'
import { addRevolve, addSize, drawChain, setCurveEnd, setValue } from '@lathica/core/edit'
import { curveOf, curved, sized, type Places } from './curves'
import { face, fillet, groove, withSteps } from './finishing'
import { material, run } from './outline'

const BELLY: Places = [
  [0, 36],
  [7, 44.5],
  [20, 48],
  [36, 41],
  [50, 26],
  [60, 22],
]

/**
 * The flask that feeds the pen: its belly is a free curve, held where it is widest by what it takes, and goes on into
 * the neck without a corner. It is turned full, rounded and hollowed out after that, so that its inside runs beside
 * the rounded outside.
 */
export function inkFlask(): Part {
  const start = createPart({ name: 'Ink flask', lie: 'standing', material: material('glass') })
  const sketch = start.sketches[0]?.id ?? ''
  const floor = run(
    start,
    setValue({ name: 'wall', measure: 'length', formula: '2.5' }),
    drawChain(
      sketch,
      [{ at: { x: 0, y: 0 }, point: ORIGIN_ID }, { at: { x: 0, y: 18 } }],
      [['radial']],
    ),
  )
  const belly = curved(floor, sketch, BELLY, floor.sketches[0]?.points.at(-1)?.id)
  const { id, to } = curveOf(belly, 0)
  const closed = run(
    belly,
    drawChain(
      sketch,
      [
        { at: { x: 60, y: 11 }, point: to },
        { at: { x: 78, y: 11 } },
        { at: { x: 78, y: 0 }, on: [AXIS_ID] },
      ],
      [['axial'], ['radial']],
    ),
    setCurveEnd(sketch, id, to, 'smooth'),
  )
  const { toHandle } = curveOf(closed, 0)
  const neck = closed.sketches[0]?.entities.find((e) => e.kind === 'line' && e.from === to)
  const held = run(
    sized(closed, 0, BELLY, [0, 2]),
    addSize(sketch, { kind: 'diameter', point: curveOf(closed, 0).from }, '36'),
    addSize(sketch, { kind: 'length', line: neck?.id ?? '' }, '18'),
    addSize(sketch, { kind: 'greatestDiameter', curve: id }, '48'),
    addSize(sketch, { kind: 'greatestAt', curve: id }, '20'),
    addSize(sketch, { kind: 'axialDistance', a: toHandle, b: to }, '4'),
  )
  return withSteps(
    run(held, addRevolve(sketch)),
    fillet('3', [[0, 36]]),
    (part) => ({
      ...{
        kind: 'shell',
        body: 'body1',
        side: 'inside',
        thickness: 'wall',
        corners: 'sharp',
        follow: 'turn',
      },
      ...{ open: [face(part, 'face at 78')], faces: [] },
    }),
    groove('cylinder ⌀22', {
      form: 'round',
      place: { from: 'end', second: '', to: 'middle', distance: '4' },
      sizes: { radius: '1.5', depth: '0.8', bottom: '' },
    }),
  )
}

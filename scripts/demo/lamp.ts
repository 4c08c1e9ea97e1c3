import { AXIS_ID, ORIGIN_ID } from '@lathica/core/sketch'
import { createPart, type Material, type Part } from '@lathica/core/part'
import {
  FULL_WALL,
  addRevolve,
  addSketch,
  changeBody,
  changeSketch,
  drawChain,
  intoNewBody,
  setMaterial,
} from '@lathica/core/edit'
import { curveOf, curved, sized, type Places } from './curves'
import { withSteps } from './finishing'
import { material, run } from './outline'

/** Stiff paper for shades, of a weight that is usual for them. */
const PAPER: Material = {
  ...{ id: 'paper', name: 'shade paper', density: 0.0008, colour: '#efe3c4', look: 'fabric' },
}

const FOOT: Places = [
  [5, 96],
  [16, 70],
  [34, 30],
  [66, 16],
  [104, 24],
]
const SHADE: Places = [
  [92, 168],
  [112, 150],
  [146, 104],
  [184, 76],
  [200, 74],
]

/**
 * The lamp of the gauge house: a foot of brass whose side is one free curve, and a shade of paper whose curve was
 * pushed about by eye before its places were sized.
 */
export function gaugeLamp(): Part {
  const brass = material('brass-cuzn39pb3')
  const start = createPart({ name: 'Gauge lamp', lie: 'standing', material: brass })
  const foot = start.sketches[0]?.id ?? ''
  const plate = run(
    start,
    drawChain(
      foot,
      [{ at: { x: 0, y: 0 }, point: ORIGIN_ID }, { at: { x: 0, y: 48 } }, { at: { x: 5, y: 48 } }],
      [['radial'], ['axial']],
    ),
  )
  const side = curved(plate, foot, FOOT, plate.sketches[0]?.points.at(-1)?.id)
  const { to } = curveOf(side, 0)
  const closed = run(
    side,
    drawChain(
      foot,
      [
        { at: { x: 104, y: 12 }, point: to },
        { at: { x: 104, y: 0 }, on: [AXIS_ID] },
      ],
      [['radial']],
    ),
  )
  const made = run(sized(closed, 0, FOOT), addRevolve(foot), addSketch())
  const shade = made.sketches[1]?.id ?? ''
  const drawn = sized(curved(made, shade, SHADE), 1, SHADE)
  const walled = withSteps(drawn, () => ({
    ...{ kind: 'wall', sketch: shade, side: 'outside', thickness: '0.8', inner: '0.8' },
    ...{ corners: 'sharp', ends: 'flat', effect: 'add', body: 'body1', ...FULL_WALL },
  }))
  const apart = run(walled, intoNewBody(walled.route.at(-1)?.id ?? ''))
  const body = apart.bodies.at(-1)?.id ?? ''
  return run(
    apart,
    changeBody('body1', { name: 'foot' }),
    changeBody(body, { name: 'shade' }),
    changeSketch(foot, { name: 'foot' }),
    changeSketch(shade, { name: 'shade' }),
    setMaterial(body, PAPER),
  )
}

import { AXIS_ID, ORIGIN_ID } from '@lathica/core/sketch'
import { createPart, type Material, type Part } from '@lathica/core/part'
import {
  FULL_WALL,
  addRevolve,
  addSize,
  addSketch,
  changeBody,
  changeSketch,
  circle,
  drawChain,
  drawDraft,
  intoNewBody,
  setMaterial,
  type Command,
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
 * The lamp of the gauge house: a foot of brass whose side is one free curve, a shade of paper whose curve was pushed
 * about by eye before its places were sized, and the frame of wire that carries it.
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
  return framed(
    run(
      apart,
      changeBody('body1', { name: 'foot' }),
      changeBody(body, { name: 'shade' }),
      changeSketch(foot, { name: 'foot' }),
      changeSketch(shade, { name: 'shade' }),
      setMaterial(body, PAPER),
    ),
  )
}

/** The middles of the frame's rings: under the shade's edges, and on the foot; axial position and radius in mm. */
const RINGS = [
  [93.2, 82.7],
  [198.8, 35.7],
  [105.2, 10.5],
] as const
const WIRE = '2.4'

/** The frame that carries the shade: three rings of wire, and three wires from the foot to the upper ring. */
function framed(part: Part): Part {
  const rings = run(part, addSketch())
  const own = rings.sketches.at(-1)?.id ?? ''
  const drawn = RINGS.reduce(
    (here, [x, y]) => run(here, drawDraft('draw ring', own, circle({ at: { x, y } }, 1.2))),
    rings,
  )
  const circles = (p: Part) =>
    p.sketches.at(-1)?.entities.flatMap((e) => (e.kind === 'circle' ? [e] : [])) ?? []
  const sizes = circles(drawn).flatMap((ring, i): Command[] => {
    const [x = 0, y = 0] = RINGS[i] ?? []
    const { id, centre } = ring
    return [
      addSize(own, { kind: 'axialDistance', a: ORIGIN_ID, b: centre }, String(x)),
      addSize(own, { kind: 'diameter', point: centre }, String(2 * y)),
      addSize(own, { kind: 'curveDiameter', curve: id }, WIRE),
    ]
  })
  const turned = run(drawn, ...sizes, addRevolve(own))
  const body = turned.bodies.at(-1)?.id ?? ''
  const named = run(
    turned,
    changeBody(body, { name: 'frame' }),
    changeSketch(own, { name: 'rings' }),
    setMaterial(body, material('steel-1.4301')),
    addSketch(),
  )
  const path = named.sketches.at(-1)?.id ?? ''
  const [, upper, lower] = circles(drawn)
  const link = (id: string) => ({ link: { profile: own, item: id } })
  const [from, to] = [RINGS[2], RINGS[1]].map(([x, y]) => ({ at: { x, y } }))
  if (!from || !to) throw new Error('the rings have places')
  const wire = drawChain(
    path,
    [
      { ...from, ...link(lower?.centre ?? '') },
      { ...to, ...link(upper?.centre ?? '') },
    ],
    [],
  )
  const swept = withSteps(run(named, wire, changeSketch(path, { name: 'strut' })), () => ({
    ...{ kind: 'sweep', sketch: path, body, effect: 'add', form: 'round', width: WIRE },
    ...{ height: '', corner: '', plane: '', side: 'one', outline: '' },
  }))
  const strut = swept.route.at(-1)?.id ?? ''
  return withSteps(swept, () => ({ kind: 'around', steps: [strut], count: '3', range: '' }))
}

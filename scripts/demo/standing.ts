import { AXIS_ID, ORIGIN_ID, lineOf } from '@lathica/core/sketch'
import { createPart, type Part } from '@lathica/core/part'
import {
  FULL_WALL,
  addRevolve,
  addSize,
  addSketch,
  changeBody,
  constrain,
  drawDraft,
  rectangle,
  setMaterial,
} from '@lathica/core/edit'
import { groove, withSteps } from './finishing'
import { draw, drawStrokes, drawn, material, profile, run, sizeAndTurn } from './outline'

/** A counterweight of lead with an eye turned on its top. */
export function counterweight(): Part {
  const start = createPart({
    name: 'Counterweight',
    lie: 'standing',
    material: material('lead'),
  })
  const rough = draw(start, [
    [0, 0],
    [0, 52],
    [6, 60],
    [104, 60],
    [118, 24],
    [132, 24],
    [132, 0],
  ])
  const turned = sizeAndTurn(rough, [
    ['⌀', 2, '60'],
    ['⌀', 1, '52'],
    ['along', 0, 2, '6'],
    ['length', 2, '98'],
    ['⌀', 4, '24'],
    ['angle', 3, '52deg'],
    ['length', 4, '14'],
  ])
  return withSteps(
    turned,
    () => ({
      ...{ kind: 'bore', body: 'body1', end: 'right' },
      parts: [
        { diameter: '14', depth: '6' },
        { diameter: '8', depth: '30' },
      ],
      ...{ upTo: '', tip: 'cone', tipAngle: '118', sinkDiameter: '', sinkAngle: '90' },
    }),
    groove('cylinder ⌀60', {
      form: 'vee',
      place: { from: 'start', second: '', to: 'middle', distance: '20' },
      sizes: { angle: '90', flat: '', depth: '1', bottom: '' },
      ...{ count: '5', pitch: '14' },
    }),
  )
}

/** The float that rides in the well: a copper wall round a hollow, and the rod it hangs by. */
export function float(): Part {
  const start = createPart({ name: 'Float', lie: 'standing', material: material('copper') })
  const { id } = profile(start)
  const bottom = drawStrokes(start, { at: { x: 0, y: 0 }, point: ORIGIN_ID }, [
    {
      to: [40, 80],
      arc: { centre: [40, 0], counterClockwise: false },
      ties: () => [{ kind: 'pointOn', point: '~centre', curve: AXIS_ID }],
    },
    {
      to: [100, 80],
      direction: 'axial',
      ties: (sketch) => [
        { kind: 'tangent', curve: '~piece', to: sketch.entities.at(-1)?.id ?? '' },
      ],
    },
    { to: [100, 16], direction: 'radial' },
    { to: [118, 16], direction: 'axial' },
  ])
  const { points } = profile(bottom)
  const rim = points[1]?.id ?? ''
  const sized = run(
    bottom,
    addSize(id, { kind: 'diameter', point: rim }, '80'),
    addSize(id, { kind: 'length', line: drawn(bottom, 1)[0] ?? '' }, '60'),
    addSize(
      id,
      { kind: 'diameter', point: lineOf(profile(bottom), drawn(bottom, 3)[0])?.to ?? '' },
      '16',
    ),
    addSize(id, { kind: 'length', line: drawn(bottom, 3)[0] ?? '' }, '18'),
  )
  const walled = withSteps(sized, () => ({
    ...{ kind: 'wall', sketch: id, side: 'inside', thickness: '1', inner: '1' },
    ...{ corners: 'sharp', ends: 'flat', effect: 'add', body: 'body1', ...FULL_WALL },
  }))
  const second = run(walled, addSketch())
  const rod = second.sketches[1]?.id ?? ''
  const drawnRod = run(
    second,
    drawDraft('draw rod', rod, rectangle({ at: { x: 90, y: 0 } }, { at: { x: 150, y: 5 } })),
  )
  const own = drawnRod.sketches[1]
  const [low, high] = [
    own?.points.find((p) => p.x < 100),
    own?.points.find((p) => p.x > 100 && p.y > 1),
  ]
  if (!own || !low || !high) throw new Error('the rod is drawn')
  const onAxis = own.points.filter((p) => p.y < 1).map((p) => p.id)
  return run(
    drawnRod,
    constrain(rod, 'pointOn', [...onAxis, AXIS_ID]),
    addSize(rod, { kind: 'axialDistance', a: ORIGIN_ID, b: low.id }, '90'),
    addSize(rod, { kind: 'axialDistance', a: low.id, b: high.id }, '60'),
    addSize(rod, { kind: 'diameter', point: high.id }, '10'),
    addRevolve(rod),
    changeBody('body1', { name: 'shell' }),
    changeBody(`body${drawnRod.nextId}`, { name: 'rod', material: 'brass-cuzn39pb3' }),
    setMaterial(`body${drawnRod.nextId}`, material('brass-cuzn39pb3')),
  )
}

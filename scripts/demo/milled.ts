import { AXIS_ID, ORIGIN_ID } from '@lathica/core/sketch'
import {
  createPart,
  type ExtrudeStep,
  type FlatsStep,
  type HolesStep,
  type NewStep,
  type Part,
  type RevolveStep,
  type SlotStep,
} from '@lathica/core/part'
import {
  FULL_WALL,
  addRevolve,
  addSize,
  addSketch,
  constrain,
  drawDraft,
  drawPiece,
  rectangle,
  revolveOf,
  steppedShaft,
} from '@lathica/core/edit'
import { chamfer, face, fillet, withSteps } from './finishing'
import { draw, material, profile, run, sizeUp } from './outline'

/** Lands as diameter and length in mm, from the datum on, turned. */
function lands(
  name: string,
  of: string,
  pairs: readonly (readonly [diameter: number, length: number])[],
): Part {
  const part = createPart({ name, material: material(of) })
  const { id } = profile(part)
  const sized = pairs.map(([diameter, length]) => ({
    diameter: { formula: String(diameter), value: diameter },
    length: { formula: String(length), value: length },
  }))
  const shaft = steppedShaft({ at: { x: 0, y: 0 }, point: ORIGIN_ID }, sized)
  return run(part, drawDraft('draw stepped chain', id, shaft))
}

const turned = (part: Part): Part => run(part, addRevolve(profile(part).id))

const HOLE: Omit<HolesStep, 'id' | 'number' | 'aside'> = {
  ...{ kind: 'holes', body: 'body1', way: 'end', on: '', layout: 'circle', sketch: '' },
  circle: '',
  ...{ count: '1', start: '', range: '', skip: [], places: [], from: '', distance: '' },
  ...{ diameter: '', reach: 'through', depth: '', tip: 'cone', tipAngle: '118', head: 'none' },
  ...{ headDiameter: '', headDepth: '', headAngle: '90', thread: '' },
}

const holes =
  (words: string, change: Partial<HolesStep>) =>
  (part: Part): NewStep => ({ ...HOLE, on: face(part, words), ...change })

const bore =
  (end: 'left' | 'right', ...parts: readonly (readonly [diameter: string, depth: string])[]) =>
  (): NewStep => ({
    ...{ kind: 'bore', body: 'body1', end },
    parts: parts.map(([diameter, depth]) => ({ diameter, depth })),
    ...{ upTo: '', tip: 'flat', tipAngle: '118', sinkDiameter: '', sinkAngle: '90' },
  })

const flats = (change: Partial<FlatsStep>) => (): NewStep => ({
  ...{ kind: 'flats', body: 'body1', count: '2', measure: 'across', size: '', end: 'right' },
  ...{ distance: '', length: '', phase: '' },
  ...change,
})

const slot =
  (words: string, change: Partial<SlotStep>) =>
  (part: Part): NewStep => ({
    ...{ kind: 'slot', body: 'body1', form: 'keyway', on: face(part, words), from: '' },
    ...{ distance: '', width: '', depth: '', length: '', ends: 'round', cutter: '', count: '1' },
    phase: '',
    ...change,
  })

/** The housing at the gauge's end wall: held by six counterbored screws, and two pins tell its place. */
export function endBearingHousing(): Part {
  const blank = turned(
    lands('End bearing housing', 'iron-gjl250', [
      [92, 12],
      [52, 28],
    ]),
  )
  return withSteps(
    blank,
    bore('left', ['35', '15'], ['24', '']),
    fillet('3', [[12, 52]]),
    chamfer('1', [
      [0, 92],
      [12, 92],
      [40, 52],
      [0, 35],
    ]),
    holes('face at 12', {
      ...{ circle: '74', count: '6', start: '30', diameter: '6.6', reach: 'wall' },
      ...{ head: 'counterbore', headDiameter: '11', headDepth: '6.4' },
    }),
    holes('face at 12', {
      ...{ layout: 'places', diameter: '4', reach: 'depth', depth: '8', tip: 'flat' },
      places: [
        { diameter: '80', angle: '0' },
        { diameter: '80', angle: '120' },
      ],
    }),
  )
}

/** The spindle that winds the line in: a wheel on its key, a pin across it, a crank on its flats. */
export function windingSpindle(): Part {
  const blank = turned(
    lands('Winding spindle', 'steel-c45', [
      [24, 30],
      [30, 46],
      [24, 34],
      [16, 26],
    ]),
  )
  return withSteps(
    blank,
    chamfer('1', [
      [0, 24],
      [136, 16],
    ]),
    slot('cylinder ⌀30', { distance: '5', width: '8', depth: '4', length: '36' }),
    holes('cylinder ⌀24', {
      ...{ way: 'cross', on: '', from: '', distance: '12', diameter: '5', start: '90' },
    }),
    flats({ size: '13', length: '18' }),
  )
}

/** The knob that sets the drum: ten sides for a wet hand, bored for its spindle. */
export function settingKnob(): Part {
  const grip = lands('Setting knob', 'pom', [[46, 16]])
  const { id } = profile(grip)
  const polygon: NewStep = {
    ...(revolveOf(id, 'body1', 'add') as Omit<RevolveStep, 'id' | 'number' | 'aside'>),
    ...{ facets: '10', facetTo: 'corners' },
  }
  const sided = withSteps(
    grip,
    () => polygon,
    chamfer('2', [
      [0, 46],
      [16, 46],
    ]),
  )
  const second = run(sided, addSketch())
  const own = second.sketches[1]?.id ?? ''
  const hub = rectangle({ at: { x: 14, y: 0 }, on: [AXIS_ID] }, { at: { x: 30, y: 12 } })
  const drawn = run(second, drawDraft('draw hub', own, hub))
  const points = drawn.sketches[1]?.points ?? []
  const at = (x: number, y: number): string =>
    points.find((p) => Math.hypot(p.x - x, p.y - y) < 1e-6)?.id ?? ''
  const sized = run(
    drawn,
    ...[addSize(own, { kind: 'axialDistance', a: ORIGIN_ID, b: at(14, 12) }, '14')],
    addSize(own, { kind: 'axialDistance', a: ORIGIN_ID, b: at(30, 12) }, '30'),
    addSize(own, { kind: 'diameter', point: at(30, 12) }, '24'),
  )
  return withSteps(
    sized,
    () => revolveOf(own, 'body1', 'add'),
    bore('right', ['10', '22']),
    holes('cylinder ⌀24', {
      ...{ way: 'cross', on: '', distance: '23', diameter: '4.2', reach: 'axis', thread: 'M5' },
    }),
  )
}

/** The wheel that winds the drum, a click for every five minutes: twelve slots in its rim. */
export function windingWheel(): Part {
  const blank = turned(
    lands('Winding wheel', 'brass-cuzn39pb3', [
      [80, 9],
      [28, 15],
    ]),
  )
  return withSteps(
    blank,
    bore('left', ['12', '']),
    slot('face at 0', { form: 'end', width: '4', depth: '9', length: '7', count: '12' }),
    holes('face at 0', { circle: '50', count: '6', diameter: '12', reach: 'wall' }),
  )
}

/** The guide that turns the line a third of the way round: a part turn, and a straight run at each end. */
export function guideSegment(): Part {
  const start = createPart({ name: 'Guide segment', material: material('bronze-cusn8') })
  const rough = draw(start, [
    [0, 100],
    [0, 124],
    [4, 124],
    [4, 106],
    [14, 106],
    [14, 124],
    [18, 124],
    [18, 100],
  ])
  const placed = sizeUp(rough, [
    ['⌀', 1, '124'],
    ['⌀', 0, '100'],
    ['⌀', 3, '106'],
    ['along', 0, 2, '4'],
    ['along', 0, 4, '14'],
    ['along', 0, 6, '18'],
    ['⌀', 6, '124'],
  ])
  const { id } = profile(placed)
  const first = profile(placed).points[0]?.id ?? ''
  const fixed = run(placed, constrain(id, 'inLine', [first, ORIGIN_ID]))
  const turn: NewStep = {
    ...(revolveOf(id, 'body1', 'add') as Omit<RevolveStep, 'id' | 'number' | 'aside'>),
    ...{ turn: '120', side: 'symmetric' },
  }
  const run30 = (plane: string, length: string) => (): NewStep =>
    ({
      ...{ kind: 'extrude', sketch: id, regions: 'all', effect: 'add', body: 'body1', plane },
      ...{
        side: 'one',
        length,
        back: '',
        on: '',
        offset: '',
        reach: 'length',
        upTo: '',
        draft: '',
      },
    }) satisfies Omit<ExtrudeStep, 'id' | 'number' | 'aside'>
  return withSteps(fixed, () => turn, run30('60', '30'), run30('-60', '-30'))
}

/** The can that takes water from the well: a wall, and a bail that joins into it on both sides. */
export function samplingCan(): Part {
  const start = createPart({
    ...{ name: 'Sampling can', lie: 'standing', material: material('steel-1.4301') },
  })
  const open = sizeUp(
    draw(start, [
      [0, 0],
      [0, 60],
      [70, 60],
    ]),
    [
      ['⌀', 1, '60'],
      ['length', 1, '70'],
    ],
  )
  const walled = withSteps(open, () => ({
    ...{ kind: 'wall', sketch: profile(open).id, side: 'outside', thickness: '1.5', inner: '1.5' },
    ...{ corners: 'round', ends: 'flat', effect: 'add', body: 'body1', ...FULL_WALL },
  }))
  const second = run(walled, addSketch())
  const own = second.sketches[1]?.id ?? ''
  const arm = run(
    second,
    drawPiece({
      ...{ sketch: own, from: { at: { x: 58, y: 31 } }, to: { at: { x: 96, y: 31 } } },
      ...{ role: 'outline', directions: ['axial'], ties: [] },
    }),
  )
  const line = arm.sketches[1]?.entities[0]
  if (line?.kind !== 'line') throw new Error('the arm is drawn')
  const bow = run(
    arm,
    drawPiece({
      ...{ sketch: own, from: { at: { x: 96, y: 31 }, point: line.to } },
      to: { at: { x: 127, y: 0 }, on: [AXIS_ID] },
      arc: { centre: { x: 96, y: 0 }, counterClockwise: false },
      ...{ role: 'outline', directions: [] },
      ties: [
        { kind: 'pointOn', point: '~centre', curve: AXIS_ID },
        { kind: 'tangent', curve: '~piece', to: line.id },
      ],
    }),
  )
  const sized = run(
    bow,
    addSize(own, { kind: 'diameter', point: line.from }, '62'),
    addSize(own, { kind: 'axialDistance', a: ORIGIN_ID, b: line.from }, '58'),
    addSize(own, { kind: 'length', line: line.id }, '38'),
  )
  return withSteps(sized, () => ({
    ...{
      kind: 'sweep',
      sketch: own,
      body: 'body1',
      effect: 'add',
      form: 'round',
      outline: '',
      width: '4',
    },
    ...{ height: '', corner: '', plane: '', side: 'mirrored', outline: '' },
  }))
}

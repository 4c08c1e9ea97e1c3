import {
  AXIS_ID,
  ORIGIN_ID,
  STOCK_MATERIALS,
  addRevolve,
  addSize,
  addSketch,
  changeBody,
  constrain,
  createPart,
  drawDraft,
  drawPiece,
  lineOf,
  mirrorItems,
  rectangle,
  removeItems,
  repeatItems,
  setMaterial,
  setValue,
  steppedShaft,
  writePartFile,
  type Material,
  type Part,
} from '@lathica/core'
import { chamfer, face, fillet, groove, withSteps } from './finishing'
import { draw, drawStrokes, drawn, endAt, profile, run, sizeAndTurn } from './outline'

function material(id: string): Material {
  const found = STOCK_MATERIALS.find((m) => m.id === id)
  if (!found) throw new Error(`there is no material ${id}`)
  return found
}

/** The recorder's spindle: it carries the line sheave and turns in two bearings. */
function spindle(): Part {
  const start = createPart({ name: 'Spindle', material: material('steel-c45') })
  const pairs = [
    [20, 24],
    [28, 34],
    [44, 8],
    [35, 46],
    [24, 34],
    [16, 25],
  ].map(([diameter = 0, length = 0]) => ({
    diameter: { formula: String(diameter), value: diameter },
    length: { formula: String(length), value: length },
  }))
  const shaft = steppedShaft({ at: { x: 0, y: 0 }, point: ORIGIN_ID }, pairs)
  const { id } = profile(start)
  const laid = run(start, drawDraft('draw stepped shaft', id, shaft))
  // The sheave's seat ends at a distance from the datum end.
  const { points, sizes } = profile(laid)
  const [end, seat] = [points[0], points[8]]
  const seatLength = sizes.find((s) => s.formula === '46')
  if (!end || !seat || !seatLength) throw new Error('the shaft is laid')
  const turned = run(
    laid,
    removeItems(id, [seatLength.id]),
    addSize(id, { kind: 'axialDistance', a: end.id, b: seat.id }, '112'),
    addRevolve(id),
  )
  return withSteps(
    turned,
    groove('cylinder ⌀16', {
      form: 'retaining',
      place: { from: 'end', second: '', to: 'near', distance: '4' },
      sizes: { width: '1.1', depth: '', bottom: '15.2' },
    }),
    fillet('1.5', [
      [24, 20],
      [66, 35],
    ]),
    chamfer('1', [
      [0, 20],
      [171, 16],
    ]),
  )
}

/** A radial centre line up from the axis, about which a part is the same on both sides. */
function middlePlane(part: Part, x: number, reach: number): Part {
  return run(
    part,
    drawPiece({
      sketch: profile(part).id,
      from: { at: { x, y: 0 }, on: [AXIS_ID] },
      to: { at: { x, y: reach } },
      role: 'centre',
      directions: ['radial'],
    }),
  )
}

/**
 * The sheave over which the float's line runs: a quarter of its section, given by diameters about
 * the axis and widths about the middle plane, and mirrored about that plane.
 */
function lineSheave(): Part {
  const start = createPart({ name: 'Line sheave', material: material('brass-cuzn39pb3') })
  const named = run(start, setValue({ name: 'bore', measure: 'length', formula: '35' }))
  const planed = middlePlane(named, 12.5, 59)
  const [middle = ''] = drawn(planed, 0)
  const { id } = profile(planed)
  const quarter = drawStrokes(planed, { at: { x: 12.5, y: 18 }, on: [middle] }, [
    { to: [0, 36], direction: 'axial' },
    { to: [0, 56], direction: 'radial' },
    { to: [6, 56], direction: 'axial' },
    { to: [6, 119], direction: 'radial' },
    { to: [9, 119], direction: 'axial' },
    { to: [11.2, 110] },
    {
      to: { at: { x: 12.5, y: 52 }, on: [middle] },
      arc: { centre: [12.5, 108], counterClockwise: true },
      ties: (sketch) => [
        { kind: 'pointOn', point: '~centre', curve: middle },
        { kind: 'tangent', curve: '~piece', to: sketch.entities.at(-1)?.id ?? '' },
      ],
    },
  ])
  const corner = lineOf(profile(quarter), drawn(quarter, 1)[0])?.to ?? ''
  const top = lineOf(profile(quarter), middle)?.to ?? ''
  const rim = lineOf(profile(quarter), drawn(quarter, 5)[0])?.from ?? ''
  const placed = run(
    quarter,
    constrain(id, 'inLine', [corner, ORIGIN_ID]),
    constrain(id, 'inLine', [top, rim]),
    mirrorItems(id, drawn(quarter, 1, 2, 3, 4, 5, 6, 7), middle),
  )
  const turned = sizeAndTurn(placed, [
    ['⌀', 6, '120'],
    ['⌀', 2, 'bore'],
    ['⌀', 4, '56'],
    ['⌀', 9, '104'],
    ['radius', 7, '2'],
    ['span', 3, 0, '26'],
    ['span', 5, 0, '14'],
    ['span', 7, 0, '8'],
  ])
  return withSteps(
    turned,
    fillet('2', [
      [6, 56],
      [20, 56],
    ]),
    chamfer('1.5', [
      [0, 35],
      [26, 35],
    ]),
  )
}

/** The drum of the driving weight's cord: three equal grooves from one set of sizes. */
function cordDrum(): Part {
  const start = createPart({ name: 'Cord drum', material: material('steel-c45') })
  const { id } = profile(start)
  const unit = drawStrokes(start, { at: { x: 0, y: 10 } }, [
    { to: [0, 80], direction: 'radial' },
    { to: [5, 80], direction: 'axial' },
    { to: [5, 60], direction: 'radial' },
    { to: [8, 60], direction: 'axial' },
    { to: [14, 60], arc: { centre: [11, 62.5], counterClockwise: true } },
    { to: [17.1, 60], direction: 'axial' },
  ])
  const plan = { count: 3, pitch: 9.1, along: 'axial' }
  const three = run(unit, repeatItems(id, drawn(unit, 4, 5), plan))
  const last = profile(three).entities.at(-1)
  const [bore, first] = profile(three).points
  if (last?.kind !== 'line' || !bore || !first) throw new Error('the grooves are drawn')
  const whole = drawStrokes(three, endAt(three, last.to), [
    { to: [35, 80], direction: 'radial' },
    { to: [40, 80], direction: 'axial' },
    { to: [40, 20], direction: 'radial' },
    { to: endAt(three, bore.id), direction: 'axial' },
  ])
  const [flange = '', land = '', groove = ''] = drawn(whole, 1, 3, 5)
  const [right = ''] = profile(whole)
    .entities.slice(-3, -2)
    .map((e) => e.id)
  const tied = run(
    whole,
    constrain(id, 'equal', [flange, right]),
    constrain(id, 'equal', [groove, land]),
    constrain(id, 'inLine', [bore.id, ORIGIN_ID]),
    constrain(id, 'pointOn', [right, flange]),
  )
  return sizeAndTurn(tied, [
    ['⌀', 1, '80'],
    ['⌀', 0, '20'],
    ['⌀', 4, '60'],
    ['length', 1, '5'],
    ['along', 4, 5, '6'],
    ['radius', 4, '3.25'],
    ['length', 3, '3'],
  ])
}

/** The wheel that winds the weight up by hand: a grip of five teeth, steep on one side. */
function windingWheel(): Part {
  const start = createPart({ name: 'Winding wheel', material: material('brass-cuzn39pb3') })
  const { id } = profile(start)
  const tooth = drawStrokes(start, { at: { x: 0, y: 6 } }, [
    { to: [0, 40], direction: 'radial' },
    { to: [4, 40], direction: 'axial' },
    { to: [10, 46] },
    { to: [10, 40], direction: 'radial' },
  ])
  const plan = { count: 5, pitch: 6, along: 'axial' }
  const five = run(tooth, repeatItems(id, drawn(tooth, 2, 3), plan))
  const last = profile(five).entities.at(-1)
  const [bore] = profile(five).points
  if (last?.kind !== 'line' || !bore) throw new Error('the teeth are drawn')
  const whole = drawStrokes(five, endAt(five, last.to), [
    { to: [38, 40], direction: 'axial' },
    { to: [38, 12], direction: 'radial' },
    { to: endAt(five, bore.id), direction: 'axial' },
  ])
  const [land = ''] = drawn(whole, 1)
  const [behind = ''] = profile(whole)
    .entities.slice(-3, -2)
    .map((e) => e.id)
  const tied = run(
    whole,
    constrain(id, 'equal', [land, behind]),
    constrain(id, 'inLine', [bore.id, ORIGIN_ID]),
  )
  return sizeAndTurn(tied, [
    ['⌀', 1, '40'],
    ['⌀', 0, '12'],
    ['⌀', 3, '47'],
    ['length', 1, '4'],
    ['along', 2, 3, '6'],
  ])
}

/** A counterweight of lead with an eye turned on its top. */
function counterweight(): Part {
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

/**
 * The body of the flask that feeds the pen: turned full, rounded, and hollowed out after the fillets,
 * so that the inside carries their radii less the wall.
 */
function inkFlask(): Part {
  const start = createPart({ name: 'Ink flask', lie: 'standing', material: material('glass') })
  const wall = run(start, setValue({ name: 'wall', measure: 'length', formula: '2.5' }))
  const rough = draw(wall, [
    [0, 0],
    [0, 46],
    [38, 46],
    [60, 22],
    [78, 22],
    [78, 0],
  ])
  const turned = sizeAndTurn(rough, [
    ['⌀', 1, '46'],
    ['length', 1, '38'],
    ['⌀', 3, '22'],
    ['along', 2, 3, '22'],
    ['length', 3, '18'],
  ])
  return withSteps(
    turned,
    fillet('6', [[0, 46]]),
    fillet('8', [
      [38, 46],
      [60, 22],
    ]),
    (part) => ({
      ...{ kind: 'shell', body: 'body1', side: 'inside', thickness: 'wall', corners: 'sharp' },
      ...{ open: [face(part, 'face at 78')], faces: [] },
    }),
    groove('cylinder ⌀22', {
      form: 'round',
      place: { from: 'end', second: '', to: 'middle', distance: '4' },
      sizes: { radius: '1.5', depth: '0.8', bottom: '' },
    }),
  )
}

/** The float that rides in the well: a copper wall round a hollow, and the rod it hangs by. */
function float(): Part {
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
    ...{ corners: 'sharp', ends: 'flat', effect: 'add', body: 'body1' },
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

/** The housing of a spindle bearing; its hole circle is not turned and comes later. */
function bearingHousing(): Part {
  const start = createPart({ name: 'Bearing housing', material: material('iron-gjl250') })
  const rough = draw(start, [
    [0, 0],
    [0, 70],
    [10, 70],
    [10, 50],
    [34, 50],
    [34, 0],
  ])
  const turned = sizeAndTurn(rough, [
    ['⌀', 1, '70'],
    ['length', 1, '10'],
    ['⌀', 3, '50'],
    ['length', 3, '24'],
  ])
  return withSteps(
    turned,
    () => ({
      ...{ kind: 'bore', body: 'body1', end: 'right' },
      parts: [
        { diameter: '35', depth: '20' },
        { diameter: '24', depth: '' },
      ],
      ...{ upTo: '', tip: 'flat', tipAngle: '118', sinkDiameter: '', sinkAngle: '90' },
    }),
    groove('bore ⌀35', {
      form: 'retaining',
      place: { from: 'end', second: '', to: 'near', distance: '3' },
      sizes: { width: '1.6', depth: '', bottom: '37' },
    }),
    groove('face at 0', {
      form: 'oring',
      place: { from: 'axis', second: '', to: 'near', distance: '44' },
      sizes: { width: '1.3*2.62', depth: '0.8*2.62', bottom: '', radius: '0.1*2.62' },
    }),
    fillet('3', [[10, 50]]),
    chamfer('1', [
      [0, 70],
      [10, 70],
      [34, 50],
      [34, 35],
    ]),
  )
}

/** Every demo part by its file name. */
export function demoParts(): ReadonlyMap<string, string> {
  const parts = {
    spindle,
    'line-sheave': lineSheave,
    'cord-drum': cordDrum,
    'winding-wheel': windingWheel,
    counterweight,
    'ink-flask': inkFlask,
    float,
    'bearing-housing': bearingHousing,
  }
  return new Map(
    Object.entries(parts).map(([name, make]) => [`${name}.lathica.json`, writePartFile(make())]),
  )
}

import { AXIS_ID, ORIGIN_ID, lineOf } from '@lathica/core/sketch'
import { createPart, type NewStep, type Part } from '@lathica/core/part'
import {
  addRevolve,
  setGeneral,
  addSize,
  constrain,
  drawDraft,
  drawPiece,
  mirrorItems,
  removeItems,
  repeatItems,
  setValue,
  steppedShaft,
} from '@lathica/core/edit'
import { writePartFile } from '@lathica/core/formats'
import { chamfer, fillet, groove, withSteps } from './finishing'
import { draw, drawStrokes, drawn, endAt, material, profile, run, sizeAndTurn } from './outline'
import { measuredSpindle } from './measured'
import { flaskSheet, floatSheet, rollerSheet, sheaveSheet, spindleSheet } from './inspection'
import { guideRoller } from './nested'
import { notedSpindle, picturedHousing } from './notes'
import {
  windingWheel,
  endBearingHousing,
  guideSegment,
  samplingCan,
  settingKnob,
  windingSpindle,
} from './milled'
import { gaugeCover } from './cover'
import { inkFlask } from './flask'
import { inkFunnel } from './funnel'
import { gaugeLamp } from './lamp'
import { counterweight, float } from './standing'

/** The recorder's spindle: it carries the line sheave and turns in two bearings. */
function spindle(): Part {
  const start = createPart({ name: 'Spindle', material: material('steel-c45') })
  // Bearings on ⌀20 and ⌀24, the sheave on ⌀35 against the collar.
  const pairs = [
    ['20 k6', '24'],
    ['28', '34 ±0.1'],
    ['44', '8 ±0.05'],
    ['35 k6', '46'],
    ['24 k6', '34'],
    ['16', '25'],
  ].map(([diameter = '', length = '']) => ({
    diameter: { formula: diameter, value: Number.parseFloat(diameter) },
    length: { formula: length, value: Number.parseFloat(length) },
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
    addSize(id, { kind: 'axialDistance', a: end.id, b: seat.id }, '112 ±0.15'),
    addRevolve(id),
    setGeneral('m'),
  )
  return withSteps(
    turned,
    // The undercut of M16×1.5 against the bearing's shoulder (ISO 4755).
    groove('cylinder ⌀16', {
      ...{ form: 'relief', turned: true },
      place: { from: 'start', second: '', to: 'near', distance: '0' },
      sizes: { width: '4.5', depth: '', bottom: '13.7', radius: '0.8', angle: '30' },
    }),
    fillet('1.5', [
      [24, 20],
      [66, 35],
    ]),
    chamfer('1', [
      [0, 20],
      [171, 16],
    ]),
    centreIn('left', '2'),
    centreIn('right', '1.6'),
  )
}

/** A centre hole of type B. */
const centreIn = (end: 'left' | 'right', pilot: string) => (): NewStep => ({
  ...{ kind: 'centre', body: 'body1', end, type: 'B', pilot, remains: 'stays' },
})

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

/** The grip by which the weight is wound up: five teeth around it, steep on one side. */
function windingGrip(): Part {
  const start = createPart({ name: 'Winding grip', material: material('brass-cuzn39pb3') })
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
    spindle: () => measuredSpindle(notedSpindle(spindleSheet(spindle()))),
    'line-sheave': () => sheaveSheet(lineSheave()),
    'cord-drum': cordDrum,
    'winding-grip': windingGrip,
    counterweight,
    'ink-flask': () => flaskSheet(inkFlask()),
    float: () => floatSheet(float()),
    'bearing-housing': bearingHousing,
    'guide-roller': () => rollerSheet(guideRoller()),
    'end-bearing-housing': () => picturedHousing(endBearingHousing()),
    'winding-spindle': windingSpindle,
    'setting-knob': settingKnob,
    'winding-wheel': windingWheel,
    'guide-segment': guideSegment,
    'sampling-can': samplingCan,
    'gauge-cover': gaugeCover,
    'ink-funnel': inkFunnel,
    'gauge-lamp': gaugeLamp,
  }
  return new Map(
    Object.entries(parts).map(([name, make]) => [`${name}.lathica.json`, writePartFile(make())]),
  )
}

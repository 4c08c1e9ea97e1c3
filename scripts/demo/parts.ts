import {
  ORIGIN_ID,
  STOCK_MATERIALS,
  createPart,
  drawPiece,
  setValue,
  writePartFile,
  type Material,
  type Part,
} from '@lathica/core'
import { draw, profile, run, sizeAndTurn } from './outline'

function material(id: string): Material {
  const found = STOCK_MATERIALS.find((m) => m.id === id)
  if (!found) throw new Error(`there is no material ${id}`)
  return found
}

/** The recorder's spindle: it carries the line sheave and turns in two bearings. */
function spindle(): Part {
  const rough = draw(createPart({ name: 'Spindle', material: material('steel-c45') }), [
    [0, 0],
    [0, 20],
    [24, 20],
    [24, 28],
    [58, 28],
    [58, 44],
    [66, 44],
    [66, 35],
    [112, 35],
    [112, 24],
    [146, 24],
    [146, 16],
    [171, 16],
    [171, 0],
  ])
  return sizeAndTurn(rough, [
    ['⌀', 5, '44'],
    ['length', 1, '24'],
    ['along', 0, 8, '112'],
    ['length', 3, '34'],
    ['length', 5, '8'],
    ['length', 9, '34'],
    ['length', 11, '25'],
    ['⌀', 1, '20'],
    ['⌀', 3, '28'],
    ['⌀', 7, '35'],
    ['⌀', 9, '24'],
    ['⌀', 11, '16'],
  ])
}

/** Ties the first corner to the datum point by a construction line, square to the axis. */
function fromDatum(part: Part): Part {
  const sketch = profile(part)
  const [corner] = sketch.points
  if (!corner) return part
  const from = { at: { x: 0, y: 0 }, point: ORIGIN_ID }
  const to = { at: corner, point: corner.id }
  const line = { sketch: sketch.id, from, to, role: 'construction' as const }
  return run(part, drawPiece({ ...line, directions: ['radial'] }))
}

/** The sheave over which the float's line runs, with a vee for the line; it sits on the spindle. */
function lineSheave(): Part {
  const start = createPart({ name: 'Line sheave', material: material('brass-cuzn39pb3') })
  const named = run(start, setValue({ name: 'bore', measure: 'length', formula: '35' }))
  const rough = draw(named, [
    [0, 35],
    [0, 56],
    [6, 56],
    [6, 120],
    [9, 120],
    [13, 104],
    [17, 120],
    [20, 120],
    [20, 56],
    [26, 56],
    [26, 35],
  ])
  return sizeAndTurn(fromDatum(rough), [
    ['⌀', 3, '120'],
    ['⌀', 0, 'bore'],
    ['⌀', 1, '56'],
    ['⌀', 9, 'dia3'],
    ['⌀', 5, '104'],
    ['⌀', 6, 'dia1'],
    ['length', 1, '6'],
    ['length', 3, '3'],
    ['along', 4, 5, '4'],
    ['along', 5, 6, 'dist1'],
    ['length', 6, 'len2'],
    ['length', 8, 'len1'],
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
  return sizeAndTurn(rough, [
    ['⌀', 2, '60'],
    ['⌀', 1, '52'],
    ['along', 0, 2, '6'],
    ['length', 2, '98'],
    ['⌀', 4, '24'],
    ['angle', 3, '52deg'],
    ['length', 4, '14'],
  ])
}

/** A flask that feeds the pen: a turned glass blank with a conical shoulder. */
function inkFlask(): Part {
  const start = createPart({ name: 'Ink flask', lie: 'standing', material: material('glass') })
  const wall = run(start, setValue({ name: 'wall', measure: 'length', formula: '2.5' }))
  const rough = draw(wall, [
    [0, 0],
    [0, 46],
    [38, 46],
    [60, 22],
    [78, 22],
    [78, 17],
    [58, 17],
    [36, 41],
    [3, 41],
    [3, 0],
  ])
  return sizeAndTurn(rough, [
    ['⌀', 1, '46'],
    ['length', 1, '38'],
    ['⌀', 3, '22'],
    ['along', 2, 3, '22'],
    ['length', 3, '18'],
    ['⌀', 5, 'dia2 - 2*wall'],
    ['along', 5, 6, '20'],
    ['⌀', 8, 'dia1 - 2*wall'],
    ['along', 0, 8, '3'],
    ['along', 2, 7, 'wall'],
  ])
}

/** Every demo part by its file name. */
export function demoParts(): ReadonlyMap<string, string> {
  const parts = { spindle, 'line-sheave': lineSheave, counterweight, 'ink-flask': inkFlask }
  return new Map(
    Object.entries(parts).map(([name, make]) => [`${name}.lathica.json`, writePartFile(make())]),
  )
}

import type { BodyFigureKind, Check, NewCheck, Part } from '@lathica/core/part'
import { addChecks } from '@lathica/core/edit'
import { face } from './finishing'
import { run } from './outline'

type Expected = Partial<Omit<Check, 'id' | 'figure'>>

/** A row about a body, or about all of them. */
const row = (kind: BodyFigureKind, expected: Expected, body = ''): NewCheck => ({
  figure: { kind, body },
  ...expected,
})

/** A row about two faces, called by their words. */
const between = (
  part: Part,
  kind: 'axial' | 'radial' | 'distance',
  faces: readonly [string, string],
  expected: Expected,
): NewCheck => ({
  figure: { kind, picks: faces.map((words) => ({ body: 'body1', key: face(part, words) })) },
  ...expected,
})

const diameterOf = (part: Part, words: string, expected: Expected): NewCheck => ({
  figure: { kind: 'pickDiameter', picks: [{ body: 'body1', key: face(part, words) }] },
  ...expected,
})

/** The figures on the recorder's drawing of its spindle. */
export function spindleSheet(part: Part): Part {
  return run(
    part,
    addChecks([
      row('mass', { unit: 'kg', target: '0.825' }),
      row('length', { unit: 'mm', target: '171', above: '0.2', below: '0.2' }),
      row('diameter', { unit: 'mm', target: '44', above: '0', below: '0.1' }),
      diameterOf(part, 'cylinder ⌀35', {
        name: 'sheave seat',
        unit: 'mm',
        target: '35',
        above: '0.018',
        below: '0.002',
      }),
      between(part, 'axial', ['face at 66', 'face at 112'], {
        name: 'length of the seat',
        unit: 'mm',
        target: '46',
        above: '0.1',
        below: '0',
      }),
      row('wall', { name: 'wall at the centre', unit: 'mm', limit: 'least', target: '5' }),
    ]),
  )
}

/** The sheave's: it came out heavier than the drive allows, and its sheet says by how much. */
export function sheaveSheet(part: Part): Part {
  return run(
    part,
    addChecks([
      row('mass', { name: 'what the drive can carry', unit: 'kg', limit: 'most', target: '1.2' }),
      row('diameter', { unit: 'mm', target: '120', above: '0', below: '0.3' }),
      row('length', {
        name: 'width of the hub',
        unit: 'mm',
        target: '26',
        above: '0.1',
        below: '0.1',
      }),
      diameterOf(part, 'bore ⌀35', { unit: 'mm', target: 'bore', above: '0.025', below: '0' }),
      row('wall', { name: 'least web', unit: 'mm', limit: 'least', target: '3' }),
      row('inertiaAxis', {
        name: 'inertia that the float must turn',
        unit: 'kg·cm²',
        limit: 'most',
        target: '21',
      }),
    ]),
  )
}

/** The float's: what it holds when it leaks, and that it still floats half full. */
export function floatSheet(part: Part): Part {
  return run(
    part,
    addChecks([
      row('mass', { unit: 'g', limit: 'most', target: '400' }),
      row('volume', { name: 'material of the shell', unit: 'cm³' }, 'body1'),
      {
        figure: { kind: 'capacity', body: 'body1', height: '' },
        unit: 'ml',
        limit: 'least',
        target: '400',
      },
      { figure: { kind: 'capacity', body: 'body1', height: '30 mm' }, unit: 'ml' },
      row('wall', { unit: 'mm', limit: 'least', target: '0.9' }, 'body1'),
    ]),
  )
}

/** The flask's: how much ink it takes. */
export function flaskSheet(part: Part): Part {
  return run(
    part,
    addChecks([
      { figure: { kind: 'capacity', body: 'body1', height: '' }, name: 'to the brim', unit: 'ml' },
      { figure: { kind: 'capacity', body: 'body1', height: '20 mm' }, unit: 'ml' },
      row('mass', { unit: 'g' }),
    ]),
  )
}

/** The guide roller's play in its ring. */
export function rollerSheet(part: Part): Part {
  const [ring, roller] = part.bodies
  if (!ring || !roller) throw new Error('ring and roller are made')
  const play = (
    kind: 'radialPlay' | 'axialPlay' | 'travelLeft' | 'travelRight' | 'gap',
    expected: Expected,
  ): NewCheck => ({
    figure: { kind, body: roller.id, other: ring.id },
    unit: 'mm',
    ...expected,
  })
  return run(
    part,
    addChecks([
      play('radialPlay', { target: '0.2', above: '0.05', below: '0.05' }),
      play('axialPlay', { target: '0.3', above: '0.1', below: '0.1' }),
      play('travelLeft', {}),
      play('travelRight', {}),
      play('gap', { limit: 'least', target: '0.1' }),
      row('mass', { unit: 'g' }, ring.id),
      row('mass', { unit: 'g' }, roller.id),
    ]),
  )
}

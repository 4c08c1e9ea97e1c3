import { ORIGIN_ID } from '@lathica/core/sketch'
import { edgeKey, edgesOf, type SectionEdge } from '@lathica/core/section'
import {
  createPart,
  type ExtrudeStep,
  type HolesStep,
  type NewStep,
  type Part,
} from '@lathica/core/part'
import { evaluate } from '@lathica/core/route'
import {
  addRevolve,
  addSize,
  addSketch,
  constrain,
  drawDraft,
  endExtrudeOf,
  rectangle,
  offeredHoles,
  sketchHoles,
  steppedShaft,
  type Draft,
  type SizeOffer,
} from '@lathica/core/edit'
import { chamfer, face, withSteps } from './finishing'
import { material, profile, run } from './outline'

/**
 * The cover before the recorder's works: a flanged disc with a window to read the drum by, a pad for
 * the name plate whose sides lean for the mould, and four countersunk screws, all drawn on its face.
 */
export function gaugeCover(): Part {
  const start = createPart({ name: 'Gauge cover', material: material(ALUMINIUM) })
  const sized = [
    [90, 8],
    [30, 14],
  ].map(([d = 0, l = 0]) => ({
    diameter: { formula: String(d), value: d },
    length: { formula: String(l), value: l },
  }))
  const { id } = profile(start)
  const disc = run(
    start,
    drawDraft(
      'draw stepped chain',
      id,
      steppedShaft({ at: { x: 0, y: 0 }, point: ORIGIN_ID }, sized),
    ),
    addRevolve(id),
  )
  const bevelled = withSteps(
    disc,
    chamfer('1', [
      [8, 90],
      [22, 30],
    ]),
  )
  const window = onFace(bevelled, rectangle({ at: { x: 20, y: -9 } }, { at: { x: 36, y: 9 } }), [
    '16',
    '18',
    '20',
  ])
  const cut = withSteps(window, extrude('cut', { reach: 'through' }))
  const pad = onFace(cut, rectangle({ at: { x: -36, y: -7 } }, { at: { x: -20, y: 7 } }), [
    '16',
    '14',
    '20',
  ])
  const padded = withSteps(pad, extrude('add', { length: '3', draft: '5' }))
  return withSteps(
    withScrews(padded),
    (part) =>
      ({
        ...sketchHoles(
          ownSketch(part),
          offeredHoles('body1', facing(part), sectionOf(part), part.units),
        ),
        ...({
          ...{ diameter: '4.5', reach: 'wall', head: 'countersink', headDiameter: '9' },
          headAngle: '90',
        } satisfies Partial<HolesStep>),
      }) as NewStep,
  )
}

const ALUMINIUM = 'aluminium-6082'
const FACE = 'face at 8'

const sectionOf = (part: Part) => evaluate(part).bodies[0]?.section ?? { regions: [] }
const ownSketch = (part: Part): string => part.sketches.at(-1)?.id ?? ''

/** The face of the flange that all is drawn on. */
function facing(part: Part): SectionEdge {
  const key = face(part, FACE)
  const found = edgesOf(sectionOf(part)).find((e) => edgeKey(e.name) === key)
  if (!found) throw new Error(`there is no ${FACE}`)
  return found
}

const extrude =
  (effect: 'add' | 'cut', change: Partial<ExtrudeStep>) =>
  (part: Part): NewStep =>
    ({
      ...endExtrudeOf(
        ownSketch(part),
        'body1',
        effect,
        edgeKey(facing(part).name),
        sectionOf(part),
        part.units,
      ),
      ...change,
    }) as NewStep

/** A rectangle on a new end sketch, as high above the level centre line as below it, and its sizes. */
function onFace(
  part: Part,
  draft: Draft,
  [wide = '', high = '', off = '']: readonly string[],
): Part {
  const begun = run(part, addSketch('end'))
  const id = ownSketch(begun)
  const drawn = run(begun, drawDraft('draw rectangle', id, draft))
  const sketch = drawn.sketches.at(-1)
  const [a, b, , d] = sketch?.points ?? []
  const [ab, bc] = sketch?.entities ?? []
  if (!a || !b || !d || !ab || !bc) throw new Error('the rectangle is drawn')
  const near = Math.abs(a.x) < Math.abs(b.x) ? a : b
  const offers: readonly (readonly [SizeOffer, string])[] = [
    [{ kind: 'length', line: ab.id }, wide],
    [{ kind: 'length', line: bc.id }, high],
    [{ kind: 'axialDistance', a: ORIGIN_ID, b: near.id }, off],
  ]
  return run(
    drawn,
    constrain(id, 'symmetric', [a.id, d.id, 'axis']),
    ...offers.map(([offer, formula]) => addSize(id, offer, formula)),
  )
}

/** Four points for screws, one sized, the others its mirror images. */
function withScrews(part: Part): Part {
  const begun = run(part, addSketch('end'))
  const id = ownSketch(begun)
  const place = { x: 25.5, y: 25.5 }
  const corners = [
    [1, 1],
    [1, -1],
    [-1, -1],
    [-1, 1],
  ]
  const points = Object.fromEntries(
    corners.map(([sx = 1, sy = 1], i) => [`~p${i}`, { at: { x: sx * place.x, y: sy * place.y } }]),
  )
  const drawn = run(begun, drawDraft('draw points', id, { points, entities: [] }))
  const [p, q, r, s] = drawn.sketches.at(-1)?.points ?? []
  if (!p || !q || !r || !s) throw new Error('the points are drawn')
  return run(
    drawn,
    constrain(id, 'symmetric', [p.id, q.id, 'axis']),
    constrain(id, 'symmetric', [p.id, r.id, ORIGIN_ID]),
    constrain(id, 'symmetric', [q.id, s.id, ORIGIN_ID]),
    addSize(id, { kind: 'axialDistance', a: ORIGIN_ID, b: p.id }, '25.5'),
    addSize(id, { kind: 'radialDistance', a: ORIGIN_ID, b: p.id }, '25.5'),
  )
}

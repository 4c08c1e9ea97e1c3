import { DISPLAY_CHORD_TOLERANCE } from '@lathica/core/tolerances'
import type { Vec } from '@lathica/core/geometry'
import { AXIS_ID, ORIGIN_ID, linesOf, type Sketch } from '@lathica/core/sketch'
import { startDrag } from '@lathica/core/solver'
import { createPart, valuesOf, type Part } from '@lathica/core/part'
import { evaluate, withDragged } from '@lathica/core/route'
import {
  addRevolve,
  changeSize,
  drawChain,
  perform,
  removeItems,
  addSize,
  type Command,
  type End,
} from '@lathica/core/edit'
import { latheMesh, type LatheMesh } from '@lathica/core/mesh'
import { overallOf } from '@lathica/core/inspect'
import { atMost, medianTime, type Row } from './row'
import { shaft } from './solver'

const SKETCH = 'sketch2'

function run(part: Part, ...commands: readonly Command[]): Part {
  return commands.reduce((here, command) => {
    const result = perform(here, command)
    if (!result.ok) throw new Error(result.problem.message)
    return result.value
  }, part)
}

type Land = ReturnType<typeof shaft>[number]

/** A shaft of so many lands, drawn as the interface draws it. */
function drawnShaft(steps: readonly Land[]): Part {
  const ends: End[] = [{ at: { x: 0, y: 0 }, point: ORIGIN_ID }]
  const kinds: ('axial' | 'radial')[] = []
  let x = 0
  for (const { diameter, length } of steps) {
    ends.push({ at: { x, y: diameter / 2 } }, { at: { x: x + length, y: diameter / 2 } })
    kinds.push('radial', 'axial')
    x += length
  }
  ends.push({ at: { x, y: 0 }, on: [AXIS_ID] })
  kinds.push('radial')
  const directions = kinds.map((k) => [k])
  return run(createPart({ name: 'Spindle' }), drawChain(SKETCH, ends, directions))
}

/** A shaft of about 300 lines, turned, without sizes. */
export const longShaft = (): Part => run(drawnShaft(shaft(149)), addRevolve(SKETCH))

/** A shaft of 60 lines, fully sized and turned. */
function sizedShaft(): Part {
  const steps = shaft(30)
  const drawn = drawnShaft(steps)
  const lands = linesOf(sketchOf(drawn)).filter((_, i) => i % 2 === 1)
  const sizes = lands.flatMap((land, i) => [
    addSize(SKETCH, { kind: 'length', line: land.id }, String(steps[i]?.length)),
    addSize(SKETCH, { kind: 'diameter', point: land.from }, String(steps[i]?.diameter)),
  ])
  return run(drawn, ...sizes, addRevolve(SKETCH))
}

function sketchOf(part: Part): Sketch {
  const [sketch] = part.sketches
  if (!sketch) throw new Error('the bench part has no profile')
  return sketch
}

/** A shaft so wide that it takes half a million triangles to show. */
export function wideShaft(): Part {
  const lands = Array.from({ length: 190 }, (_, i) => ({
    diameter: 4000 + 60 * (i % 5),
    length: 50,
  }))
  return run(drawnShaft(lands), addRevolve(SKETCH))
}

/** The shaft with one land's diameter left open, and a place on that land. */
export function looseShaft(): { part: Part; point: string; at: Vec; sized: Part; size: string } {
  const sized = sizedShaft()
  const freed = sized.sketches[0]?.sizes.find((s) => s.kind === 'diameter')
  if (freed?.kind !== 'diameter') throw new Error('the bench part has no size to free')
  const part = run(sized, removeItems(SKETCH, [freed.id]))
  const land = linesOf(sketchOf(part)).find((e) => e.from === freed.point)
  const points = part.sketches[0]?.points ?? []
  const [a, b] = [land?.from, land?.to].map((id) => points.find((p) => p.id === id))
  if (!a || !b) throw new Error('the bench part has no land to drag')
  const at = { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 }
  return { part, point: freed.point, at, sized, size: freed.id }
}

/** Section, mass and mesh of a part's first body, as the screen takes them. */
function refresh(part: Part, mesh: LatheMesh | undefined): LatheMesh | undefined {
  const state = evaluate(part)
  overallOf(state)
  const section = state.bodies[0]?.section
  return section && latheMesh(section, DISPLAY_CHORD_TOLERANCE, mesh)
}

/** What one pointer move or one typed value costs, from the event to everything brought up to date. */
export function updateRows(): Row[] {
  const { part: loose, point, sized, size } = looseShaft()
  const [sketch] = loose.sketches
  if (!sketch) throw new Error('the bench part has no profile')
  const session = startDrag(sketch, valuesOf(loose).sizesOf(sketch.id).values, [point])
  let mesh = refresh(loose, undefined)
  const drag = medianTime(
    120,
    (i) => ({ x: 0, y: 0.01 * i }),
    (by) => {
      mesh = refresh(withDragged(loose, SKETCH, session.move(by)), mesh)
    },
  )
  const typed = medianTime(
    60,
    (i) => changeSize(SKETCH, size, String(20 + 0.01 * i)),
    (command) => {
      mesh = refresh(run(sized, command), mesh)
    },
  )
  return [
    atMost('pointer move to everything updated, 60 lines', drag, 'ms', 8),
    atMost('typed value to everything updated, 60 lines', typed, 'ms', 30),
  ]
}

import { latheMesh } from '@lathica/core/mesh'
import { createRandom } from '@lathica/core/solver'
import { createPart, type NewStep, type Part } from '@lathica/core/part'
import {
  FULL_WALL,
  addRevolve,
  addStep,
  drawChain,
  drawCurve,
  movePoints,
  perform,
} from '@lathica/core/edit'
import { evaluate } from '@lathica/core/route'
import { atMost, medianTime, type Row } from './row'

const SKETCH = 'sketch2'

/** A bowl whose side is one free curve through many places, turned as a wall or as a solid. */
function bowl(
  places: number,
  turned: 'wall' | 'solid',
): { readonly part: Part; readonly point: string } {
  const curve = Array.from({ length: places }, (_, i) => ({
    at: { x: (120 * i) / (places - 1), y: 40 + 12 * Math.sin((4 * i) / (places - 1)) },
  }))
  const ends = [curve[0], curve.at(-1)]
  const [first, last] = ends
  if (!first || !last) throw new Error('a curve has places')
  let part = createPart({ name: 'Bowl' })
  const run = (command: Parameters<typeof perform>[1]): void => {
    const made = perform(part, command)
    if (!made.ok) throw new Error(made.problem.message)
    part = made.value
  }
  run(drawCurve({ sketch: SKETCH, way: 'through', places: curve, role: 'outline', square: false }))
  const side = part.sketches[0]?.entities[0]
  if (side?.kind !== 'spline') throw new Error('there is a curve')
  if (turned === 'solid') {
    run(
      drawChain(
        SKETCH,
        [
          { at: { x: 0, y: 0 }, on: ['axis'] },
          { ...first, point: side.from },
        ],
        [[]],
      ),
    )
    run(
      drawChain(
        SKETCH,
        [
          { ...last, point: side.to },
          { at: { x: 120, y: 0 }, on: ['axis'] },
        ],
        [[]],
      ),
    )
    run(addRevolve(SKETCH))
  } else {
    const wall = { kind: 'wall', sketch: SKETCH, side: 'middle', thickness: '2', inner: '' }
    const rest = { effect: 'add', body: 'body1', corners: 'round', ends: 'round' }
    run(addStep({ ...wall, ...rest, ...FULL_WALL } as NewStep))
  }
  const failed = evaluate(part).steps.find((s) => s.problem)?.problem
  if (failed) throw new Error(failed.message)
  return { part, point: side.by[Math.floor(side.by.length / 2)] ?? '' }
}

/** A point pushed to and fro, with section, mass and mesh after it. */
function pushed(places: number, turned: 'wall' | 'solid'): number {
  const { part, point } = bowl(places, turned)
  const random = createRandom(7)
  const at = part.sketches[0]?.points.find((p) => p.id === point) ?? { x: 0, y: 0 }
  return medianTime(
    31,
    () => new Map([[point, { x: at.x, y: at.y + random() }]]),
    (to) => {
      const moved = perform(part, movePoints(SKETCH, to))
      const [body] = moved.ok ? evaluate(moved.value).bodies : []
      if (!body || !(body.mass > 0)) throw new Error('the bowl has no mass')
      latheMesh(body.section, 0.02)
    },
  )
}

/** Free curves of many places: what a move of the pointer takes. */
export function curveRows(): Row[] {
  const [at40, at80, at200] = [pushed(40, 'wall'), pushed(80, 'wall'), pushed(200, 'wall')]
  return [
    atMost('push, 40 places with a wall: section, mass, mesh', at40, 'ms', 8),
    atMost('push, 200 places with a wall', at200, 'ms', 25),
    atMost('twice the places', at80 / at40, '× the time', 2.3),
    atMost('push, 40 places, solid', pushed(40, 'solid'), 'ms', 8),
  ]
}

import { fail, succeed } from '../../result'
import { settle, sketchStates } from '../../route'
import { distance, type Vec } from '../../geometry'
import { entityName, locator, type Fixed } from '../../sketch'
import { withSketch, type Command } from '../command'

/** Where points are to stand, in mm; what is left out stays as it is. */
export interface TypedPlace {
  readonly x?: number
  readonly y?: number
}

/** A point that comes to rest farther than this from where it was told to stand, in mm, is held elsewhere. */
const THERE = 1e-6

/** Puts points where they are told to stand, and the rest of the sketch as that takes. */
export function placePoints(sketchId: string, ids: readonly string[], to: TypedPlace): Command {
  return {
    label: ids.length === 1 ? 'place point' : `place ${ids.length} points`,
    run: (part) => {
      const sketch = part.sketches.find((s) => s.id === sketchId)
      const known = new Set(sketch?.points.map((p) => p.id))
      if (!sketch || !ids.every((id) => known.has(id))) {
        return fail('point.gone', 'A point to move is gone.', 'Pick again.')
      }
      const locate = locator(sketch)
      const targets = new Map(
        ids.map((id): [string, Vec] => [id, { x: locate(id).x, y: locate(id).y, ...to }]),
      )
      // Held there for once, so that the rest follows and not they.
      const holds = [...targets].map(([point, { x, y }], i): Fixed => ({
        id: `~${i}`,
        kind: 'fixed',
        point,
        x,
        y,
      }))
      const tried = settle(
        withSketch(part, {
          ...sketch,
          points: sketch.points.map((p) => ({ ...p, ...targets.get(p.id) })),
          constraints: [...sketch.constraints, ...holds],
        }),
      )
      const settled = tried.sketches.find((s) => s.id === sketchId) ?? sketch
      const after = locator(settled)
      const solved = sketchStates(tried).get(sketchId)?.solution.solved === true
      const off = ids.find((id) => distance(after(id), targets.get(id) ?? after(id)) > THERE)
      if (off !== undefined || !solved) {
        const name = entityName(sketch, off ?? ids[0] ?? '')
        return fail(
          'place.held',
          `${name.charAt(0).toUpperCase()}${name.slice(1)} cannot stand there: sizes or constraints hold it.`,
          'Change those, or type another place.',
        )
      }
      return succeed(withSketch(tried, { ...settled, constraints: sketch.constraints }))
    },
  }
}

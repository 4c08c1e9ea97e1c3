import { fail, succeed, type Result } from '../../../result'
import type { Sketch, SketchSpline } from '../../../sketch'
import type { NewConstraint } from '../../../constraints'
import { withSketch, type Command } from '../../command'
import { withTiesThatFit } from '../draft'

/** An edit of a free curve of many places: the sketch changed, with ties to try. */
export interface Edited {
  readonly sketch: Sketch
  readonly ties: readonly NewConstraint[]
}

/** An edit of a free curve of many places. */
export function curveCommand(
  label: string,
  sketchId: string,
  id: string,
  edit: (sketch: Sketch, curve: SketchSpline) => Result<Edited>,
): Command {
  return {
    label,
    run: (part) => {
      const sketch = part.sketches.find((s) => s.id === sketchId)
      const curve = sketch?.entities.find((e) => e.id === id)
      if (!sketch || curve?.kind !== 'spline') {
        return fail('curve.none', 'This is no free curve of many places.', 'Pick one.')
      }
      const edited = edit(sketch, curve)
      if (!edited.ok) return edited
      return succeed(
        withTiesThatFit(withSketch(part, edited.value.sketch), sketchId, edited.value.ties),
      )
    },
  }
}

export const noLength: Result<never> = fail(
  'curve.zero',
  'This curve has no length.',
  'Move its points apart.',
)

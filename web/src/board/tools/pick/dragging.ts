import { subtract, type Vec } from '@lathica/core/geometry'
import { handlesAt, standsOn, type Sketch } from '@lathica/core/sketch'
import { startDrag } from '@lathica/core/solver'
import { valuesOf, type Part } from '@lathica/core/part'
import { withDragged } from '@lathica/core/route'
import { toPlane, type Px } from '../../view'
import type { Board, ToolState } from '../tool'

/** Moves points with the pointer while constraints and sizes hold; letting go takes it. */
export function dragging(board: Board, start: Px, id: string, after: () => ToolState): ToolState {
  const part = board.part()
  const sketch = board.sketch()
  if (sketch.locked === true) {
    board.tell(`Profile ${sketch.name} is locked.`, 'Unlock it in the list of profiles.')
    return held(after)
  }
  const ids = board.picks().includes(id) ? board.picks() : [id]
  const points = moving(sketch, ids)
  const { values } = valuesOf(part).sizesOf(sketch.id)
  const session = startDrag(sketch, values, points, handlesAt(sketch, points))
  if (!session.movable) {
    board.tell(
      'Nothing about this can move: its constraints and sizes hold it still.',
      'Change a size, or delete a constraint.',
    )
    return held(after)
  }
  const from = toPlane(board.view(), start)
  let shown: Part | undefined
  const state: ToolState = {
    hint: 'Let go to leave it here; Shift keeps it straight; Esc puts it back.',
    cursor: 'grabbing',
    move(at) {
      const by = subtract(toPlane(board.view(), at.px), from)
      shown = withDragged(part, sketch.id, session.move(at.shift ? straightened(by) : by))
      board.show(shown)
      return state
    },
    release() {
      board.show(undefined)
      if (shown) board.take('move', shown)
      return after()
    },
    escape() {
      board.show(undefined)
      return held(after)
    },
  }
  return state
}

/** Along the axis or square to it, whichever it is more. */
const straightened = ({ x, y }: Vec): Vec =>
  Math.abs(x) >= Math.abs(y) ? { x, y: 0 } : { x: 0, y }

/** Waits for the button to be let go, doing nothing. */
function held(after: () => ToolState): ToolState {
  return { hint: 'Let go of the button.', release: after }
}

/** The points that move with points and curves. */
function moving(sketch: Sketch, ids: readonly string[]): string[] {
  const points = new Set<string>()
  for (const id of ids) {
    const entity = sketch.entities.find((e) => e.id === id)
    for (const p of entity ? standsOn(entity) : [id]) points.add(p)
  }
  return [...points]
}

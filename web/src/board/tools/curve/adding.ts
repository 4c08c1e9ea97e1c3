import { locator, nearestOf } from '@lathica/core/sketch'
import { pointAt } from '@lathica/core/geometry'
import { putPointIn } from '@lathica/core/edit'
import { nearestCurve } from '../../pick'
import { toPlane } from '../../view'
import type { Board, PointerAt, ToolState } from '../tool'

/** So near to a curve, in pixels, a click puts a point into it. */
const REACH = 12

/** Puts points into free curves of many places; their shape stays. */
export function addingPoints(board: Board, at?: PointerAt): ToolState {
  const sketch = board.sketch()
  const found = (here: PointerAt): string | undefined => {
    const id = nearestCurve(sketch, board.view(), here.px, REACH)
    return sketch.entities.some((e) => e.id === id && e.kind === 'spline') ? id : undefined
  }
  const curve = at && sketch.entities.find((e) => e.id === found(at))
  const near = at && curve && nearestOf(curve, locator(sketch), toPlane(board.view(), at.px))
  return {
    hint: 'Click on a free curve where it gets a point more; its shape stays.',
    cursor: 'crosshair',
    ...(near ? { overlay: { mark: pointAt(near.piece, near.t), words: ['a point here'] } } : {}),
    move: (next) => {
      board.setHover(found(next))
      return addingPoints(board, next)
    },
    press: (here) => {
      const id = found(here)
      if (id === undefined) {
        board.tell('There is no free curve of many places here.', 'Click on one.')
      } else board.run(putPointIn(sketch.id, id, toPlane(board.view(), here.px)))
      return addingPoints(board, here)
    },
    refresh: () => addingPoints(board, at),
  }
}
